<script lang="ts">
  // Declare the warm stage: where, since when, which culture, how much sugar.
  import { untrack } from 'svelte';

  import { api, type Schema, take } from '../../api/client';

  import { head } from '../../api/entry';
  import Field from '../../forms/Field.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { optionalNumber } from '../../forms/typed';
  import { rightNow } from '../../units/format';
  import { tidyNumber, typedNumber } from '../../units/number';
  import { words } from '../../words';

  interface Props {
    batch: Schema['WaitingForWarmth'];
    places: Schema['PlaceOut'][];
    ondone: () => void;
  }
  let { batch, places, ondone }: Props = $props();
  const say = words.warm.stage;
  const text = (value: number | null): string => (value === null ? '' : tidyNumber(value, 2));
  let place = $state(untrack(() => (places.find((p) => p.kind === 'warm') ?? places[0])?.id ?? 0));
  const stuffed = new Moment();
  let culture = $state<'slow' | 'medium' | 'fast' | 'wild' | 'none' | ''>(
    untrack(() => (batch.warm === 'wild' ? 'wild' : batch.warm === 'none' ? 'none' : 'medium')),
  );
  let dextrose = $state(untrack(() => text(batch.dextrose_percent)));
  let salt = $state(untrack(() => text(batch.salt_percent)));
  let start = $state('');
  let target = $state('5.2');
  let fault = $state<string | null>(null);

  async function begin(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const ph = typedNumber(target);
    if (ph === null) {
      fault = words.errors.noNumber;
      return;
    }
    try {
      await take(
        api.PUT('/api/warm/{batch_id}/stage', {
          params: { path: { batch_id: batch.batch_id } },
          body: {
            place_id: place,
            stuffed_at: stuffed.at ?? rightNow(),
            culture: culture === '' ? null : culture,
            dextrose_percent: optionalNumber(dextrose),
            salt_percent: optionalNumber(salt),
            start_ph: optionalNumber(start),
            target_ph: ph,
            ...head(),
          },
        }),
      );
      ondone();
    } catch (error) {
      fault = error instanceof Error ? error.message : words.errors.unexpected(0);
    }
  }
</script>

<form class="mt-2" onsubmit={begin} aria-label={`${say.title} ${batch.batch}`}>
  <div class="grid max-w-3xl grid-cols-4 gap-3 max-md:grid-cols-2">
    <label class="block"
      ><span class="block text-sm font-semibold">{say.place}</span>
      <select class="select min-h-11 w-full" bind:value={place}>
        {#each places as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
      </select></label
    >
    <label class="block"
      ><span class="block text-sm font-semibold">{say.culture}</span>
      <select class="select min-h-11 w-full" bind:value={culture}>
        <option value="">{say.notKnown}</option>
        {#each Object.entries(say.cultures) as [key, name] (key)}<option value={key}>{name}</option>{/each}
      </select></label
    >
    <Field label={say.dextrose} numeric bind:value={dextrose} />
    <Field label={say.salt} numeric bind:value={salt} />
    <Field label={say.start} numeric bind:value={start} />
    <Field label={say.target} numeric bind:value={target} />
  </div>
  <When when={stuffed} label={say.stuffed} />
  {#if culture === 'wild'}<p class="text-warning mt-1">{say.wild}</p>{/if}
  {#if culture === 'none'}<p class="quiet mt-1 max-w-2xl">{say.none}</p>{/if}
  {#if fault}<p class="text-error mt-1 first-letter:uppercase" role="alert">{fault}</p>{/if}
  <button class="btn btn-primary mt-2 min-h-11">{say.ok}</button>
</form>
