<script lang="ts">
  // How the date of a piece came to be: what was told at hanging and after each weighing, above what is told now.
  import { scaleUtc } from 'd3-scale';

  import type { Schema } from '../../api/client';
  import { dayRange, longDay, shortDay } from '../../units/format';
  import { words } from '../../words';
  import { type Row, rowsOf, spanOf } from './told';

  let { piece, now }: { piece: Schema['PieceOut']; now: number } = $props();
  const say = words.told;

  let width = $state(320);
  const step = 24;
  const left = 74;
  const rows = $derived(rowsOf(piece, now));
  const span = $derived(spanOf(rows));
  const height = $derived(rows.length * step + 22);
  const x = $derived(scaleUtc(span ?? [0, 1], [left, width - 12]));
  const at = (t: string): number => x(new Date(t));
  const last = $derived(rows[rows.length - 1]?.ready.p50);
  const label = (row: Row): string => (row.now ? words.now : shortDay(row.at));
  const inWords = (row: Row): string =>
    row.ready.p10 && row.ready.p50 && row.ready.p90
      ? say.row(label(row), longDay(row.ready.p50), dayRange(row.ready.p10, row.ready.p90))
      : say.noneThen(label(row));
</script>

{#if rows.length > 1 && span}
  <section class="mt-4" aria-label={say.title}>
    <h3 class="font-tag text-lg font-semibold">{say.title}</h3>
    <div bind:clientWidth={width} class="min-w-0">
      <svg {width} {height} role="img" aria-label={rows.map(inWords).join('; ')}>
        {#if last}
          <line x1={at(last)} x2={at(last)} y1="0" y2={height - 18} class="now-line" />
        {/if}
        {#each rows as row, i (row.at)}
          {@const y = i * step + 12}
          <text x="0" y={y + 4} class:current={row.now}>{label(row)}</text>
          {#if row.ready.p10 && row.ready.p50 && row.ready.p90}
            {@const a = at(row.ready.p10)}
            {@const b = Math.min(at(row.ready.p90), width - 2)}
            <rect x={a} y={y - 5} width={Math.max(2, b - a)} height="10" rx="2" class:current={row.now} />
            <circle cx={at(row.ready.p50)} cy={y} r="4" class:current={row.now} />
          {:else}
            <text x={left} y={y + 4}>{say.outOfReach}</text>
          {/if}
        {/each}
        {#each x.ticks(Math.max(2, Math.floor((width - left) / 75))) as tick (tick.getTime())}
          <text x={x(tick)} y={height - 3} text-anchor="middle">{shortDay(tick)}</text>
        {/each}
      </svg>
    </div>
  </section>
{/if}

<style>
  text {
    font-size: 12.5px;
    fill: var(--quiet);
  }
  text.current {
    fill: var(--color-base-content);
    font-weight: 600;
  }
  rect {
    fill: var(--band);
    opacity: 0.65;
  }
  rect.current {
    opacity: 1;
  }
  circle {
    fill: var(--string);
  }
  circle.current {
    fill: var(--color-primary);
  }
  .now-line {
    stroke: var(--color-primary);
    stroke-dasharray: 2 3;
  }
</style>
