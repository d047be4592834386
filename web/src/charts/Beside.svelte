<script lang="ts">
  // Lines of several batches on one axis, each batch in a colour and a dash of its own, named at its end.
  import { scaleLinear } from 'd3-scale';

  import { tidyNumber } from '../units/number';

  interface Curve {
    name: string;
    batch: number;
    x: number[];
    y: number[];
  }
  interface Props {
    curves: Curve[];
    unit: string;
    xUnit: string;
    label: string;
    down?: boolean;
    height?: number;
    /** A value that is drawn through. */
    mark?: number;
  }
  let { curves, unit, xUnit, label, down = false, height = 230, mark }: Props = $props();
  let width = $state(600);
  const [left, right, top] = [46, 62, 10];
  const bottom = $derived(height - 26);
  const xs = $derived(curves.flatMap((c) => c.x));
  const ys = $derived([...curves.flatMap((c) => c.y), ...(mark === undefined ? [] : [mark])]);
  const x = $derived(scaleLinear([Math.min(0, ...xs), Math.max(1, ...xs)], [left, width - right]));
  const room = $derived((Math.max(...ys) - Math.min(...ys)) * 0.06 || 1);
  const y = $derived(
    scaleLinear(
      [Math.min(...ys) - (down ? 0 : room), Math.max(...ys) + room],
      down ? [top, bottom] : [bottom, top],
    ),
  );
  const path = (c: Curve): string => c.x.map((v, i) => `${x(v)},${y(c.y[i] ?? 0)}`).join(' ');
  const named = $derived(curves.filter((c, i) => curves.findIndex((d) => d.batch === c.batch) === i));
</script>

<div bind:clientWidth={width}>
  {#if xs.length}
    <svg {width} {height} viewBox="0 0 {width} {height}" role="img" aria-label={label}>
      {#each y.ticks(4) as tick (tick)}
        <text x={left - 6} y={y(tick) + 4} text-anchor="end">{tidyNumber(tick, 2)} {unit}</text>
        <line x1={left} x2={width - right} y1={y(tick)} y2={y(tick)} class="grid" />
      {/each}
      {#each x.ticks(Math.max(3, Math.floor(width / 110))) as tick (tick)}
        <text x={x(tick)} y={bottom + 18} text-anchor="middle">{tidyNumber(tick, 2)} {xUnit}</text>
      {/each}
      {#if mark !== undefined}<line
          x1={left}
          x2={width - right}
          y1={y(mark)}
          y2={y(mark)}
          class="mark"
        />{/if}
      {#each curves as curve, i (i)}
        <polyline points={path(curve)} class="b{curve.batch}" />
      {/each}
      {#each named as curve (curve.batch)}
        <text x={x(curve.x.at(-1) ?? 0) + 6} y={y(curve.y.at(-1) ?? 0) + 4} class="name t{curve.batch}"
          >{curve.name}</text
        >
      {/each}
    </svg>
  {/if}
</div>

<style>
  text {
    font-size: 12px;
    fill: var(--color-base-content);
    opacity: 0.8;
  }
  .name {
    font-weight: 700;
    opacity: 1;
    paint-order: stroke;
    stroke: var(--color-base-100);
    stroke-width: 3px;
  }
  .grid {
    stroke: var(--color-base-300);
  }
  .mark {
    stroke: var(--color-error);
  }
  polyline {
    fill: none;
    stroke-width: 1.8;
  }
  .b0 {
    stroke: var(--color-primary);
  }
  .b1 {
    stroke: var(--color-secondary);
    stroke-dasharray: 7 3;
  }
  .b2 {
    stroke: var(--color-warning);
    stroke-dasharray: 2 3;
  }
  .b3 {
    stroke: var(--steel);
    stroke-dasharray: 10 3 2 3;
  }
  .b4 {
    stroke: var(--color-success);
    stroke-dasharray: 4 2;
  }
  .b5 {
    stroke: var(--color-base-content);
    stroke-dasharray: 1 4;
  }
</style>
