<script lang="ts">
  // A piece at true relative size: outline when hung, filled as it is now, dashed at its target.
  // Long, since one drawing of a piece in its shapes.
  import type { Schema } from '../api/client';
  import { boxOf, figureOf, outline } from './shapes';

  interface Props {
    piece: Pick<
      Schema['PieceCard'],
      | 'id'
      | 'kind'
      | 'shape'
      | 'length_mm'
      | 'width_mm'
      | 'girth_now'
      | 'girth_target'
      | 'loss_percent'
      | 'aim_percent'
    >;
    pxPerMm: number;
    stringMm?: number;
  }
  let { piece, pxPerMm, stringMm = 24 }: Props = $props();

  const figure = $derived(figureOf(piece.kind, piece.shape));
  const box = $derived(boxOf(figure, piece.length_mm, piece.width_mm));
  const start = $derived(outline(figure, piece.length_mm, piece.width_mm, 1));
  const now = $derived(outline(figure, piece.length_mm, piece.width_mm, piece.girth_now));
  const target = $derived(outline(figure, piece.length_mm, piece.width_mm, piece.girth_target));
  const done = $derived(Math.min(100, Math.max(0, (100 * piece.loss_percent) / piece.aim_percent)));
  const pad = $derived(3 / pxPerMm);
  const half = $derived(box.width / 2 + pad);
  const height = $derived(box.height + stringMm + pad * 2);
  const stroke = $derived(1 / pxPerMm);
  const clip = $derived(`goods-${piece.id}`);
  // fat and grain sit where they sit: made from the piece's own number, not from chance
  const grains = $derived(
    Array.from({ length: 22 }, (_, i) => {
      const a = Math.sin((i + 1) * 12.9898 + piece.id * 78.233) * 43758.5453;
      const b = Math.sin((i + 1) * 39.425 + piece.id * 11.17) * 24634.6345;
      return {
        x: (a - Math.floor(a) - 0.5) * box.width,
        y: (b - Math.floor(b)) * box.height,
        r: 1.6 + ((i * 7) % 5) * 0.5,
      };
    }),
  );
  // one path each, not a hundred small elements: a full chamber has to be drawn at once
  const n = (value: number): string => value.toFixed(1);
  const dots = $derived(
    grains
      .map(
        ({ x, y, r }) =>
          `M${n(x - r)} ${n(y)}a${n(r)} ${n(r)} 0 1 0 ${n(2 * r)} 0a${n(r)} ${n(r)} 0 1 0 ${n(-2 * r)} 0`,
      )
      .join(''),
  );
  const streaks = $derived(
    grains
      .slice(0, 9)
      .map(({ x, y }) => `M${n(x)} ${n(y)}q6 5 3 16`)
      .join(''),
  );
  const strata = $derived(
    [0.16, 0.4, 0.63, 0.86]
      .map(
        (at, i) =>
          `M${n(-box.width)} ${n(box.height * at)}q${n(box.width * 0.5)} ${n(box.height * (i % 2 ? -0.07 : 0.07))} ${n(box.width)} 0t${n(box.width)} 0`,
      )
      .join(''),
  );
  const net = $derived(
    Array.from(
      { length: Math.ceil(box.height / 34) },
      (_, i) =>
        `M${n(-box.width)} ${14 + i * 34}q${n(box.width)} ${figure === 'neck' ? 14 : 7} ${n(box.width * 2)} 0`,
    ).join('') + `M${n(-box.width * 0.14)} 0V${n(box.height)}M${n(box.width * 0.14)} 0V${n(box.height)}`,
  );
</script>

<svg
  width={half * 2 * pxPerMm}
  height={height * pxPerMm}
  viewBox={`${-half} ${-stringMm} ${half * 2} ${height}`}
  aria-hidden="true"
  class="overflow-visible"
>
  <path
    d={`M0 ${-stringMm}V${figure === 'belly' ? -box.width * 0.12 : 1}`}
    stroke="var(--string)"
    stroke-width={stroke * 1.3}
  />
  {#if figure === 'belly'}
    <path
      d={`M${-box.width * 0.34} 3L0 ${-box.width * 0.12}L${box.width * 0.34} 3`}
      fill="none"
      stroke="var(--string)"
      stroke-width={stroke * 1.3}
    />
  {/if}
  <path d={start} fill="none" stroke="var(--string)" stroke-width={stroke} opacity="0.75" />
  <clipPath id={clip}><path d={now} /></clipPath>
  <path
    class="now"
    d={now}
    fill={`color-mix(in oklab, var(--meat-fresh), var(--meat-dry) ${done.toFixed(0)}%)`}
    stroke="var(--meat-line)"
    stroke-width={stroke * 1.1}
  />
  <g clip-path={`url(#${clip})`}>
    {#if figure === 'salame' || figure === 'links'}
      <path d={dots} fill="var(--fat)" opacity="0.5" />
    {:else if figure === 'belly'}
      <path d={strata} fill="none" stroke="var(--fat)" stroke-width={box.height * 0.045} opacity="0.7" />
    {:else if figure === 'breast'}
      <path
        d={outline(figure, piece.length_mm, piece.width_mm, piece.girth_now * 0.98)}
        fill="none"
        stroke="var(--fat)"
        stroke-width={box.width * 0.16}
        opacity="0.75"
      />
      <path d={dots} fill="var(--meat-line)" opacity="0.55" />
    {:else if figure === 'leg'}
      <path
        d={`M${-box.width * 0.5} ${box.height * 0.62}q${box.width * 0.4} ${-box.height * 0.2} ${box.width * 0.9} ${box.height * 0.1}`}
        fill="none"
        stroke="var(--fat)"
        stroke-width={box.width * 0.1}
        opacity="0.55"
      />
    {:else}
      <path d={streaks} fill="none" stroke="var(--fat)" stroke-width="2.2" opacity="0.38" />
    {/if}
    {#if figure === 'salame' || figure === 'neck' || figure === 'round'}
      <path d={net} fill="none" stroke="var(--string)" stroke-width={stroke * 1.1} opacity="0.8" />
    {/if}
  </g>
  <path
    d={target}
    fill="none"
    stroke="var(--fat)"
    stroke-width={stroke * 1.2}
    stroke-dasharray={`${stroke * 3} ${stroke * 2.5}`}
  />
</svg>

<style>
  .now {
    transition: d 400ms ease;
  }
</style>
