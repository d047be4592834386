<script lang="ts">
  // The chamber drawn as it is. One scale for the whole room, so that sizes can be compared by eye.
  import type { Schema } from '../../api/client';
  import { boxOf, figureOf } from '../../goods/shapes';
  import type { Layer } from './label';
  import Rod from './Rod.svelte';

  interface Props {
    room: Schema['Room'];
    pieces: Schema['PieceCard'][];
    chosen: number | null;
    moving: boolean;
    layer: Layer;
    now: number;
    onpick: (id: number) => void;
    onfree: (rod: Schema['RodOut'], hook: number) => void;
    /** A piece was taken up to be dragged; null when it was let go of. */
    ondrag: (piece: Schema['PieceCard'] | null) => void;
  }
  let { room, pieces, chosen, moving, layer, now, onpick, onfree, ondrag }: Props = $props();
  let width = $state(800);

  const LEAST_HOOK_PX = 62;
  const longest = $derived(Math.max(1, ...room.rods.map((rod) => rod.hooks)));
  const fits = $derived(Math.max(1, Math.floor(width / LEAST_HOOK_PX)));
  /** Hooks to a line: as many as fit, shared out evenly where a rod goes over several lines. */
  const columns = $derived(Math.ceil(longest / Math.ceil(longest / fits)));
  const lines = $derived(
    room.rods.flatMap((rod) =>
      Array.from({ length: Math.ceil(rod.hooks / columns) }, (_, i) => ({
        rod,
        from: i * columns + 1,
        to: Math.min(rod.hooks, (i + 1) * columns),
      })),
    ),
  );
  const pxPerMm = $derived.by(() => {
    const boxes = pieces.map((piece) =>
      boxOf(figureOf(piece.kind, piece.shape), piece.length_mm, piece.width_mm),
    );
    const widest = Math.max(60, ...boxes.map((box) => box.width));
    const tallest = Math.max(200, ...boxes.map((box) => box.height));
    return Math.min(((width / columns) * 0.94) / widest, 152 / tallest, 0.62);
  });
</script>

<div bind:clientWidth={width} class="mt-2">
  {#each lines as { rod, from, to } (`${rod.id}/${from}`)}
    <Rod
      {rod}
      shelf={room.place.sort === 'household_fridge'}
      {from}
      {to}
      {columns}
      pieces={pieces.filter((piece) => piece.rod === rod.number)}
      hookAirs={room.hooks.filter((one) => one.rod_id === rod.id)}
      {chosen}
      {moving}
      {layer}
      {now}
      {pxPerMm}
      {onpick}
      {onfree}
      {ondrag}
    />
  {/each}
</div>
