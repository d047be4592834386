<script lang="ts">
  // Loss against time: the curve with its window, the target as a string across, weighings as ink dots,
  // struck ones as crosses; the climate of the same days underneath.
  // Long, since one drawing over one pair of scales: curve, window, weights, air and what is pointed at.
  import { scaleLinear, scaleUtc } from 'd3-scale';
  import { line } from 'd3-shape';

  import type { Schema } from '../api/client';
  import { percent, shortDay } from '../units/format';
  import { numberText, tidyNumber } from '../units/number';
  import { inUnits, temperatureText, weightText } from '../units/quantity';
  import { words } from '../words';
  import { paths, toldOf, type Told } from './window';

  interface Props {
    piece: Schema['PieceOut'];
    now: number;
  }
  let { piece, now }: Props = $props();

  let width = $state(380);
  const height = 240;
  const left = 30;
  const right = 8;
  const top = 10;
  const plotBottom = 152;
  const climateTop = 187;

  const card = $derived(piece.card);
  const points = $derived(toldOf(piece.curve.at, piece.curve.low, piece.curve.middle, piece.curve.high));
  const end = $derived(points.at(-1)?.t ?? new Date(now));
  const x = $derived(scaleUtc([new Date(card.hung_at), end], [left, width - right]));
  const most = $derived(
    Math.max(
      card.aim_percent * (card.target_loss_percent === null ? 1.3 : 1.14),
      card.loss_percent * 1.08,
      ...piece.weighings.filter((w) => !w.struck_at && !w.doubt).map((w) => w.loss_percent ?? 0),
    ),
  );
  const y = $derived(scaleLinear([0, most], [top, plotBottom]));
  const { band, mid } = paths(
    (t) => x(t),
    (value) => y(value),
  );
  const past = $derived(points.filter((d) => d.t.getTime() <= now));
  const ticks = $derived(x.ticks(Math.max(2, Math.min(5, Math.floor(width / 90)))));
  const targetY = $derived(card.target_loss_percent === null ? null : y(card.target_loss_percent));

  // climate, two thin lines in their own narrow strip
  const air = $derived(
    piece.climate.at_s.map((s, i) => ({
      t: new Date(s * 1000),
      c: piece.climate.temperature_c[i] ?? 0,
      rh: piece.climate.rh_percent[i] ?? null,
    })),
  );
  function span(values: number[], least: number): [number, number] {
    const low = Math.min(...values);
    const high = Math.max(...values);
    const pad = Math.max(0, (least - (high - low)) / 2);
    return [low - pad, high + pad];
  }
  const yc = $derived(
    scaleLinear(
      air.length
        ? span(
            air.map((a) => a.c),
            6,
          )
        : [0, 1],
      [climateTop + 16, climateTop],
    ),
  );
  const yrh = $derived(
    scaleLinear(
      air.some((a) => a.rh !== null)
        ? span(
            air.map((a) => a.rh).filter((rh) => rh !== null),
            16,
          )
        : [0, 1],
      [height - 3, height - 19],
    ),
  );
  type AirPoint = { t: Date; c: number; rh: number | null };
  const lineC = line<AirPoint>(
    (d) => x(d.t),
    (d) => yc(d.c),
  );
  const lineRh = line<AirPoint>(
    (d) => x(d.t),
    (d) => yrh(d.rh ?? 0),
  ).defined((d) => d.rh !== null);
  const last = $derived(air[air.length - 1]);

  let hover = $state<Told | null>(null);
  function move(event: PointerEvent): void {
    const box = (event.currentTarget as SVGElement).getBoundingClientRect();
    const t = x.invert(event.clientX - box.left).getTime();
    hover = points.reduce<Told | null>(
      (best, d) => (best && Math.abs(best.t.getTime() - t) <= Math.abs(d.t.getTime() - t) ? best : d),
      null,
    );
  }
</script>

<div bind:clientWidth={width}>
  <svg
    class="chart"
    {width}
    {height}
    viewBox="0 0 {width} {height}"
    role="img"
    aria-label={`${card.tag}: ${percent(card.loss_percent)}${card.target_loss_percent === null ? '' : ` ${words.piece.of} ${percent(card.target_loss_percent, 0)}`}`}
    onpointermove={move}
    onpointerleave={() => (hover = null)}
  >
    {#each y.ticks(4) as tick (tick)}
      <text x={left - 6} y={y(tick) + 4} text-anchor="end" class="tick"
        >{tidyNumber(tick, 2)}{tick === 0 ? ' %' : ''}</text
      >
      <line x1={left} x2={width - right} y1={y(tick)} y2={y(tick)} class="rule" />
    {/each}
    {#each ticks as tick (tick.getTime())}
      <text
        x={Math.min(x(tick), width - 4)}
        y={plotBottom + 18}
        text-anchor={x(tick) > width - 24 ? 'end' : 'middle'}
        class="tick">{shortDay(tick)}</text
      >
    {/each}
    <clipPath id="plot"
      ><rect
        x={left}
        y={top - 4}
        width={Math.max(0, width - left - right)}
        height={plotBottom - top + 6}
      /></clipPath
    >
    <g clip-path="url(#plot)">
      <path d={band(points)} fill="var(--band)" opacity="0.75" class="moves" />
      <path d={mid(points)} class="expected moves" />
      <path d={mid(past)} class="been moves" />
    </g>
    {#if targetY !== null && card.target_loss_percent !== null}<path
        d={`M${left} ${targetY}q${(width - left) / 2} 3 ${width - left - right} 0`}
        fill="none"
        stroke="var(--color-secondary)"
        stroke-width="1.4"
      />
      <text x={left + 4} y={targetY + 14} class="target"
        >{words.piece.target}
        {percent(card.target_loss_percent, 0)}{card.target_weight_g === null
          ? ''
          : ` · ${weightText(card.target_weight_g)}`}</text
      >{/if}
    <line x1={x(now)} x2={x(now)} y1={top} y2={height} class="now" />
    {#each piece.weighings.filter((one) => one.loss_percent !== null) as w (w.id)}
      {@const px = x(new Date(w.at))}
      {@const py = Math.min(Math.max(y(w.loss_percent ?? 0), top), plotBottom - 2)}
      {#if w.struck_at || w.doubt}
        <path
          d={`M${px - 4} ${py - 4}l8 8m0-8l-8 8`}
          stroke={w.doubt ? 'var(--color-warning)' : 'var(--quiet)'}
          stroke-width="2"
        />
      {:else}
        <circle cx={px} cy={py} r="3.2" fill="var(--color-base-content)" />
      {/if}
    {/each}
    {#if last}
      <path d={lineC(air) ?? ''} class="temperature" />
      <path d={lineRh(air) ?? ''} class="humidity" />
      <text x={left} y={climateTop - 3} class="air-label"
        >{temperatureText(last.c)}{#if piece.setpoint?.temperature_c != null}, {words.piece.set}
          {numberText(inUnits('temperature', piece.setpoint.temperature_c), 1)}{/if}</text
      >
      <text x={left} y={height - 22} class="air-label blue"
        >{last.rh === null
          ? words.piece.noHumidity
          : `${numberText(last.rh, 0)} %`}{#if piece.setpoint?.rh_percent != null}, {words.piece.set}
          {tidyNumber(piece.setpoint.rh_percent, 1)}{/if}</text
      >
    {:else}
      <text x={left} y={climateTop + 22} class="tick">{words.hang.noClimate.split('.')[0]}.</text>
    {/if}
    {#if hover}
      <line x1={x(hover.t)} x2={x(hover.t)} y1={top} y2={plotBottom} stroke="var(--quiet)" />
      <text x={Math.min(x(hover.t) + 6, width - 130)} y={top + 12} class="readout">
        {shortDay(hover.t)}, {words.piece.day}
        {Math.round((hover.t.getTime() - new Date(card.hung_at).getTime()) / 86_400_000)}: {percent(
          hover.mid,
        )}
      </text>
    {/if}
  </svg>
</div>

<style>
  .expected {
    fill: none;
    stroke: var(--color-primary);
    stroke-width: 1.4;
    stroke-dasharray: 4 3;
  }
  .been {
    fill: none;
    stroke: var(--color-primary);
    stroke-width: 2;
  }
  .moves {
    transition: d 400ms ease;
  }
  .target {
    font-size: 12px;
    fill: var(--color-secondary);
    font-weight: 600;
  }
  .temperature {
    fill: none;
    stroke: var(--color-secondary);
    stroke-width: 1;
  }
  .humidity {
    fill: none;
    stroke: var(--color-info);
    stroke-width: 1;
  }
  .air-label {
    font-size: 12px;
    fill: var(--color-secondary);
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 3px;
  }
  .air-label.blue {
    fill: var(--color-info);
  }
  .readout {
    font-size: 12.5px;
    font-weight: 600;
    fill: var(--color-base-content);
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 3px;
  }
</style>
