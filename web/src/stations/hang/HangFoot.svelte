<script lang="ts">
  // The foot of the room: what can be done from here, or where what is in the hand could hang.
  import type { Schema } from '../../api/client';
  import { p } from '../../shell/router';
  import { words } from '../../words';
  import { hand } from './hand.svelte';
  import InHand from './InHand.svelte';

  interface Props {
    places: Schema['PlaceOut'][];
    placeId: number;
    /** What the tags are sought by. */
    find: string;
    onhang: () => void;
    onimport: () => void;
    onkeys: () => void;
  }
  let { places, placeId, find = $bindable(), onhang, onimport, onkeys }: Props = $props();
</script>

<footer class="foot">
  {#if hand.holds}
    <InHand {places} here={placeId} />
  {:else}
    <a class="btn min-h-11" href={p('/hang/:place/round', { params: { place: String(placeId) } })}
      ><kbd>r</kbd> {words.round.begin}</a
    >
    <button class="btn min-h-11" onclick={onhang}><kbd>h</kbd> {words.form.hangTitle}</button>
    <button class="btn min-h-11" onclick={onimport}><kbd>b</kbd> {words.imports.title}</button>
    <input
      class="input min-h-11 w-40 max-md:hidden"
      placeholder={words.find}
      aria-label={words.find}
      bind:value={find}
    />
    <span class="quiet ml-auto text-sm max-lg:hidden">{words.hang.legend}</span>
    <button class="btn btn-ghost min-h-11 max-md:hidden" onclick={onkeys}><kbd>?</kbd> {words.help}</button>
  {/if}
</footer>

<style>
  .foot {
    display: flex;
    align-items: center;
    gap: 0.6rem;
    padding: 0.4rem 1.25rem;
    border-top: 1px solid var(--color-base-300);
    background: var(--color-base-100);
  }
  kbd {
    font-family: var(--font-tag);
    font-size: 0.85em;
    opacity: 0.65;
    border: 1px solid currentColor;
    border-radius: 3px;
    padding: 0 0.3em;
  }
  @media (max-width: 900px) {
    .foot {
      padding: 0.4rem 0.6rem;
      flex-wrap: wrap;
    }
    kbd {
      display: none;
    }
  }
</style>
