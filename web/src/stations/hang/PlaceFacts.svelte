<script lang="ts">
  // What the log says of the place; its sensor put to the test; what would suit what hangs there.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';

  import { keys } from '../../api/queries';

  import { head } from '../../api/entry';
  import Field from '../../forms/Field.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime, fullDay, percent } from '../../units/format';
  import { numberText, tidyNumber, typedNumber } from '../../units/number';
  import { warmthText, weightText } from '../../units/quantity';
  import { words } from '../../words';
  import Suits from './Suits.svelte';

  let { place }: { place: number } = $props();
  const say = words.placeFacts;
  const client = useQueryClient();
  const key = $derived(['facts', place]);
  const facts = createQuery(() => ({
    queryKey: key,
    queryFn: () =>
      take(
        api.GET('/api/places/{place_id}/facts', {
          params: { path: { place_id: place }, query: { days: 30 } },
        }),
      ),
  }));
  let shown = $state('');
  const tested = new Moment();
  const faults = $derived(
    [...(facts.data?.outages ?? []), ...(facts.data?.gaps ?? [])].sort((a, b) =>
      a.from_at < b.from_at ? 1 : -1,
    ),
  );
  const hours = (span: Schema['SpanOut']): string =>
    numberText((new Date(span.to_at).getTime() - new Date(span.from_at).getTime()) / 3_600_000, 0);

  async function test(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const value = typedNumber(shown);
    if (value === null) {
      session.complain(new Error(words.errors.noNumber));
      return;
    }
    try {
      const body = { shown_rh_percent: value, true_rh_percent: 75.5, ...head(tested) };
      client.setQueryData(
        key,
        await take(
          api.POST('/api/places/{place_id}/sensor-tests', { params: { path: { place_id: place } }, body }),
        ),
      );
      shown = '';
      void client.invalidateQueries({ queryKey: keys.rooms });
    } catch (error) {
      session.complain(error);
    }
  }
  const some = (tags: string[]): string =>
    tags.length > 4 ? words.andMore(tags.slice(0, 4).join(', '), tags.length - 4) : tags.join(', ');
</script>

{#if facts.data}
  {@const found = facts.data}
  <section class="mt-6 max-w-3xl" aria-label={say.title}>
    <h2 class="font-tag text-xl font-semibold">{say.title}</h2>
    {#if found.readings === 0}<p class="text-lg">{say.noReadings}</p>{:else}
      <p class="text-lg">
        {found.in_band === null ? say.uncontrolled : say.inBand(percent(found.in_band * 100, 0))}
      </p>
      <p class="quiet">
        {say.swing(warmthText(found.swing_c), tidyNumber(found.swing_rh, 0))} · {say.doors(
          tidyNumber(found.doors_a_day, 1),
        )} · {say.damp(tidyNumber(found.damp_hours, 0), tidyNumber(found.dew_hours, 0))}
      </p>
    {/if}
    {#if found.water_g_per_day}
      <p>
        {say.water(weightText(found.water_g_per_day))}{#if found.room_for_g_per_day}; {say.room(
            weightText(found.room_for_g_per_day),
          )}{/if}.
      </p>
    {/if}
    {#if found.advised_rh !== null}
      <p class="mt-1 font-semibold">
        {say.advice(tidyNumber(found.advised_rh, 0))}{#if found.too_dry_for.length}{say.dryFor(
            some(found.too_dry_for),
          )}{/if}{#if found.too_damp_for.length}{say.dampFor(some(found.too_damp_for))}{/if}.
      </p>
    {/if}
    {#if faults.length}
      <h3 class="mt-3 font-semibold">{say.faults}</h3>
      <ul>
        {#each faults.slice(0, 6) as span, i (i)}
          <li>
            {say.span(dayAndTime(span.from_at), hours(span), say.what[span.what](span.worst))}
          </li>
        {/each}
      </ul>
    {:else if found.days}<p class="quiet mt-2">{say.noFaults}</p>{/if}
    <Suits suits={found.suits} />
    <details class="mt-3">
      <summary class="min-h-11 cursor-pointer py-2 font-semibold">{say.tests}</summary>
      <p class="quiet">{say.testHint}</p>
      {#if found.offset_rh}<p>{say.offset(tidyNumber(found.offset_rh, 1))}</p>{/if}
      <ul class="text-sm">
        {#each found.tests as one (one.id)}
          <li class:line-through={one.struck_reason !== null}>
            {fullDay(one.at)}: {percent(one.shown_rh_percent)} → {percent(one.true_rh_percent)}
            <span class="quiet">{one.by}</span>
          </li>
        {/each}
      </ul>
      <form class="flex items-end gap-3" onsubmit={test}>
        <div class="w-40"><Field label={say.shown} numeric required bind:value={shown} /></div>
        <button class="btn min-h-11">{say.apply}</button>
        <When when={tested} />
      </form>
    </details>
  </section>
{/if}
