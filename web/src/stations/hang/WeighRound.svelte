<script lang="ts">
  // The weigh round, full screen: read from a metre away, typed with cold fingers.
  // Long, since one step after another of the same round, each with the same large style.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';
  import { keys } from '../../api/queries';
  import { onTheScale } from '../../api/standins';
  import { canOpenAlone } from '../../shell/connection.svelte';
  import Instrument from '../../forms/Instrument.svelte';
  import { navigate, route } from '../../shell/router';
  import { longDay, percent, shortDay } from '../../units/format';
  import { fieldText, weightRange, weightText } from '../../units/quantity';
  import { words } from '../../words';
  import { said } from '../../words/said';
  import { Round, type RoundPiece } from './round.svelte';
  import RoundEnd from './RoundEnd.svelte';

  const say = words.round;
  const client = useQueryClient();
  const placeId = $derived(Number((route.params as { place?: string }).place));
  const found = createQuery(() => ({
    queryKey: keys.round(placeId),
    queryFn: () => take(api.GET('/api/places/{place_id}/round', { params: { path: { place_id: placeId } } })),
    staleTime: Infinity,
  }));
  let round = $state<Round | null>(null);
  let box = $state<HTMLInputElement | null>(null);

  function show(gross_g: number): void {
    if (!round) return;
    round.text = fieldText('mass', gross_g);
    round.typed();
    box?.focus();
  }
  const all = $derived(found.data?.pieces ?? []);
  const due = $derived(all.filter((one) => one.why !== null));
  const rods = $derived([...new Set(all.map((one) => one.rod))]);
  const batches = $derived([...new Set(all.map((one) => one.batch))]);

  function begin(pieces: RoundPiece[]): void {
    round = new Round(placeId, pieces);
    setTimeout(() => box?.focus());
  }
  const rodPieces = (rod: number): RoundPiece[] => all.filter((one) => one.rod === rod);
  const batchPieces = (batch: string): RoundPiece[] => all.filter((one) => one.batch === batch);

  async function leave(): Promise<void> {
    round?.finish();
    client.removeQueries({ queryKey: keys.round(placeId) });
    for (const key of [keys.rooms, keys.pieces, keys.told, keys.today])
      void client.invalidateQueries({ queryKey: key });
    await navigate('/hang/:place', { params: { place: String(placeId) } });
  }
  function key(event: KeyboardEvent): void {
    if (event.key === 'Escape') {
      if (round && !round.over) round.end();
      else void leave();
    } else if (event.key === 'ArrowUp' && round) {
      event.preventDefault();
      void round.back().then(() => box?.focus());
    }
  }
  const previous = $derived(round?.previous ?? null);
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>
<svelte:window onkeydown={key} />

<div class="round">
  {#if !round}
    <main class="choose">
      <h1 class="font-tag text-3xl font-bold">{say.title}</h1>
      <p class="quiet">{found.data?.place ?? ''}</p>
      {#if found.isError}<p class="text-error" role="alert">{found.error.message}</p>{/if}
      {#if !canOpenAlone}<p class="quiet mt-2">{say.keepOpen}</p>{/if}
      {#if found.data && all.length === 0}<p class="mt-4">{say.nothing}</p>{/if}
      {#if found.data && all.length}
        {#if due.length}
          <button class="btn btn-primary btn-lg mt-4" onclick={() => begin(due)}
            >{say.which.due(due.length)}</button
          >
          <ul class="mt-3">
            {#each due as one (one.id)}
              <li>
                <strong class="font-tag">{one.tag}</strong>
                {#if one.why}<span class="quiet">{say.why[one.why]}</span>{/if}
              </li>
            {/each}
          </ul>
        {:else}<p class="mt-4">{say.nothingDue}</p>{/if}
        <div class="mt-5 flex flex-wrap gap-3">
          <button class="btn min-h-12" onclick={() => begin(all)}>{say.which.all(all.length)}</button>
          {#each rods as rod (rod)}
            <button class="btn min-h-12" onclick={() => begin(rodPieces(rod))}>{say.which.rod(rod)}</button>
          {/each}
          {#each batches as batch (batch)}
            <button class="btn min-h-12" onclick={() => begin(batchPieces(batch))}
              >{say.which.batch(batch)}</button
            >
          {/each}
        </div>
      {/if}
      <button class="mt-6 min-h-11 underline underline-offset-4" onclick={() => void leave()}
        >{say.done.back}</button
      >
    </main>
  {:else if round.piece}
    {@const piece = round.piece}
    <header>
      <span>{say.of(round.index + 1, round.pieces.length)}</span>
      <button class="ml-auto min-h-11 underline underline-offset-4" onclick={() => round?.end()}
        >{say.end}</button
      >
    </header>
    <main>
      <p class="tag">{piece.tag}</p>
      <p class="where">{say.where(piece.rod, piece.hook)} · {piece.product}</p>
      {#if piece.why}<p class="text-info text-lg">{say.why[piece.why]}</p>{/if}
      <form
        onsubmit={(e) => {
          e.preventDefault();
          round?.enter();
          box?.focus();
        }}
      >
        <input
          bind:this={box}
          class="scale"
          inputmode="decimal"
          autocomplete="off"
          aria-label={say.weight}
          bind:value={round.text}
          oninput={() => round?.typed()}
        />
        <p class="expected">
          {piece.last_g === null
            ? say.never
            : say.last(weightText(piece.last_g), shortDay(piece.last_at ?? ''))} ·
          {say.expected(weightRange(piece.expected_low_g, piece.expected_high_g))}
        </p>
        {#if round.question}
          <p class="question" role="alert">
            {round.question === 'unread'
              ? words.errors.noNumber
              : round.question === 'tare'
                ? say.tare(weightText(piece.tare_g))
                : say.question(weightRange(piece.expected_low_g, piece.expected_high_g))}
          </p>
        {/if}
        <div class="mt-2">
          <Instrument kind="scale" cable simulate={() => onTheScale(piece.id)} onvalue={show} />
        </div>
        <div class="buttons">
          <button type="button" class="btn btn-lg" onclick={() => void round?.back()}>{say.undo}</button>
          <button type="button" class="btn btn-lg" onclick={() => round?.skip()}>{say.skip}</button>
          <button class="btn btn-primary btn-lg">{say.enter}</button>
        </div>
      </form>
      <p class="before" aria-live="polite">
        {#if previous}
          {say.before(previous.tag, weightText(previous.gross_g))}
          {#if previous.answer?.loss_percent != null}· {say.lost(percent(previous.answer.loss_percent))}{/if}
          {#if previous.answer?.state === 'ready'}· <strong class="text-success">{say.isReady}</strong>
          {:else if previous.answer?.state === 'over'}· <strong class="text-error">{say.isOver}</strong>
          {:else if previous.answer?.ready?.p50}· {say.ready(longDay(previous.answer.ready.p50))}{/if}
          {#if previous.answer?.wants.includes('too_fast')}· <strong class="text-error">{say.fast}</strong
            >{/if}
          {#if previous.answer?.says}<span class="text-warning block">{said(previous.answer.says)}</span>{/if}
        {/if}
      </p>
      <p class="quiet text-sm max-md:hidden">{say.keys}</p>
    </main>
  {:else}
    <RoundEnd {round} onleave={() => void leave()} />
  {/if}
</div>

<style>
  .round {
    display: flex;
    flex-direction: column;
    min-height: 100%;
  }
  header {
    display: flex;
    align-items: center;
    gap: 1.5rem;
    padding: 0.4rem 1.25rem;
    background: var(--bar);
    color: var(--bar-ink);
  }
  main {
    width: 100%;
    max-width: 46rem;
    margin: 0 auto;
    padding: 1rem 1.25rem 2rem;
  }
  .tag {
    font-family: var(--font-tag);
    font-size: clamp(3rem, 9vw, 5rem);
    font-weight: 700;
    line-height: 1.1;
  }
  .where {
    font-size: 1.35rem;
  }
  .scale {
    width: 100%;
    margin-top: 0.8rem;
    padding: 0 0.5rem;
    font-size: clamp(3.2rem, 11vw, 5.5rem);
    font-weight: 600;
    line-height: 1.2;
    background: var(--paper);
    border-bottom: 3px solid var(--color-primary);
  }
  .scale:focus {
    outline: none;
  }
  .expected {
    margin-top: 0.4rem;
    font-size: 1.35rem;
  }
  .question {
    margin-top: 0.5rem;
    font-size: 1.35rem;
    font-weight: 600;
    color: var(--color-error);
  }
  .buttons {
    display: grid;
    grid-template-columns: 1fr 1fr 2fr;
    gap: 0.8rem;
    margin-top: 1rem;
  }
  .before {
    min-height: 3.4rem;
    margin-top: 1.2rem;
    font-size: 1.2rem;
  }
</style>
