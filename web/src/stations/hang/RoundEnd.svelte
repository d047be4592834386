<script lang="ts">
  // The end of a round: what is ready, what is too fast, what was not taken.
  import { words } from '../../words';
  import { said } from '../../words/said';
  import type { Entry } from './outbox.svelte';
  import type { Round } from './round.svelte';

  let { round, onleave }: { round: Round; onleave: () => void } = $props();
  const say = words.round.done;
  const answered = $derived(round.entries.filter((e) => e.answer !== null));
  const groups = $derived(
    (
      [
        [say.ready, answered.filter((e) => e.answer?.state === 'ready' || e.answer?.state === 'over')],
        [say.fast, answered.filter((e) => e.answer?.wants.includes('too_fast'))],
        [say.soon, answered.filter((e) => e.answer?.state === 'soon')],
        [say.conflict, answered.filter((e) => e.answer?.outcome === 'conflict')],
        [say.clock, answered.filter((e) => e.answer?.outcome === 'stored' && e.answer.says)],
        [say.refused, answered.filter((e) => e.state === 'refused')],
      ] as [string, Entry[]][]
    ).filter(([, entries]) => entries.length > 0),
  );
</script>

<main class="mx-auto w-full max-w-3xl px-5 py-6">
  <h1 class="font-tag text-3xl font-bold">{say.title}</h1>
  <p class="text-lg">{say.count(round.entries.filter((e) => e.state !== 'refused').length)}</p>
  <p class:text-warning={round.waiting > 0} class:quiet={round.waiting === 0} role="status">
    {round.waiting ? words.round.waiting(round.waiting) : words.round.sent}
  </p>
  {#each groups as [title, entries] (title)}
    <h2 class="mt-4 font-semibold">{title}</h2>
    <ul>
      {#each entries as entry (entry.uid)}
        <li class="py-1">
          <strong class="font-tag">{entry.tag}</strong>
          {#if entry.answer?.says}<span class="quiet">{said(entry.answer.says)}</span>{/if}
        </li>
      {/each}
    </ul>
  {/each}
  <button class="btn btn-primary btn-lg mt-6" onclick={onleave}>{say.back}</button>
</main>
