<script lang="ts">
  // pH against time on its expected window; the hurdle and the target as strings; the box's temperature beneath.
  // Long, since one drawing over one time scale.
  import { scaleLinear, scaleUtc } from 'd3-scale';
  import { line } from 'd3-shape';

  import type { Schema } from '../api/client';
  import { timeOfDay } from '../units/format';
  import { numberText } from '../units/number';
  import { inUnits, unit } from '../units/quantity';
  import { words } from '../words';
  import { paths, toldOf } from './window';

  interface Props {
    detail: Schema['WarmDetail'];
    now: number;
    otherwise: Schema['WarmWhatIfOut'] | null;
  }
  let { detail, now, otherwise }: Props = $props();
  const say = words.warm;
  let width = $state(700);
  const height = 340;
  const left = 34;
  const bottom = 236;
  const boxTop = 272;
  const boxBottom = 328;
  const right = $derived(width - 74);

  const curve = $derived(detail.curve);
  const points = $derived(toldOf(curve.at, curve.low, curve.middle, curve.high));
  const x = $derived(
    scaleUtc([new Date(detail.card.stuffed_at), points.at(-1)?.t ?? new Date(now)], [left, right]),
  );
  const shown = $derived(detail.readings.filter((r) => r.ph >= 3.5 && r.ph <= 7.5));
  const top = $derived(Math.max(5.9, ...points.map((d) => d.high), ...shown.map((r) => r.ph)) + 0.05);
  const least = $derived(
    Math.min(4.9, detail.card.target_ph - 0.15, ...points.map((d) => d.low), ...shown.map((r) => r.ph)),
  );
  const y = $derived(scaleLinear([least, top], [bottom, 8]));
  const { band, mid } = paths(
    (t) => x(t),
    (value) => y(value),
  );
  const other = $derived(
    (otherwise?.curve_at ?? [])
      .map((t, i) => ({ t: new Date(t), mid: otherwise?.curve[i] ?? 0 }))
      .filter((d) => d.t.getTime() >= now && x(d.t) <= right),
  );
  const otherLine = line<{ t: Date; mid: number }>(
    (d) => x(d.t),
    (d) => y(d.mid),
  );
  const box = $derived(curve.box_at.map((t, i) => ({ t: new Date(t), c: curve.box_c[i] ?? 0 })));
  const lowC = $derived(Math.min(...box.map((d) => d.c), detail.card.setpoint_c ?? 20) - 1);
  const highC = $derived(Math.max(...box.map((d) => d.c), detail.card.setpoint_c ?? 20) + 1);
  const yc = $derived(scaleLinear([lowC, highC], [boxBottom, boxTop]));
  const boxLine = line<{ t: Date; c: number }>(
    (d) => x(d.t),
    (d) => yc(d.c),
  );
  const ticks = $derived(x.ticks(Math.max(2, Math.floor(width / 130))));
  const lastBox = $derived(box.at(-1));
  const measureAt = $derived(detail.card.measure_next ? new Date(detail.card.measure_next) : null);
</script>

<div bind:clientWidth={width}>
  <svg class="chart" {width} {height} viewBox="0 0 {width} {height}" role="img" aria-label={say.ph}>
    {#each y.ticks(6) as tick (tick)}
      <text x={left - 6} y={y(tick) + 4} text-anchor="end" class="tick">{numberText(tick, 1)}</text>
      <line x1={left} x2={right} y1={y(tick)} y2={y(tick)} class="rule" />
    {/each}
    {#each ticks as tick (tick.getTime())}
      <text x={x(tick)} y={bottom + 18} text-anchor="middle" class="tick">{timeOfDay(tick)}</text>
    {/each}
    <path d={band(points)} fill="var(--band)" opacity="0.75" />
    <line x1={left} x2={right} y1={y(5.3)} y2={y(5.3)} class="hurdle" />
    <text x={right + 6} y={y(5.3) + 4} class="name">{say.hurdle}</text>
    {#if Math.abs(detail.card.target_ph - 5.3) > 0.01}
      <line x1={left} x2={right} y1={y(detail.card.target_ph)} y2={y(detail.card.target_ph)} class="target" />
      <text x={right + 6} y={y(detail.card.target_ph) + 4} class="name"
        >{numberText(detail.card.target_ph, 1)}</text
      >
    {/if}
    <path d={mid(points)} class="middle" />
    {#if other.length}<path d={otherLine(other)} class="other" />{/if}
    {#if !detail.card.ended_at}
      <line x1={x(new Date(now))} x2={x(new Date(now))} y1="8" y2={boxBottom} class="now" />
      <text x={x(new Date(now)) + 4} y="16" class="tick">{say.now}</text>
    {/if}
    {#if measureAt && x(measureAt) <= right}
      <path d={`M${x(measureAt)} ${bottom}l-5 8h10z`} fill="var(--color-primary)" />
    {/if}
    {#each shown as reading (reading.id)}
      {@const cx = x(new Date(reading.at))}
      {@const cy = y(reading.ph)}
      {#if reading.struck_reason !== null}
        <path d={`M${cx - 4} ${cy - 4}l8 8m0-8l-8 8`} class="cross" />
      {:else if reading.warnings.length}
        <circle
          {cx}
          {cy}
          r="5"
          fill="var(--color-base-100)"
          stroke="var(--color-warning)"
          stroke-width="2.5"
        />
      {:else}
        <circle {cx} {cy} r="4.5" fill="var(--color-base-content)" />
      {/if}
    {/each}
    {#if box.length}
      <path d={boxLine(box)} class="box" />
      <text x={left - 6} y={yc(highC) + 10} text-anchor="end" class="tick"
        >{numberText(inUnits('temperature', highC), 0)}</text
      >
      <text x={left - 6} y={yc(lowC)} text-anchor="end" class="tick"
        >{numberText(inUnits('temperature', lowC), 0)}</text
      >
      {#if lastBox}<text x={right + 6} y={yc(lastBox.c) + 4} class="name">{say.box} {unit.temperature}</text
        >{/if}
    {/if}
  </svg>
</div>

<style>
  .hurdle {
    stroke: var(--color-error);
    stroke-width: 1.6;
  }
  .target {
    stroke: var(--string);
    stroke-width: 1.6;
    stroke-dasharray: 6 4;
  }
  .middle,
  .box,
  .other {
    fill: none;
    stroke: var(--color-primary);
    stroke-width: 2;
  }
  .other {
    stroke: var(--color-warning);
    stroke-dasharray: 5 4;
  }
  .box {
    stroke: var(--color-secondary);
    stroke-width: 1.4;
  }
  .cross {
    stroke: var(--quiet);
    stroke-width: 1.6;
  }
</style>
