<script lang="ts">
  // What do I weigh out? The sheet, and beside it what it will mean.
  // Long, since the page that joins the parts of the sheet, each a component, with its two columns as style.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';

  import { head } from '../../api/entry';
  import { keys, lineQuery, referenceQuery } from '../../api/queries';
  import { unreadCells } from '../../forms/unread.svelte';
  import Line from '../../shell/Line.svelte';
  import { navigate, p } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { rightNow, shortDay } from '../../units/format';
  import { words } from '../../words';
  import { brought, someDay, wishFor } from '../planner/hand.svelte';
  import Consequences from './Consequences.svelte';
  import { Desk } from './desk.svelte';
  import Lines from './Lines.svelte';
  import MeatBlock from './MeatBlock.svelte';
  import Plan from './Plan.svelte';
  import Recipes from './Recipes.svelte';

  const say = words.bench;
  const client = useQueryClient();
  const line = createQuery(lineQuery);
  const reference = createQuery(referenceQuery);
  const shelf = createQuery(() => ({ queryKey: keys.bench, queryFn: () => take(api.GET('/api/bench')) }));
  const desk = $derived(reference.data ? new Desk(reference.data) : null);
  const waiting = $derived(
    (shelf.data?.batches ?? []).filter((b) => b.waiting > 0 || b.pieces === 0 || b.held),
  );
  const blocked = $derived(
    !desk?.worked?.consequences || Object.keys(desk.faults).length > 0 || unreadCells.size > 0,
  );

  async function begin(): Promise<void> {
    if (!desk) return;
    try {
      const made = await take(
        api.POST('/api/weigh-outs', {
          body: {
            product: desk.product,
            sheet: desk.sheet,
            profile: desk.profile,
            recipe_id: desk.recipe?.id ?? null,
            version: desk.recipe?.version ?? null,
            ...head(),
          },
        }),
      );
      void client.invalidateQueries({ queryKey: keys.bench });
      await navigate('/bench/weigh/:id', { params: { id: String(made.id) } });
    } catch (error) {
      session.complain(error);
    }
  }
  /** The sheet goes to the planner: for when is it wanted, and when must it be begun? */
  async function planIt(): Promise<void> {
    if (!desk) return;
    const recipe = { recipe_id: desk.recipe?.id ?? null, version: desk.recipe?.version ?? null };
    brought.wish = { ...wishFor(desk.product, desk.sheet, someDay(line.data?.now ?? rightNow())), ...recipe };
    await navigate('/ahead');
  }
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="bench" />{/if}
  <div class="bench">
    <main class="sheet">
      <h1 class="sr-only">{say.title}</h1>
      {#if shelf.data && (shelf.data.weigh_outs.length || waiting.length)}
        <nav class="shelf" aria-label={say.shelf}>
          {#each shelf.data.weigh_outs as open (open.id)}
            <a class="slip open" href={p('/bench/weigh/:id', { params: { id: String(open.id) } })}>
              <strong>{say.goOn(open.product, open.left)}</strong>
              <span class="quiet">{open.by}, {shortDay(open.started_at)}</span>
            </a>
          {/each}
          {#each waiting as batch (batch.id)}
            <a class="slip" href={p('/bench/batch/:id', { params: { id: String(batch.id) } })}>
              <strong>{batch.code} {batch.product}</strong>
              <span class:text-error={batch.held} class:quiet={!batch.held}
                >{batch.held ? say.held : say.batchRow(batch.pieces, batch.waiting)}</span
              >
            </a>
          {/each}
        </nav>
      {/if}
      {#if desk}
        <input
          class="title"
          aria-label={say.product}
          bind:value={desk.product}
          oninput={() => desk.changed()}
        />
        <Recipes {desk} />
        <div class="paper">
          <MeatBlock {desk} />
          <Lines {desk} />
        </div>
        <Plan {desk} />
      {:else}
        <p class="quiet p-4">{reference.isError ? reference.error.message : words.loading}</p>
      {/if}
    </main>
    <aside class="beside">
      {#if desk}<Consequences {desk} places={line.data?.places ?? []} />{/if}
    </aside>
  </div>
  <footer class="foot">
    <button class="btn btn-primary btn-lg" disabled={blocked} onclick={() => void begin()}>{say.begin}</button
    >
    {#if blocked && desk}<span class="quiet">{say.beginBlocked}</span>{/if}
    <button class="btn btn-ghost ml-auto min-h-11" disabled={!desk} onclick={() => void planIt()}
      >{say.planIt}</button
    >
    <button class="btn btn-ghost min-h-11 max-md:hidden" onclick={() => print()}>{say.print}</button>
  </footer>
</div>

<style>
  .bench {
    flex: 1;
    min-height: 0;
    display: flex;
  }
  .sheet {
    flex: 1;
    min-width: 0;
    overflow-y: auto;
    padding: 0.8rem 1.25rem 2rem;
    display: flex;
    flex-direction: column;
    gap: 0.7rem;
  }
  .beside {
    width: 27rem;
    flex: none;
    overflow-y: auto;
    padding: 0.9rem 1.25rem 2rem;
    background: color-mix(in oklab, var(--paper), var(--color-base-100) 45%);
  }
  .title {
    font-family: var(--font-tag);
    font-size: 1.9rem;
    font-weight: 700;
    background: transparent;
    border-bottom: 1px solid transparent;
  }
  .title:hover,
  .title:focus {
    outline: none;
    border-color: var(--string);
  }
  .paper {
    display: flex;
    flex-direction: column;
    gap: 0.8rem;
    padding: 0.8rem 1rem;
    background: var(--paper);
    clip-path: polygon(14px 0, calc(100% - 14px) 0, 100% 14px, 100% 100%, 0 100%, 0 14px);
    box-shadow: inset 0 -2px 0 var(--paper-edge);
  }
  .shelf {
    display: flex;
    gap: 0.7rem;
    overflow-x: auto;
    padding-bottom: 0.2rem;
  }
  .slip {
    display: flex;
    flex-direction: column;
    min-height: 44px;
    padding: 0.25rem 0.9rem;
    white-space: nowrap;
    line-height: 1.2;
    border-left: 3px solid var(--string);
    background: var(--color-base-200);
  }
  .open {
    border-color: var(--color-warning);
  }
  .foot {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem 1rem;
    padding: 0.4rem 1.25rem;
    border-top: 1px solid var(--color-base-300);
  }
  @media (max-width: 900px) {
    .bench {
      flex-direction: column;
      overflow-y: auto;
    }
    .sheet,
    .beside {
      width: auto;
      overflow: visible;
      padding-inline: 0.8rem;
    }
    .paper {
      padding: 0.6rem;
    }
  }
  @media print {
    .foot,
    .shelf {
      display: none;
    }
    .bench,
    .sheet,
    .beside {
      display: block;
      overflow: visible;
      width: auto;
    }
  }
</style>
