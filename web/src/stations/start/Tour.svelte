<script lang="ts">
  // Three steps on an empty workshop: what goes in, what it weighs, what wants a hand.
  import { untrack } from 'svelte';

  import { p } from '../../shell/router';
  import { words } from '../../words';
  import { STEPS, tour } from './tour.svelte';

  const say = words.tour;
  const step = $derived(tour.step);
  $effect(() => untrack(() => tour.show()));
</script>

{#if step}
  <section class="tour" aria-label={say.title}>
    <div aria-live="polite">
      <p class="quiet">{say.title} · {say.of(tour.number, STEPS.length)}</p>
      <h2 class="font-tag text-xl font-semibold">{say.steps[step].title}</h2>
      <p class="mt-1">{say.steps[step].text}</p>
    </div>
    <div class="mt-3 flex flex-wrap items-center gap-3">
      <button class="btn btn-primary min-h-11" onclick={() => tour.next()}
        >{tour.number < STEPS.length ? say.next : say.done}</button
      >
      {#if tour.number > 1}<button class="btn min-h-11" onclick={() => tour.back()}>{say.back}</button>{/if}
      {#if step === 'bench'}<a class="btn min-h-11" href={p('/bench')}>{say.toBench}</a>{/if}
      {#if step === 'today'}<a class="btn min-h-11" href={p('/today')}>{say.toToday}</a>{/if}
      {#if tour.number < STEPS.length}<button
          class="quiet ml-auto min-h-11 underline underline-offset-4"
          onclick={() => tour.end()}>{say.skip}</button
        >{/if}
    </div>
  </section>
{:else}
  <button class="quiet mt-6 min-h-11 underline underline-offset-4" onclick={() => tour.again()}
    >{say.again}</button
  >
{/if}

<style>
  .tour {
    margin: 1.4rem 0;
    padding: 0.9rem 1.1rem;
    max-width: 40rem;
    background: var(--paper);
    border: 1px solid var(--paper-edge);
    border-radius: 4px;
  }
</style>
