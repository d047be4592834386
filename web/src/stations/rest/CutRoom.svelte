<script lang="ts">
  // Under the knife: what waits, what was looked into; one piece big, with what it says.
  import { untrack } from 'svelte';

  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import type { Schema } from '../../api/client';
  import { cutPieceQuery, cutQuery, keys, lineQuery } from '../../api/queries';
  import Line from '../../shell/Line.svelte';
  import { p, route } from '../../shell/router';
  import { dayAndTime, percent } from '../../units/format';
  import { weightAsTyped } from '../../units/quantity';
  import { words } from '../../words';
  import Photos from '../hang/Photos.svelte';
  import CutAnswer from './CutAnswer.svelte';
  import CutDrawing from './CutDrawing.svelte';
  import { CutForm } from './cutform.svelte';
  import CutSay from './CutSay.svelte';
  import CutSee from './CutSee.svelte';
  import Rooms from './Rooms.svelte';

  const say = words.cut;
  const client = useQueryClient();
  const line = createQuery(lineQuery);
  const list = createQuery(cutQuery);
  const picked = $derived(route.params.id ? Number(route.params.id) : null);
  const piece = createQuery(() => ({ ...cutPieceQuery(picked ?? 0), enabled: picked !== null }));
  const now = $derived(line.data ? new Date(line.data.now).getTime() : Date.now());
  let again = $state(false);
  $effect(() => {
    void picked;
    again = false;
  });
  const found = $derived(picked === null ? undefined : piece.data);
  const face = $derived(found?.faces.find((f) => f.struck_reason === null));
  const looking = $derived(found !== undefined && found.state !== 'gone' && (again || face === undefined));

  // one form for each look: a newer answer of the same piece leaves what is tapped alone
  const look = $derived(looking && found ? `${found.piece_id}-${found.faces.length}` : null);
  let form = $state.raw<CutForm | null>(null);
  $effect(() => {
    form = look === null ? null : untrack(() => (found ? new CutForm(found) : null));
  });

  function done(answer: Schema['UnderTheKnife']): void {
    again = false;
    client.setQueryData(keys.cutPiece(answer.piece_id), answer);
    for (const queryKey of [keys.cut, keys.rest, keys.today, keys.line, keys.piece(answer.piece_id)])
      void client.invalidateQueries({ queryKey });
  }
</script>

<svelte:head><title>{found ? `${found.tag} · ` : ''}{say.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="rest" />{/if}
  <div class="station">
    <main>
      <header class="mb-2 flex flex-wrap items-baseline gap-x-6">
        <h1 class="font-tag text-3xl font-bold">{say.title}</h1>
        <Rooms here="cut" toCut={list.data?.waiting.length} />
      </header>
      {#if found}
        <p class="quiet">
          <strong class="text-base-content">{found.tag}</strong> · {found.product} ·
          {found.loss_percent === null ? words.done.notWeighed : say.lost(percent(found.loss_percent))} · {say.days(
            Math.round(found.days),
          )} · {say.states[found.state]}{found.weight_g ? ` · ${weightAsTyped(found.weight_g)}` : ''}
        </p>
        <p class="quiet mb-2 text-sm">
          {say.predicted(found.ring_mm < 0.5 ? say.predictedNone : say.predictedRing(found.ring_mm))}
        </p>
        {#if looking && form}
          <CutSee piece={found} {form} />
        {:else if face}
          <CutDrawing
            inside={found.inside}
            slab={found.shape === 'slab'}
            halfMm={found.across_mm / 2}
            ringMm={face.face.ring_mm ?? null}
            ringed={face.face.ring === 'thin' || face.face.ring === 'wide'}
            marks={face.face.marks ?? []}
          />
          <p class="quiet mt-1 text-center text-sm">{say.shaded}</p>
        {/if}
        <Photos piece={found.piece_id} />
      {:else if picked === null}
        <h2 class="font-tag mt-3 text-xl font-semibold">{say.waiting}</h2>
        {#each list.data?.waiting ?? [] as one (one.piece_id)}
          <a class="row" href={p('/rest/cut/:id', { params: { id: String(one.piece_id) } })}>
            <strong class="font-tag">{one.tag}</strong> <span>{one.product}</span>
            <span class="quiet"
              >{say.states[one.state]}
              {say.since(Math.max(0, Math.floor((now - new Date(one.since).getTime()) / 86_400_000)))}</span
            >
          </a>
        {:else}
          {#if list.data}<p class="mt-1">{say.waitingNone}</p>
            <p class="quiet">{say.waitingHint}</p>{/if}
        {/each}
      {:else if piece.isError}<p class="text-error" role="alert">{piece.error.message}</p>{/if}
    </main>
    <aside class:open={picked !== null}>
      {#if found}
        {#if looking && form}<CutSay piece={found} bind:form ondone={done} />
        {:else if face}<CutAnswer piece={found} onagain={() => (again = true)} />{/if}
      {:else}
        <h2 class="font-tag text-xl font-semibold">{say.seen}</h2>
        {#each list.data?.seen ?? [] as one, i (i)}
          <a class="row" href={p('/rest/cut/:id', { params: { id: String(one.piece_id) } })}>
            <strong class="font-tag">{one.tag}</strong>
            <span>{one.cause ? (say.causes[one.cause] ?? one.cause) : say.nothingSeen}</span>
            <span class="quiet text-sm">{dayAndTime(one.at)} · {one.by} · {say.verdicts[one.verdict]}</span>
          </a>
        {:else}
          {#if list.data}<p class="quiet mt-1">{say.seenNone}</p>{/if}
        {/each}
      {/if}
    </aside>
  </div>
</div>

<style>
  aside {
    width: 32rem;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0.1rem 0.8rem;
    min-height: 48px;
    padding: 0.5rem 0.2rem;
    border-bottom: 1px solid var(--color-base-300);
  }
  @media (max-width: 1000px) {
    aside {
      width: auto;
    }
  }
</style>
