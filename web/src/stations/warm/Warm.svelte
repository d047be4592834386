<script lang="ts">
  // What ferments: is it falling, when must I get up, how much of the allowance is left.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { keys, lineQuery, warmQuery } from '../../api/queries';
  import type { Schema } from '../../api/client';
  import PaperTag from '../../goods/PaperTag.svelte';
  import Line from '../../shell/Line.svelte';
  import { navigate, route } from '../../shell/router';
  import { fullDay, timeOfDay } from '../../units/format';
  import { numberText } from '../../units/number';
  import { words } from '../../words';
  import Stage from './Stage.svelte';
  import WarmBatch from './WarmBatch.svelte';
  import { WarmDesk } from './warmdesk.svelte';

  const say = words.warm;
  const client = useQueryClient();
  const line = createQuery(lineQuery);
  const warm = createQuery(warmQuery);
  const now = $derived(line.data ? new Date(line.data.now).getTime() : Date.now());
  const asked = $derived(Number((route.params as { id?: string }).id) || null);
  const picked = $derived(asked ?? warm.data?.running[0]?.batch_id ?? null);

  function renew(answer: Schema['WarmDetail'] | null): void {
    if (answer) client.setQueryData(keys.warmBatch(answer.card.batch_id), answer);
    for (const key of [keys.warm, keys.today, ['ledger'], ['batch'], keys.line])
      void client.invalidateQueries({ queryKey: key });
  }
  const desk = $derived(picked === null ? null : new WarmDesk(picked, renew));
  const hour = (card: Schema['WarmCard']): number =>
    Math.round((now - new Date(card.stuffed_at).getTime()) / 3_600_000);
  const bad = (state: Schema['WarmCard']['state']): boolean =>
    state === 'stalled' || state === 'over_allowance' || state === 'too_low';
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="warm" />{/if}
  <div class="station">
    <nav aria-label={say.title}>
      <h1 class="font-tag text-3xl font-bold">{say.title}</h1>
      {#if warm.data}<p class="quiet">{say.count(warm.data.running.length)}</p>{/if}
      {#if warm.isError}<p class="text-error" role="alert">{warm.error.message}</p>{/if}
      {#each warm.data?.running ?? [] as card (card.batch_id)}
        <button
          class="pickable"
          class:chosen={card.batch_id === picked}
          onclick={() => void navigate('/warm/:id', { params: { id: String(card.batch_id) } })}
        >
          <PaperTag
            top={card.batch}
            main={`~${numberText(card.ph_now, 2)}`}
            chosen={card.batch_id === picked}
            loud
          />
          <span class="min-w-0">
            <span
              class="block font-semibold"
              class:text-error={bad(card.state)}
              class:text-warning={card.state === 'slow'}
              >{say.states[card.state]}, {say.since(hour(card))}</span
            >
            <span class="quiet block text-sm">{card.product}</span>
            {#if card.measure_next}<span class="block text-sm"
                >{say.measure(timeOfDay(card.measure_next))}</span
              >{/if}
          </span>
        </button>
      {/each}
      {#if warm.data?.ended.length}
        <h2 class="mt-5 font-semibold">{say.ended}</h2>
        {#each warm.data.ended as card (card.batch_id)}
          <button
            class="pickable"
            class:chosen={card.batch_id === picked}
            onclick={() => void navigate('/warm/:id', { params: { id: String(card.batch_id) } })}
          >
            <PaperTag
              top={card.batch}
              main={card.last_ph === null ? `~${numberText(card.ph_now, 2)}` : numberText(card.last_ph, 2)}
              chosen={card.batch_id === picked}
            />
            <span class="min-w-0">
              <span class="block">{say.states[card.state]}</span>
              <span class="quiet block text-sm">{fullDay(card.stuffed_at)}</span>
            </span>
          </button>
        {/each}
      {/if}
    </nav>
    <main>
      {#each warm.data?.waiting ?? [] as batch (batch.batch_id)}
        <section class="mb-6" aria-label={`${say.waiting} ${batch.batch}`}>
          <h2 class="font-tag text-xl font-semibold">
            {batch.batch} <span class="font-sans text-base font-normal">{batch.product} · {say.waiting}</span>
          </h2>
          {#if line.data}<Stage {batch} places={line.data.places} ondone={() => renew(null)} />{/if}
          <button
            class="mt-1 min-h-11 underline underline-offset-4"
            onclick={() => void new WarmDesk(batch.batch_id, renew).note('hang_cold')}>{say.hangsCold}</button
          >
        </section>
      {/each}
      {#if picked && desk && warm.data}
        {#key picked}<WarmBatch batch={picked} {desk} {now} meters={warm.data.meters} />{/key}
      {:else if warm.data && warm.data.waiting.length === 0}
        <p class="mt-6 text-lg">{say.noneHint}</p>
      {/if}
      <p class="quiet mt-6 text-sm">{say.caution}</p>
    </main>
  </div>
</div>

<style>
  nav {
    width: 17.5rem;
    flex: none;
    padding: 0.9rem 0.6rem 2rem 1.25rem;
  }
  .pickable {
    display: flex;
    align-items: center;
    gap: 0.8rem;
    width: 100%;
    margin-top: 0.5rem;
    padding: 0.4rem;
    text-align: left;
    cursor: pointer;
    border-radius: 4px;
  }
  .chosen {
    background: var(--paper);
  }
  @media (max-width: 1000px) {
    nav {
      width: auto;
      padding-right: 1.25rem;
    }
  }
</style>
