<script lang="ts">
  // The cut face, big: shaded as predicted, marked as it is seen. A tap says where.
  import type { Schema } from '../../api/client';
  import CrossSection from '../../goods/CrossSection.svelte';
  import { words } from '../../words';

  interface Props {
    inside: Schema['InsideOut'];
    slab: boolean;
    halfMm: number;
    ringMm: number | null;
    ringed: boolean;
    marks: Schema['Mark'][];
    /** What a tap places; null where nothing is to be placed. */
    ontouch?: (x: number, y: number, depth: number) => void;
  }
  let { inside, slab, halfMm, ringMm, ringed, marks, ontouch }: Props = $props();
  const say = words.cut;
  let box = $state<HTMLButtonElement | null>(null);
  const edge = $derived(ringMm === null ? null : Math.max(0, 1 - ringMm / halfMm));
  // half extents of the goods in the drawing's own units
  const [wide, tall] = $derived(slab ? [56, 32] : [57, 57]);

  /** Where a mark's name stands: beneath it, or over it where there is no room beneath. */
  const nameAt = ({ what, y }: Schema['Mark']): number =>
    (what === 'soft' ? 14 : 11) * (y * tall + 14 < (slab ? 37 : 60) ? 1 : -0.6);

  function place(event: MouseEvent): void {
    if (!box || !ontouch) return;
    const area = box.getBoundingClientRect();
    const [width, height] = [120, slab ? 74 : 120];
    const x = (((event.clientX - area.left) / area.width) * width - width / 2) / wide;
    const y = (((event.clientY - area.top) / area.height) * height - height / 2) / tall;
    const depth = slab ? 1 - Math.abs(y) : 1 - Math.hypot(x, y);
    ontouch(x, y, Math.max(0, Math.min(1, depth)));
  }
</script>

<button
  bind:this={box}
  type="button"
  class="face"
  class:pen={ontouch !== undefined}
  style:aspect-ratio={slab ? '120 / 74' : '1'}
  style:max-width={slab ? '33rem' : '25rem'}
  aria-label={say.tap}
  onclick={place}
>
  <span class="meat"><CrossSection {inside} {slab} size={400} /></span>
  <svg viewBox={slab ? '-60 -37 120 74' : '-60 -60 120 120'} aria-hidden="true">
    {#if ringed}
      {#if slab}
        <rect x={-wide} y={-tall} width={2 * wide} height={2 * tall} rx="6" class="outer ring" />
        {#if edge !== null}<rect
            x={-wide + (1 - edge) * tall}
            y={-tall * edge}
            width={2 * (wide - (1 - edge) * tall)}
            height={2 * tall * edge}
            rx="4"
            class="ring"
          />{/if}
      {:else}
        <circle r={wide} class="outer ring" />
        {#if edge !== null}<circle r={wide * edge} class="ring" />{/if}
      {/if}
    {/if}
    {#each marks as mark, i (i)}
      <g transform={`translate(${mark.x * wide} ${mark.y * tall})`} class="mark {mark.what}">
        {#if mark.what === 'soft'}<ellipse rx="12" ry="9" />
        {:else if mark.what === 'holes'}<circle r="2.6" />
        {:else if mark.what === 'smear'}<path d="M-6 0q1.5-3 3 0t3 0 3 0 3 0" />
        {:else if mark.what === 'loose'}<path d="M-6 2l3-4 3 4 3-4 3 4" />
        {:else if mark.what === 'mould'}<path d="M0-4v8M-3.5-2l7 4M-3.5 2l7-4" />
        {:else}<circle r="7" />{/if}
        <text y={nameAt(mark)} text-anchor="middle">{say.spots[mark.what]}</text>
      </g>
    {/each}
  </svg>
</button>

<style>
  .face {
    position: relative;
    display: block;
    width: 100%;
    margin: 0 auto;
    cursor: default;
  }
  .face.pen {
    cursor: crosshair;
  }
  .meat :global(svg),
  .face > svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
  .ring {
    fill: none;
    stroke: var(--color-warning);
    stroke-width: 1;
    stroke-dasharray: 1 2;
    stroke-linecap: round;
    filter: drop-shadow(0 0 0.6px rgb(40 16 20));
  }
  .ring.outer {
    stroke-width: 1.6;
    stroke-dasharray: 2.4 2;
    stroke-linecap: butt;
  }
  .mark > :not(text) {
    fill: none;
    stroke: var(--fat);
    stroke-width: 1.4;
    stroke-linecap: round;
    stroke-linejoin: round;
  }
  .mark.soft > :not(text) {
    stroke-width: 1.8;
    stroke-dasharray: 3 2;
  }
  .mark.grey > circle {
    fill: #8d8d87;
    stroke: none;
    opacity: 0.75;
  }
  .mark.brown > circle {
    fill: #6b4a2b;
    stroke: none;
    opacity: 0.75;
  }
  .mark.yellow > circle {
    fill: #d8b64a;
    stroke: none;
    opacity: 0.85;
  }
  .mark.mould > path {
    stroke: #7fa07a;
    stroke-width: 1.8;
  }
  .mark text {
    font-size: 5px;
    font-weight: 600;
    fill: var(--fat);
    paint-order: stroke;
    stroke: rgb(40 16 20 / 0.75);
    stroke-width: 1.2px;
  }
</style>
