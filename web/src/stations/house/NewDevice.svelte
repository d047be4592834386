<script lang="ts">
  // A device made known: a climate sensor names its place, a scale or meter is carried about.
  import { createQuery } from '@tanstack/svelte-query';

  import { type Answer, api, type Schema } from '../../api/client';
  import { head } from '../../api/entry';
  import { kindsQuery } from '../../api/queries';
  import { words } from '../../words';

  interface Props {
    places: { id: number; name: string }[];
    change: (call: Promise<Answer<Schema['DeviceMade']>>) => Promise<void>;
  }
  let { places, change }: Props = $props();
  const say = words.placeFacts;
  let name = $state('');
  let kind = $state<Schema['DeviceIn']['kind']>('climate');
  let chosen = $state<number | null>(null);
  const kinds = createQuery(() => kindsQuery());
  const hasPlace = $derived(kinds.data?.find((one) => one.kind === kind)?.has_place ?? false);
  const place = $derived(chosen ?? places[0]?.id ?? null);

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    await change(
      api
        .POST('/api/devices', {
          body: { name, kind, place_id: hasPlace ? place : null, ...head() },
        })
        .then((answer) => {
          if (answer.data) name = '';
          return answer;
        }),
    );
  }
</script>

<form class="mt-5 flex flex-wrap items-end gap-3" onsubmit={add} aria-label={say.add}>
  <label class="block"
    ><span class="block text-sm font-semibold">{say.name}</span><input
      class="input min-h-11"
      required
      bind:value={name}
    /></label
  >
  <select class="select min-h-11 w-44" bind:value={kind} aria-label={say.devices}>
    {#each kinds.data ?? [] as one (one.kind)}<option value={one.kind}>{say.kinds[one.kind]}</option>{/each}
  </select>
  {#if hasPlace && places.length > 1}
    <select
      class="select min-h-11 w-44"
      value={place}
      onchange={(event) => (chosen = Number(event.currentTarget.value))}
      aria-label={words.house.place}
    >
      {#each places as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
    </select>
  {/if}
  <button class="btn min-h-11">{say.add}</button>
</form>
