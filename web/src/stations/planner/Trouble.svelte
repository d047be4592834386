<script lang="ts">
  // Where it finds no room, gives up more water than its place has managed, or slips: in words, with the ways out.
  import type { Schema } from '../../api/client';
  import { words } from '../../words';
  import { said, whole } from '../../words/said';
  import type { Hand, Planned } from './hand.svelte';

  let { hand, plan }: { hand: Hand; plan: Planned } = $props();
  const say = words.plan;

  function go(way: Schema['WayOutOut']): void {
    const { start, place_id, pieces, wanted } = way;
    hand.set({
      ...(start && { start }),
      ...(place_id && { place_id }),
      ...(pieces && { pieces }),
      ...(wanted && { wanted }),
    });
  }
</script>

{#snippet ways(some: Schema['WayOutOut'][])}
  <span class="ways">
    {#each some as way (way.kind)}
      <button class="btn btn-sm min-h-11" onclick={() => go(way)}
        >{whole(said(way.says)).replace(/\.$/, '')}</button
      >
    {/each}
  </span>
{/snippet}

{#if plan.slip}
  <div class="trouble" role="status">
    <p><strong>▲ {say.slip}:</strong> {whole(said(plan.slip.says))}</p>
    <p><span class="quiet">{say.customer}:</span> {whole(said(plan.slip.customer))}</p>
    {@render ways(plan.slip.ways)}
  </div>
{/if}
{#if plan.clash}
  <div class="trouble" role="status">
    <p><strong>▲ {say.clash}:</strong> {whole(said(plan.clash.says))}</p>
    {@render ways(plan.clash.ways)}
  </div>
{/if}
{#if plan.water}<p class="trouble">▲ {whole(said(plan.water))}</p>{/if}

<style>
  .trouble {
    color: var(--color-warning);
  }
  .trouble .quiet {
    font-weight: 400;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    padding: 0.15rem 0;
  }
</style>
