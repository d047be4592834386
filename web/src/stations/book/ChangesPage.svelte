<script lang="ts">
  // What was changed, lately or on a day.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';
  import { lineQuery } from '../../api/queries';
  import { inAddress, intoAddress } from '../../shell/address';
  import Line from '../../shell/Line.svelte';
  import { p } from '../../shell/router';
  import { fullDay, useTimeZone } from '../../units/format';
  import { words } from '../../words/en';
  import Changes from './Changes.svelte';

  const say = words.life.changes;
  const line = createQuery(lineQuery);
  let day = $state(inAddress('day') ?? '');
  const days = createQuery(() => ({
    queryKey: ['changes', null, null],
    queryFn: () => take(api.GET('/api/changes')),
  }));
  $effect(() => intoAddress({ day: day || null }, false));
  $effect(() => {
    if (line.data?.workshop) useTimeZone(line.data.workshop.time_zone);
  });
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="book" />{/if}
  <main class="flex-1 overflow-y-auto px-5 pt-3 pb-16 max-md:px-3">
    <p>
      <a class="inline-flex min-h-11 items-center underline underline-offset-4" href={p('/book')}
        >← {words.life.book.title}</a
      >
    </p>
    <h1 class="font-tag text-3xl font-bold">{say.title}</h1>
    <p class="quiet max-w-3xl">{say.hint}</p>
    <label class="mt-2 flex items-center gap-2"
      ><span class="font-semibold">{say.day}</span>
      <select class="select min-h-11 w-auto" bind:value={day}>
        <option value="">{say.lately}</option>
        {#each days.data?.days ?? [] as one (one)}<option value={one}>{fullDay(`${one}T12:00:00Z`)}</option
          >{/each}
      </select></label
    >
    <div class="mt-3 max-w-5xl"><Changes day={day || null} /></div>
  </main>
</div>
