<script lang="ts">
  // The head of the room: its name, how much hangs in it, and what is written on the pieces.
  import type { Schema } from '../../api/client';
  import { making } from '../../shell/follow.svelte';
  import { p } from '../../shell/router';
  import { words } from '../../words';
  import type { Layer } from './label';

  interface Props {
    room: Schema['Room'];
    layer: Layer;
    asList: boolean;
  }
  let { room, layer = $bindable(), asList = $bindable() }: Props = $props();
</script>

<div class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
  <h1 class="font-tag text-3xl font-bold">{room.place.name}</h1>
  <p class="quiet">
    <a
      class="text-base-content mr-2 inline-flex min-h-11 items-center underline underline-offset-4"
      href={p('/hang/:place/climate', { params: { place: String(room.place.id) } })}
      >{words.place.climate} →</a
    >
    {words.hang.pieces(room.pieces.length)}
    {#if making.has(room.place.id)}· <span role="status">{words.life.scale.making}</span>{/if}
    {#if room.ready_this_week}· <strong class="text-base-content"
        >{words.hang.readyThisWeek(room.ready_this_week)}</strong
      >{/if}
  </p>
  <div
    class="layers ml-auto flex items-center gap-x-1 overflow-x-auto whitespace-nowrap"
    role="group"
    aria-label={words.hang.drawing}
  >
    {#if !asList}
      {#each Object.entries(words.hang.layers) as [name, text] (name)}
        <button
          class="layer"
          class:on={layer === name}
          aria-pressed={layer === name}
          onclick={() => (layer = name as Layer)}>{text}</button
        >
      {/each}
    {/if}
    <button class="layer" onclick={() => (asList = !asList)}
      >{asList ? words.hang.drawing : words.hang.list}</button
    >
  </div>
</div>

<style>
  .layer {
    min-height: 44px;
    padding: 0 0.42rem;
    display: inline-flex;
    align-items: center;
    gap: 0.3rem;
    color: var(--quiet);
    cursor: pointer;
  }
  .layer.on {
    color: var(--color-base-content);
    font-weight: 600;
    box-shadow: inset 0 -3px 0 -0px var(--color-primary);
  }
</style>
