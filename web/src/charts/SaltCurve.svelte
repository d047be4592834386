<script lang="ts">
  // Salt against time: the mean and the core with its band, the window and now.
  import { scaleLinear, scaleUtc } from 'd3-scale';
  import { area, curveMonotoneX, line } from 'd3-shape';

  import type { Schema } from '../api/client';
  import { shortDay } from '../units/format';
  import { tidyNumber } from '../units/number';
  import { words } from '../words';

  let { curve, card, now }: { curve: Schema['CurveOut']; card: Schema['SaltCard']; now: number } = $props();
  const say = words.salt;
  let width = $state(380);
  const height = 170;
  const left = 30;
  const bottom = height - 22;
  const points = $derived(
    curve.at.map((t, i) => ({
      t: new Date(t),
      mean: curve.mean[i] ?? 0,
      core: curve.core[i] ?? 0,
      low: curve.core_low[i] ?? 0,
      high: curve.core_high[i] ?? 0,
    })),
  );
  type Point = (typeof points)[number];
  const end = $derived(points.at(-1)?.t ?? new Date(now));
  const x = $derived(scaleUtc([new Date(card.in_at), end], [left, width - 46]));
  const most = $derived(Math.max(card.percent * 1.2, ...points.map((d) => d.mean)));
  const y = $derived(scaleLinear([0, most], [bottom, 8]));
  const mean = line<Point>(
    (d) => x(d.t),
    (d) => y(d.mean),
  ).curve(curveMonotoneX);
  const core = line<Point>(
    (d) => x(d.t),
    (d) => y(d.core),
  ).curve(curveMonotoneX);
  const band = area<Point>(
    (d) => x(d.t),
    (d) => y(d.low),
    (d) => y(Math.min(d.high, most)),
  ).curve(curveMonotoneX);
  const last = $derived(points.at(-1));
  const ticks = $derived(x.ticks(Math.max(2, Math.floor(width / 100))));
</script>

<div bind:clientWidth={width}>
  <svg
    class="chart"
    {width}
    {height}
    viewBox="0 0 {width} {height}"
    role="img"
    aria-label={`${say.mean}, ${say.core}`}
  >
    {#each y.ticks(4) as tick (tick)}
      <text x={left - 6} y={y(tick) + 4} text-anchor="end" class="tick">{tidyNumber(tick, 2)}</text>
      <line x1={left} x2={width - 46} y1={y(tick)} y2={y(tick)} class="rule" />
    {/each}
    {#each ticks as tick (tick.getTime())}
      <text x={x(tick)} y={height - 6} text-anchor="middle" class="tick">{shortDay(tick)}</text>
    {/each}
    <path d={band(points)} fill="var(--band)" opacity="0.8" />
    <line x1={left} x2={width - 46} y1={y(card.percent)} y2={y(card.percent)} class="aim" />
    <path d={mean(points)} class="mean" />
    <path d={core(points)} class="core" />
    <line x1={x(new Date(now))} x2={x(new Date(now))} y1="8" y2={bottom} class="now" />
    {#if card.best && new Date(card.best) <= end}
      <line x1={x(new Date(card.best))} x2={x(new Date(card.best))} y1="8" y2={bottom} class="best" />
    {/if}
    {#if last}
      <text x={width - 42} y={y(last.mean) + (last.mean - last.core < most * 0.12 ? -5 : 4)} class="name"
        >{say.mean}</text
      >
      <text x={width - 42} y={y(last.core) + (last.mean - last.core < most * 0.12 ? 12 : 4)} class="name"
        >{say.core}</text
      >
    {/if}
  </svg>
</div>

<style>
  .aim {
    stroke: var(--string);
    stroke-width: 1.5;
    stroke-dasharray: 6 4;
  }
  .mean,
  .core {
    fill: none;
    stroke: var(--meat-line);
    stroke-width: 2;
  }
  .mean {
    stroke: var(--string);
  }
  .best {
    stroke: var(--color-primary);
    stroke-width: 2;
  }
</style>
