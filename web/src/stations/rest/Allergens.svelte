<script lang="ts">
  // The allergens a label marks: the shipped words, and the maker's own.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { head } from '../../api/entry';
  import { allergensQuery, keys, lineQuery } from '../../api/queries';
  import Field from '../../forms/Field.svelte';
  import Reason from '../../forms/Reason.svelte';
  import Line from '../../shell/Line.svelte';
  import { session } from '../../shell/session.svelte';
  import { words } from '../../words';
  import { nameOf, names } from '../../words/said';
  import Taps from './Taps.svelte';

  const say = words.stock.allergens;
  const client = useQueryClient();
  const line = createQuery(lineQuery);
  const list = createQuery(allergensQuery);
  let word = $state('');
  let means = $state<string[]>([]);
  let striking = $state<number | null>(null);

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const body = { ...head(), word, allergens: means as Schema['AllergenWordIn']['allergens'] };
    try {
      client.setQueryData(keys.allergens, await take(api.POST('/api/allergens', { body })));
      [word, means] = ['', []];
    } catch (error) {
      session.complain(error);
    }
  }
  async function strike(reason: string): Promise<void> {
    if (striking === null) return;
    const params = { path: { word_id: striking } };
    striking = null;
    try {
      const body = { reason, by: session.who };
      client.setQueryData(
        keys.allergens,
        await take(api.POST('/api/allergens/{word_id}/strike', { params, body })),
      );
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="rest" />{/if}
  <main class="overflow-y-auto px-5 pt-3 pb-12">
    <h1 class="font-tag text-3xl font-bold">{say.title}</h1>
    <p class="quiet max-w-2xl">{say.intro}</p>
    <h2 class="font-tag mt-4 text-xl font-semibold">{say.own}</h2>
    {#each list.data?.own ?? [] as own (own.id)}
      <p>
        <strong>{own.word}</strong>: {own.allergens.map((a) => nameOf('allergen', a)).join(', ')}
        <span class="quiet">{own.by}</span>
        <button class="quiet min-h-11 underline" onclick={() => (striking = own.id)}
          >{words.stock.strike}</button
        >
      </p>
    {:else}{#if list.data}<p class="quiet">{say.none}</p>{/if}{/each}
    {#if striking !== null}<Reason
        label={words.stock.strikeWhy}
        button={words.stock.strike}
        onanswer={(why) => void strike(why)}
      />{/if}
    <form class="mt-2 max-w-2xl" onsubmit={add}>
      <div class="w-64"><Field label={say.word} bind:value={word} /></div>
      <Taps
        name={say.means}
        taps={names.allergen ?? {}}
        many={means}
        onflip={(a) => (means = means.includes(a) ? means.filter((m) => m !== a) : [...means, a])}
      />
      <button class="btn btn-primary mt-1 min-h-11" disabled={!word.trim() || !means.length}>{say.add}</button
      >
    </form>
    <dl class="mt-5 grid max-w-3xl grid-cols-[max-content_1fr] gap-x-4 gap-y-1">
      {#each Object.entries(list.data?.shipped ?? {}) as [name, of] (name)}
        <dt class="font-semibold">{nameOf('allergen', name)}</dt>
        <dd class="quiet">{of.join(', ')}</dd>
      {/each}
    </dl>
  </main>
</div>
