<script lang="ts">
  // A batch on one time line: its stages, the pieces thinning as they dry, what was told of one, the air of its places.
  // Long, since the drawing of one line and its style; its marks share one scale.
  import { scaleLinear } from 'd3-scale';
  import { curveMonotoneX, line } from 'd3-shape';

  import type { Schema } from '../../api/client';
  import { shortDay } from '../../units/format';
  import { tidyNumber } from '../../units/number';
  import { inUnits, temperatureText, unit } from '../../units/quantity';
  import { words } from '../../words';
  import { lossOf, lossScale, mostTold, thickness, timeScale, strips } from './storyline';

  let { story }: { story: Schema['StoryOut'] } = $props();
  const say = words.book.story;
  let width = $state(900);
  let picked = $state<string | null>(null);
  const [left, right, top] = [44, 56, 42];
  const deep = 190;
  const x = $derived(timeScale(story, left, width - right));
  const y = $derived(lossScale(story.pieces, top, top + deep));
  const told = $derived(story.pieces.find((one) => one.tag === picked) ?? mostTold(story));
  const bars = $derived((told?.told ?? []).filter((one) => one.ready.p10 && one.ready.p50 && one.ready.p90));
  const toldTop = top + deep + 16;
  const airTop = $derived(toldTop + (bars.length ? Math.min(bars.length, 8) * 7 + 26 : 8));
  const airs = $derived(story.airs.filter((one) => one.at.length > 1));
  const height = $derived(airTop + (airs.length ? 108 : 0) + 26);
  const target = $derived(story.pieces.find((one) => one.target_loss_percent !== null)?.target_loss_percent);
  const warmth = $derived(bounds(airs.flatMap((one) => one.temperature_c)));
  const damp = $derived(bounds(airs.flatMap((one) => one.rh_percent).filter((v) => v !== null)));
  const yc = $derived(scaleLinear(warmth, [airTop + 44, airTop + 4]));
  const yh = $derived(scaleLinear(damp, [airTop + 100, airTop + 56]));
  function bounds(values: number[]): [number, number] {
    return values.length ? [Math.min(...values) - 0.5, Math.max(...values) + 0.5] : [0, 1];
  }
  const span = ([low = 0, high = 0]: number[]): string => `${Math.round(low)}–${Math.round(high)}`;
  const path = (at: string[], values: (number | null)[], scale: (v: number) => number): string =>
    line<number | null>(
      (_, i) => x(new Date(at[i] ?? 0)),
      (v) => scale(v ?? 0),
    )
      .defined((v) => v !== null)
      .curve(curveMonotoneX)(values) ?? '';
  const ms = (at: string): Date => new Date(at);
  const end = (stage: Schema['StoryStage']): number =>
    x(stage.to_at === null ? ms(story.ends) : ms(stage.to_at));
</script>

<div bind:clientWidth={width}>
  <svg {width} {height} viewBox="0 0 {width} {height}" role="img" aria-label={say.line}>
    {#each x.ticks(Math.max(3, Math.floor(width / 130))) as tick (tick.getTime())}
      <line x1={x(tick)} x2={x(tick)} y1={top - 6} y2={height - 20} class="grid" />
      <text x={x(tick)} y={height - 5} text-anchor="middle" class="axis">{shortDay(tick)}</text>
    {/each}
    {#each strips(story.stages) as stage, i (i)}
      {@const from = x(ms(stage.from_at))}
      {@const wide = Math.max(2, end(stage) - from)}
      <rect x={from} y="14" width={wide} height="14" class="stage {stage.kind}">
        <title
          >{say.stages[stage.kind]}, {stage.place ?? ''}{stage.mean_c === null
            ? ''
            : `, ${temperatureText(stage.mean_c)}`}</title
        >
      </rect>
    {/each}
    {#each strips(story.stages) as stage, i (i)}
      {@const from = x(ms(stage.from_at))}
      {#if end(stage) - from > 90 && story.stages.findIndex((s) => s.kind === stage.kind && s.place === stage.place) === story.stages.indexOf(stage)}
        <text x={from + 6} y="25" class="in">{say.stages[stage.kind]} · {stage.place ?? ''}</text>
      {/if}
    {/each}
    {#each y.ticks(4) as tick (tick)}
      <text x={left - 6} y={y(tick) + 4} text-anchor="end" class="axis">{tidyNumber(tick, 2)} %</text>
      <line x1={left} x2={width - right} y1={y(tick)} y2={y(tick)} class="grid" />
    {/each}
    {#if target !== null && target !== undefined}
      <line x1={left} x2={width - right} y1={y(target)} y2={y(target)} class="target" />
      <text x={left + 4} y={y(target) - 4} class="aim">{tidyNumber(target, 1)} %</text>
    {/if}
    {#each story.pieces as piece (piece.tag)}
      {@const points = lossOf(piece)}
      {#each points.slice(1) as point, i (i)}
        {@const before = points[i] ?? point}
        <line
          x1={x(before.t)}
          y1={y(before.loss)}
          x2={x(point.t)}
          y2={y(point.loss)}
          class="piece"
          class:quiet-piece={told !== undefined && told.tag !== piece.tag && picked !== null}
          stroke-width={thickness(point.loss)}
          style:stroke={`color-mix(in oklab, var(--meat-fresh), var(--meat-dry) ${Math.min(100, point.loss * 2.6)}%)`}
        />
      {/each}
    {/each}
    {#if told && bars.length}
      <text x={left} y={toldTop + 10} class="axis">{say.told}</text>
      {#each bars.slice(-8) as bar, i (i)}
        {@const low = x(ms(bar.ready.p10 ?? bar.at))}
        {@const high = x(ms(bar.ready.p90 ?? bar.at))}
        <rect
          x={Math.min(low, width - right)}
          y={toldTop + 16 + i * 7}
          width={Math.max(2, Math.min(high, width - 2) - low)}
          height="5"
          class="window"
        />
        <circle
          cx={Math.min(x(ms(bar.ready.p50 ?? bar.at)), width - 4)}
          cy={toldTop + 18.5 + i * 7}
          r="2.6"
          class="mid"
        />
      {/each}
      {#if told.reached_at}
        <line
          x1={x(ms(told.reached_at))}
          x2={x(ms(told.reached_at))}
          y1={y(told.target_loss_percent ?? 0)}
          y2={airTop - 6}
          class="reached"
        />
      {/if}
    {/if}
    {#each airs as air (air.place)}
      <path d={path(air.at, air.temperature_c, yc)} class="warmth" />
      <path d={path(air.at, air.rh_percent, yh)} class="damp" />
    {/each}
    {#if airs.length}
      <text x={width - right + 6} y={airTop + 28} class="warmth-name"
        >{span(warmth.map((c) => inUnits('temperature', c)))} {unit.temperature}</text
      >
      <text x={width - right + 6} y={airTop + 82} class="damp-name">{span(damp)} %</text>
    {/if}
  </svg>
</div>
{#if story.pieces.length > 1}
  <div class="mt-1 flex flex-wrap gap-x-1 print:hidden" role="group" aria-label={say.told}>
    {#each story.pieces as piece (piece.tag)}
      <button
        class="min-h-11 px-2 text-sm"
        class:font-semibold={told?.tag === piece.tag}
        aria-pressed={told?.tag === piece.tag}
        onclick={() => (picked = piece.tag)}>{piece.tag}</button
      >
    {/each}
  </div>
{/if}
{#if told}<p class="text-sm">
    <strong>{say.toldOf(told.tag)}:</strong>
    {#each told.told.filter((one) => one.ready.p50) as one, i (i)}{i ? '; ' : ' '}<span class="quiet"
        >{shortDay(one.at)}:</span
      >
      {shortDay(one.ready.p50 ?? one.at)}
      <span class="quiet">({shortDay(one.ready.p10 ?? one.at)}–{shortDay(one.ready.p90 ?? one.at)})</span
      >{:else}
      {say.noTold}
    {/each}
    {#if told.reached_at}<strong>{say.reachedOn(shortDay(told.reached_at))}</strong>{/if}
  </p>{/if}

<style>
  .grid {
    stroke: var(--color-base-300);
  }
  .axis {
    font-size: 12px;
    fill: var(--color-base-content);
    opacity: 0.75;
  }
  .stage {
    fill: var(--steel-light);
    stroke: var(--color-base-100);
  }
  .stage.cold,
  .stage.cure {
    fill: color-mix(in oklab, var(--steel), white 35%);
  }
  .stage.warm {
    fill: var(--color-warning);
  }
  .stage.hang {
    fill: var(--meat-dry);
  }
  .stage.rest {
    fill: color-mix(in oklab, var(--meat-dry), var(--steel) 65%);
  }
  .in {
    font-size: 11px;
    font-weight: 600;
    fill: #fbf8f0;
  }
  .piece {
    stroke-linecap: round;
    opacity: 0.9;
  }
  .quiet-piece {
    opacity: 0.25;
  }
  .target {
    stroke: var(--meat-line);
    stroke-width: 1.5;
  }
  .aim {
    font-size: 12px;
    font-weight: 600;
    fill: var(--color-base-content);
  }
  .window {
    fill: var(--band);
  }
  .mid {
    fill: var(--color-primary);
  }
  .reached {
    stroke: var(--meat-line);
    stroke-dasharray: 3 3;
  }
  .warmth {
    fill: none;
    stroke: var(--meat-line);
    stroke-width: 1.3;
  }
  .damp {
    fill: none;
    stroke: var(--steel);
    stroke-width: 1.3;
  }
  .warmth-name,
  .damp-name {
    font-size: 12px;
    fill: var(--color-base-content);
  }
</style>
