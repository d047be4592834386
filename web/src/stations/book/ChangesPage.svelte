<script lang="ts">
  // What was changed, lately or on a day.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';
  import { inAddress, intoAddress } from '../../shell/address';
  import { fullDay } from '../../units/format';
  import { words } from '../../words';
  import BookPage from './BookPage.svelte';
  import Changes from './Changes.svelte';

  const say = words.life.changes;
  let day = $state(inAddress('day') ?? '');
  let by = $state(inAddress('by') ?? '');
  const days = createQuery(() => ({
    queryKey: ['changes', null, null, null],
    queryFn: () => take(api.GET('/api/changes')),
  }));
  $effect(() => intoAddress({ day: day || null, by: by || null }, false));
</script>

<BookPage title={say.title} hint={say.hint}>
  <div class="mt-2 flex flex-wrap gap-x-6 gap-y-1">
    <label class="flex items-center gap-2"
      ><span class="font-semibold">{say.day}</span>
      <select class="select min-h-11 w-auto" bind:value={day}>
        <option value="">{say.lately}</option>
        {#each days.data?.days ?? [] as one (one)}<option value={one}>{fullDay(`${one}T12:00:00Z`)}</option
          >{/each}
      </select></label
    >
    <label class="flex items-center gap-2"
      ><span class="font-semibold">{say.who}</span>
      <select class="select min-h-11 w-auto" bind:value={by}>
        <option value="">{say.everybody}</option>
        {#each days.data?.people ?? [] as one (one)}<option value={one}>{one}</option>{/each}
      </select></label
    >
  </div>
  <div class="mt-3 max-w-5xl"><Changes day={day || null} by={by || null} /></div>
</BookPage>
