<script lang="ts">
  // What was changed, lately or on a day.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';
  import { inAddress, intoAddress } from '../../shell/address';
  import { fullDay } from '../../units/format';
  import { words } from '../../words/en';
  import BookPage from './BookPage.svelte';
  import Changes from './Changes.svelte';

  const say = words.life.changes;
  let day = $state(inAddress('day') ?? '');
  const days = createQuery(() => ({
    queryKey: ['changes', null, null],
    queryFn: () => take(api.GET('/api/changes')),
  }));
  $effect(() => intoAddress({ day: day || null }, false));
</script>

<BookPage title={say.title} hint={say.hint}>
  <label class="mt-2 flex items-center gap-2"
    ><span class="font-semibold">{say.day}</span>
    <select class="select min-h-11 w-auto" bind:value={day}>
      <option value="">{say.lately}</option>
      {#each days.data?.days ?? [] as one (one)}<option value={one}>{fullDay(`${one}T12:00:00Z`)}</option
        >{/each}
    </select></label
  >
  <div class="mt-3 max-w-5xl"><Changes day={day || null} /></div>
</BookPage>
