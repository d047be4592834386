<script lang="ts">
  // Rim and middle of a resting piece coming together, each with its window, from the sealing on.
  import { scaleLinear, scaleUtc } from 'd3-scale';

  import type { Schema } from '../api/client';
  import { shortDay } from '../units/format';
  import { tidyNumber } from '../units/number';
  import { words } from '../words';
  import { paths, toldOf, type Told } from './window';

  let { curve, now, label }: { curve: Schema['RestCurve']; now: number; label: string } = $props();
  let width = $state(380);
  const height = 170;
  const [left, right, top, bottom] = [34, 8, 10, 140];

  type Part = 'rim' | 'core';
  const points = $derived<Record<Part, Told[]>>({
    rim: toldOf(curve.at, curve.rim_low, curve.rim, curve.rim_high),
    core: toldOf(curve.at, curve.core_low, curve.core, curve.core_high),
  });
  const x = $derived(
    scaleUtc(
      [points.rim[0]?.t ?? new Date(now), points.rim.at(-1)?.t ?? new Date(now)],
      [left, width - right],
    ),
  );
  const y = $derived(
    scaleLinear([Math.max(...curve.core_high) + 1, Math.min(...curve.rim_low) - 1], [top, bottom]),
  );
  const { band, mid } = paths(
    (t) => x(t),
    (value) => y(value),
  );
  /** Days as far apart as they need to be read, and none that would reach beyond the edge. */
  const ticks = $derived.by(() => {
    const days = x.ticks(Math.max(2, Math.min(5, Math.floor(width / 90))));
    const apart = Math.ceil((days.length * 48) / Math.max(1, width - left - right));
    return days.filter((day, i) => i % apart === 0 && x(day) <= width - 22);
  });
  const last = (part: Part): Told | undefined => points[part].at(-1);
</script>

<div bind:clientWidth={width}>
  <svg class="chart" {width} {height} viewBox="0 0 {width} {height}" role="img" aria-label={label}>
    {#each y.ticks(4) as tick (tick)}
      <text x={left - 6} y={y(tick) + 4} text-anchor="end" class="tick">{tidyNumber(tick, 2)} %</text>
      <line x1={left} x2={width - right} y1={y(tick)} y2={y(tick)} class="rule" />
    {/each}
    {#each ticks as tick (tick.getTime())}
      <text x={x(tick)} y={bottom + 20} text-anchor="middle" class="tick">{shortDay(tick)}</text>
    {/each}
    {#each ['core', 'rim'] as const as part (part)}
      <path d={band(points[part])} fill="var(--band)" opacity="0.7" />
    {/each}
    {#each ['core', 'rim'] as const as part (part)}
      <path d={mid(points[part])} class={part} />
      <text
        x={width - right - 2}
        y={y(last(part)?.mid ?? 0) + (part === 'core' ? -6 : 14)}
        text-anchor="end"
        class="name {part}">{words.rest[part]}</text
      >
    {/each}
    <line x1={x(now)} x2={x(now)} y1={top} y2={bottom} class="now" />
    <text x={x(now) + 4} y={top + 10} class="tick">{words.rest.now}</text>
  </svg>
</div>

<style>
  path.rim,
  path.core {
    fill: none;
    stroke-width: 2;
  }
  path.rim {
    stroke: var(--meat-line);
  }
  path.core {
    stroke: var(--color-secondary);
    stroke-dasharray: 5 3;
  }
  .name {
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 3px;
  }
</style>
