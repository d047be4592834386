<script lang="ts">
  // A pack as it lies there: a whole piece, a portion or slices, in its bag, paper or jar; three deep at most.
  import type { Schema } from '../../api/client';

  let { pack }: { pack: Schema['PackOut'] } = $props();
  const deep = $derived(Math.min(3, pack.left));
  const fleck = (i: number): { x: number; y: number } => ({
    x: 12 + ((i * 17) % 46),
    y: 12 + ((i * 11) % 24),
  });
</script>

<svg width="92" height="66" viewBox="0 0 92 66" aria-hidden="true">
  {#each Array.from({ length: deep }, (_, i) => deep - 1 - i) as i (i)}
    <g transform={`translate(${6 + i * 5} ${10 - i * 4})`}>
      {#if pack.wrap === 'jar'}
        <rect x="14" y="0" width="42" height="6" rx="2" fill="var(--steel)" />
        <rect x="12" y="5" width="46" height="45" rx="6" fill="var(--paper)" stroke="var(--steel-light)" />
      {:else}
        <rect
          width="70"
          height="50"
          rx={pack.wrap === 'paper' ? 2 : 6}
          fill={pack.wrap === 'paper' ? 'var(--paper-edge)' : 'var(--paper)'}
          stroke="var(--steel-light)"
          stroke-dasharray={pack.wrap === 'none' ? '3 3' : undefined}
        />
        {#if pack.wrap === 'vacuum'}<path
            d="M4 5h62"
            stroke="var(--steel-light)"
            stroke-dasharray="2 2"
          />{/if}
      {/if}
      {#if pack.form === 'sliced'}
        {#each [0, 1, 2, 3] as slice (slice)}
          <ellipse cx={21 + slice * 9} cy="28" rx="10" ry="15" fill="var(--meat-dry)" stroke="var(--paper)" />
        {/each}
      {:else if pack.form === 'whole'}
        <rect x="8" y="16" width="54" height="22" rx="11" fill="var(--meat-dry)" stroke="var(--meat-line)" />
      {:else}
        <rect x="13" y="13" width="44" height="30" rx="4" fill="var(--meat-dry)" />
        {#each [0, 1, 2, 3, 4, 5] as f (f)}<circle
            cx={fleck(f).x + 5}
            cy={fleck(f).y + 7}
            r="1.8"
            fill="var(--fat)"
          />{/each}
      {/if}
    </g>
  {/each}
  <text x="88" y="63" text-anchor="end">{pack.left}×</text>
</svg>

<style>
  text {
    font:
      700 15px 'Zilla Slab',
      serif;
    fill: var(--color-base-content);
    paint-order: stroke;
    stroke: var(--color-base-100);
    stroke-width: 3px;
  }
</style>
