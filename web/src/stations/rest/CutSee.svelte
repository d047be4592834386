<script lang="ts">
  // The face under the knife: what is seen on it, and where.
  import type { Schema } from '../../api/client';
  import { words } from '../../words';
  import { type CutForm, SPOTS } from './cutform.svelte';
  import CutDrawing from './CutDrawing.svelte';

  let { piece, form }: { piece: Schema['UnderTheKnife']; form: CutForm } = $props();
  const say = words.cut;
  const hint = $derived(
    form.pen === null ? say.tap : form.pen === 'ring' ? say.tapRing : say.tapSpot(say.spots[form.pen]),
  );
</script>

<p class="mb-1 text-center font-semibold" aria-live="polite">{hint}</p>
<CutDrawing
  inside={piece.inside}
  slab={piece.shape === 'slab'}
  halfMm={form.halfMm}
  ringMm={form.ringMm}
  ringed={!!form.seen.ring}
  marks={form.marks}
  ontouch={(x, y, depth) => form.touch(x, y, depth)}
/>
<p class="quiet mt-1 text-center text-sm">
  {say.shaded}
  {#if form.seen.ring && form.ringMm !== null}<strong class="text-base-content"
      >{say.ring(form.ringMm)}</strong
    >{/if}
</p>
<div class="chips" role="group" aria-label={say.tap}>
  <button type="button" class="chip" aria-pressed={form.even} onclick={() => form.nothing()}
    >{say.even}</button
  >
  {#each SPOTS as spot (spot)}
    <button
      type="button"
      class="chip"
      class:picked={form.pen === spot}
      aria-pressed={!!form.seen[spot]}
      onclick={() => form.pick(spot)}>{say.spots[spot]}</button
    >
  {/each}
</div>

<style>
  .chips {
    display: flex;
    flex-wrap: wrap;
    justify-content: center;
    gap: 0.4rem;
    margin-top: 0.5rem;
  }
  .picked {
    outline: 2px solid var(--color-warning);
    outline-offset: 2px;
  }
</style>
