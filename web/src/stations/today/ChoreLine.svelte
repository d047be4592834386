<script lang="ts">
  // A line of the round: what, by when, what waiting costs, and the one touch that does it.
  import type { Schema } from '../../api/client';
  import { optionalAs } from '../../forms/typed';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime } from '../../units/format';
  import { words } from '../../words';
  import { said } from '../../words/said';

  interface Props {
    chore: Schema['ChoreOut'];
    busy: boolean;
    ondone: (chore: Schema['ChoreOut'], way: string, grams: number | null) => Promise<void>;
  }
  let { chore, busy, ondone }: Props = $props();
  const say = words.today;
  let liquid = $state('');
  const title = $derived(said(chore.title));
  const about = $derived(
    [
      chore.detail ? said(chore.detail) : '',
      // what may wait is no debt that grows: it is told when it was done last
      !chore.missed
        ? ''
        : chore.elasticity === 'firm'
          ? say.missed(chore.missed)
          : say.last(chore.last && dayAndTime(chore.last)),
      chore.cost ? say.cost(said(chore.cost)) : '',
    ]
      .filter(Boolean)
      .join(' · '),
  );
  const until = $derived(
    chore.elasticity === 'weight_led'
      ? say.weight
      : chore.latest === null
        ? say.waits
        : chore.when === 'late'
          ? say.late
          : chore.elasticity === 'firm'
            ? say.takeBy(dayAndTime(chore.latest))
            : say.wait(dayAndTime(chore.latest)),
  );
  function act(way: string): void {
    try {
      void ondone(chore, way, optionalAs('liquid', liquid));
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<li class="chore" class:late={chore.when === 'late'}>
  <span class="knot" class:firm={chore.elasticity === 'firm'} aria-hidden="true"></span>
  <span class="what">
    <span class="block text-lg leading-snug font-semibold">{title}</span>
    <span class="quiet block text-sm">
      {about}
    </span>
  </span>
  <span
    class="until"
    class:text-error={chore.when === 'late' && chore.elasticity === 'firm'}
    class:text-warning={chore.when === 'late' && chore.elasticity !== 'firm'}>{until}</span
  >
  <span class="do">
    {#if chore.action?.takes_grams}
      <input
        class="word grams"
        inputmode="decimal"
        placeholder={say.doneGrams}
        aria-label={say.doneGrams}
        bind:value={liquid}
      />
    {/if}
    {#if chore.action}
      {@const ways = chore.action.kinds}
      {#each ways as way (way)}
        {@const label = ways.length > 1 ? (say.ways[way] ?? way) : say.done}
        <button
          class="btn min-h-11"
          disabled={busy}
          aria-label={`${label}: ${title}`}
          onclick={() => act(way)}>{label}</button
        >
      {/each}
    {:else if chore.link}
      <a class="btn min-h-11" href={chore.link} aria-label={`${say.go}: ${title}`}>{say.go}</a>
    {/if}
  </span>
</li>

<style>
  .chore {
    display: grid;
    grid-template-columns: 1rem minmax(0, 1fr) 11.5rem 10.5rem;
    align-items: center;
    gap: 0.2rem 1rem;
    padding: 0.45rem 0;
  }
  .chore + :global(.chore) {
    border-top: 1px solid var(--color-base-300);
  }
  .knot {
    width: 0.7rem;
    height: 0.7rem;
    border: 2px solid var(--string);
    border-radius: 50%;
  }
  .firm {
    border-radius: 0;
    background: var(--string);
  }
  .late .knot {
    border-color: var(--color-warning);
  }
  .late .firm {
    border-color: var(--color-error);
    background: var(--color-error);
  }
  .until {
    font-size: 0.95rem;
    line-height: 1.2;
  }
  .do {
    display: flex;
    align-items: center;
    gap: 0.5rem;
    justify-content: flex-end;
  }
  .grams {
    width: 5rem;
    min-width: 0;
  }
  @media (max-width: 700px) {
    .chore {
      grid-template-columns: 1rem minmax(0, 1fr) auto;
    }
    .what {
      grid-column: 2 / -1;
    }
    .until {
      grid-column: 2;
      white-space: normal;
    }
  }
</style>
