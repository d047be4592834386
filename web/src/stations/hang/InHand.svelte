<script lang="ts">
  // What is in the hand, and where else it could hang.
  import type { Schema } from '../../api/client';
  import When from '../../forms/When.svelte';
  import { p } from '../../shell/router';
  import { words } from '../../words';
  import { hand } from './hand.svelte';

  let { places, here }: { places: Schema['PlaceOut'][]; here: number } = $props();
  const say = words.inHand;
  const others = $derived(places.filter((place) => place.id !== here && place.hooks > place.pieces));
</script>

{#if hand.holds}
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1" role="status">
    <p class="mr-2"><strong class="font-tag">{hand.holds.tag}</strong> {say.pick}</p>
    {#each others as place (place.id)}
      <a class="btn btn-sm min-h-11" href={p('/hang/:place', { params: { place: String(place.id) } })}
        >{place.name} <span class="quiet font-normal">{say.free(place.hooks - place.pieces)}</span></a
      >
    {/each}
    <When when={hand.when} />
    <button class="min-h-11 underline underline-offset-4" onclick={() => (hand.holds = null)}
      >{say.leave}</button
    >
  </div>
{/if}
