<script lang="ts">
  // Every batch that was ever made, in whatever state, found by any word that stands on it.
  // Long, since the list and what it is sought by share one address.
  import { createQuery } from '@tanstack/svelte-query';

  import type { Schema } from '../../api/client';
  import { batchesQuery, lineQuery } from '../../api/queries';
  import PaperTag from '../../goods/PaperTag.svelte';
  import { inAddress, intoAddress } from '../../shell/address';
  import Line from '../../shell/Line.svelte';
  import { p } from '../../shell/router';
  import { fullDay } from '../../units/format';
  import { words } from '../../words';
  import PieceState from './PieceState.svelte';

  const say = words.life.book;
  const drawers = Object.keys(say.drawers) as (keyof typeof say.drawers)[];
  const line = createQuery(lineQuery);
  let search = $state(inAddress('words') ?? '');
  let drawer = $state<keyof typeof say.drawers>(
    drawers.find((name) => name === inAddress('drawer')) ?? 'all',
  );
  let asked = $state('');
  $effect(() => {
    const typed = search.trim();
    const timer = setTimeout(() => (asked = typed), 150);
    return () => clearTimeout(timer);
  });
  $effect(() => intoAddress({ words: asked || null, drawer: drawer === 'all' ? null : drawer }, false));
  const PAGE = 50;
  let most = $state(PAGE);
  const found = createQuery(() => ({
    ...batchesQuery(asked, drawer, most),
    placeholderData: (before: Schema['BatchesFound'] | undefined) => before,
  }));
  const batches = $derived(found.data?.batches ?? []);
  const more = $derived(Math.min((found.data?.counts[drawer] ?? 0) - batches.length, PAGE));
  const states = (batch: Schema['BatchFound']): string =>
    Object.entries(batch.states)
      .map(([kind, count]) => `${count} ${words.life.many[kind as keyof typeof words.life.many]}`)
      .join(', ');
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="book" />{/if}
  <main class="flex-1 overflow-y-auto px-5 pt-3 pb-16 max-md:px-3">
    <header class="flex flex-wrap items-baseline gap-x-5 gap-y-2">
      <h1 class="font-tag text-3xl font-bold">{say.title}</h1>
      <p class="quiet">{say.hint}</p>
      <a
        class="ml-auto inline-flex min-h-11 items-center underline underline-offset-4"
        href={p('/book/accuracy')}>{say.accuracy}</a
      >
      <a class="inline-flex min-h-11 items-center underline underline-offset-4" href={p('/book/compare')}
        >{say.compare}</a
      >
      <a
        download
        class="inline-flex min-h-11 items-center underline underline-offset-4"
        href="/api/workshop.xlsx">{words.book.sheet}</a
      >
      <a class="inline-flex min-h-11 items-center underline underline-offset-4" href={p('/book/file')}
        >{say.file}</a
      >
      <a class="inline-flex min-h-11 items-center underline underline-offset-4" href={p('/book/changes')}
        >{say.changes}</a
      >
    </header>
    <div class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
      <input
        class="input min-h-11 w-full max-w-md text-base"
        type="search"
        placeholder={say.search}
        aria-label={say.search}
        bind:value={search}
      />
      <div class="flex flex-wrap gap-x-2" role="group" aria-label={say.title}>
        {#each drawers as name (name)}
          <button
            class="sort"
            class:on={drawer === name}
            aria-pressed={drawer === name}
            onclick={() => ((drawer = name), (most = PAGE))}
            >{say.drawers[name]} <span class="quiet">{found.data?.counts[name] ?? ''}</span></button
          >
        {/each}
      </div>
    </div>
    {#if found.isError}<p class="text-error" role="alert">{found.error.message}</p>{/if}
    {#if found.data && batches.length === 0}
      <p class="mt-6 text-lg">{asked || drawer !== 'all' ? say.none : say.empty}</p>
    {/if}
    <ul class="mt-3">
      {#each batches as batch (batch.id)}
        <li class="batch">
          <a class="head" href={p('/book/batch/:id', { params: { id: String(batch.id) } })}>
            <PaperTag top={batch.code} main={say.pieces(batch.pieces.length)} />
            <span class="min-w-0">
              <span class="block text-lg font-semibold">{batch.product}</span>
              <span class="quiet block text-sm">{say.made(fullDay(batch.made_at))}</span>
              <span class="block text-sm">{states(batch)}</span>
            </span>
          </a>
          <ul class="pieces">
            {#each batch.pieces as piece (piece.tag)}
              <li><PieceState {piece} kind={batch.kind} shape={batch.shape} /></li>
            {/each}
          </ul>
        </li>
      {/each}
    </ul>
    {#if more > 0}
      <button class="btn mt-4 min-h-11" disabled={found.isFetching} onclick={() => (most += PAGE)}
        >{say.more(more)}</button
      >
    {/if}
    {#if line.data && found.data?.batches.length}<p class="quiet mt-4 text-sm">
        {words.ledger.law}
      </p>{/if}
  </main>
</div>

<style>
  .batch {
    display: grid;
    grid-template-columns: minmax(17rem, 22rem) minmax(0, 1fr);
    gap: 0.6rem 2rem;
    padding: 0.9rem 0;
    border-bottom: 1px solid var(--color-base-300);
  }
  .head {
    display: flex;
    gap: 1rem;
    align-items: flex-start;
  }
  .head:hover {
    background: color-mix(in oklab, var(--paper), transparent 55%);
  }
  .pieces {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem 1rem;
    align-content: flex-start;
  }
  .sort {
    min-height: 44px;
    padding: 0 0.6rem;
    cursor: pointer;
  }
  .sort.on {
    font-weight: 600;
    box-shadow: inset 0 -3px 0 0 var(--color-primary);
  }
  @media (max-width: 800px) {
    .batch {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
