<script lang="ts">
  // The cut face: a disc or a slab shaded by predicted water, wet in the middle, dark at the rim.
  import type { Schema } from '../api/client';

  let { inside, slab, size = 120 }: { inside: Schema['InsideOut']; slab: boolean; size?: number } = $props();

  const wettest = 78;
  const driest = 30;
  function shade(water: number): string {
    const dry = Math.min(1, Math.max(0, (wettest - water) / (wettest - driest)));
    return `color-mix(in oklab, var(--meat-fresh), var(--meat-line) ${(dry * 100).toFixed(0)}%)`;
  }
  // from the rim inwards, each ring drawn over the one before
  const rings = $derived(
    inside.depth_share.map((depth, i) => {
      const before = inside.depth_share[i - 1] ?? -depth;
      return { edge: 1 - (depth + before) / 2, fill: shade(inside.water_percent[i] ?? 0) };
    }),
  );
  const flecks = Array.from({ length: 22 }, (_, i) => {
    const angle = i * 2.4;
    const r = Math.sqrt((i + 0.6) / 22) * 0.88;
    return {
      x: r * Math.cos(angle),
      y: r * Math.sin(angle),
      r: 1.3 + ((i * 5) % 4) * 0.45,
      turn: (i * 47) % 180,
    };
  });
</script>

<svg
  width={size}
  height={slab ? size * 0.62 : size}
  viewBox={slab ? '-60 -37 120 74' : '-60 -60 120 120'}
  aria-hidden="true"
>
  {#each rings as ring, i (i)}
    {#if slab}
      <rect
        x={-56 * Math.max(0.35, (ring.edge + 1) / 2) - (i === 0 ? 2 : 0)}
        y={-32 * ring.edge}
        width={112 * Math.max(0.35, (ring.edge + 1) / 2) + (i === 0 ? 4 : 0)}
        height={64 * ring.edge}
        rx="6"
        fill={ring.fill}
      />
    {:else}
      <circle r={57 * ring.edge} fill={ring.fill} />
    {/if}
  {/each}
  {#each flecks as f, i (i)}
    <ellipse
      cx={f.x * 55}
      cy={f.y * (slab ? 29 : 55)}
      rx={f.r * 1.5}
      ry={f.r}
      transform={`rotate(${f.turn} ${f.x * 55} ${f.y * (slab ? 29 : 55)})`}
      fill="var(--fat)"
      opacity="0.85"
    />
  {/each}
</svg>
