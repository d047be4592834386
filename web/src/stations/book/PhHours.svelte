<script lang="ts">
  // pH by hours since the first reading of each batch: one line each, 5.3 drawn through.
  import { scaleLinear } from 'd3-scale';

  import type { Schema } from '../../api/client';
  import { words } from '../../words/en';

  interface Fall {
    code: string;
    ph: Schema['StoryPh'][];
  }
  let { batches, colours = [] }: { batches: Fall[]; colours?: string[] } = $props();
  let width = $state(420);
  const height = 150;
  const [left, right, top, bottom] = [34, 60, 10, 122];
  const falls = $derived(
    batches.map((one) => {
      const read = one.ph
        .filter((r) => !r.struck)
        .map((r) => ({ t: new Date(r.at).getTime(), ph: r.ph }))
        .sort((a, b) => a.t - b.t);
      return {
        code: one.code,
        points: read.map((r) => ({ hour: (r.t - (read[0]?.t ?? 0)) / 3_600_000, ph: r.ph })),
      };
    }),
  );
  const all = $derived(falls.flatMap((one) => one.points));
  const x = $derived(
    scaleLinear([0, Math.max(12, ...all.map((d) => d.hour))], [left, Math.min(width, 640) - right]),
  );
  const y = $derived(
    scaleLinear(
      [Math.max(5.6, ...all.map((d) => d.ph)) + 0.05, Math.min(5.2, ...all.map((d) => d.ph)) - 0.05],
      [top, bottom],
    ),
  );
</script>

<div bind:clientWidth={width}>
  <svg width={Math.min(width, 640)} {height} role="img" aria-label={words.book.story.ph}>
    {#each y.ticks(4) as tick (tick)}
      <text x={left - 6} y={y(tick) + 4} text-anchor="end">{tick.toFixed(1)}</text>
      <line x1={left} x2={Math.min(width, 640) - right} y1={y(tick)} y2={y(tick)} class="grid" />
    {/each}
    <line x1={left} x2={Math.min(width, 640) - right} y1={y(5.3)} y2={y(5.3)} class="mark" />
    {#each x.ticks(6) as tick (tick)}<text x={x(tick)} y={bottom + 18} text-anchor="middle">{tick} h</text
      >{/each}
    {#each falls as fall, i (fall.code)}
      <polyline
        points={fall.points.map((d) => `${x(d.hour)},${y(d.ph)}`).join(' ')}
        style:stroke={colours[i] ?? 'var(--color-primary)'}
      />
      {#each fall.points as d, k (k)}<circle
          cx={x(d.hour)}
          cy={y(d.ph)}
          r="3.4"
          style:fill={colours[i] ?? 'var(--color-primary)'}
        />{/each}
      {@const last = fall.points.at(-1)}
      {#if last}<text x={x(last.hour) + 8} y={y(last.ph) + 4} class="name">{fall.code}</text>{/if}
    {/each}
  </svg>
</div>

<style>
  text {
    font-size: 12px;
    fill: var(--color-base-content);
    opacity: 0.8;
  }
  .name {
    font-weight: 600;
    opacity: 1;
  }
  .grid {
    stroke: var(--color-base-300);
  }
  .mark {
    stroke: var(--color-error);
  }
  polyline {
    fill: none;
    stroke-width: 1.6;
  }
</style>
