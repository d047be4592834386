<script lang="ts">
  // The climate of a place over any span, and its files.
  // Long, since a page of short sections of one place, each from a component of its own.
  import { createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';

  import { head } from '../../api/entry';
  import { keys, lineQuery } from '../../api/queries';
  import AsTable from '../../charts/AsTable.svelte';
  import ClimateChart from '../../charts/ClimateChart.svelte';
  import Field from '../../forms/Field.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { optionalAs, optionalNumber } from '../../forms/typed';
  import Line from '../../shell/Line.svelte';
  import { p, route } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime } from '../../units/format';
  import { numberText } from '../../units/number';
  import { fieldText, temperatureText } from '../../units/quantity';
  import { words } from '../../words';
  import Devices from './Devices.svelte';
  import ImportSheet from './ImportSheet.svelte';
  import PlaceFacts from './PlaceFacts.svelte';
  import PlaceLog from './PlaceLog.svelte';
  import Rods from './Rods.svelte';
  import RoomWhatIf from './RoomWhatIf.svelte';

  const placeId = $derived(Number(route.params.place));
  const client = useQueryClient();
  const line = createQuery(() => lineQuery());
  const place = $derived(line.data?.places.find((candidate) => candidate.id === placeId));
  const spans = { week: 7, month: 31, year: 366 } as const;
  let span = $state<keyof typeof spans>('month');
  let zoom = $state<[number, number] | null>(null);
  let width = $state(900);
  let importing = $state(false);
  let temperature = $state('');
  let humidity = $state('');
  const since = new Moment();

  const now = $derived(line.data ? Math.floor(new Date(line.data.now).getTime() / 1000) : 0);
  const range = $derived(zoom ?? ([now - spans[span] * 86_400, now] as [number, number]));
  const climate = createQuery(() => ({
    queryKey: ['climate', placeId, ...range, width],
    queryFn: () =>
      take(
        api.GET('/api/places/{place_id}/climate', {
          params: {
            path: { place_id: placeId },
            query: { from_s: range[0], to_s: range[1], points: Math.max(200, Math.round(width)) },
          },
        }),
      ),
    enabled: now > 0 && Number.isFinite(placeId),
    placeholderData: keepPreviousData,
  }));
  // what is typed stays while the page asks anew, until the place is set otherwise or is another one
  const setC = $derived(place?.setpoint?.temperature_c ?? null);
  const setRh = $derived(place?.setpoint?.rh_percent ?? null);
  $effect(() => {
    void placeId;
    temperature = fieldText('temperature', setC);
    humidity = setRh?.toString() ?? '';
  });

  async function change(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      await take(
        api.POST('/api/places/{place_id}/setpoint', {
          params: { path: { place_id: placeId } },
          body: {
            temperature_c: optionalAs('temperature', temperature),
            rh_percent: optionalNumber(humidity),
            ...head(since),
          },
        }),
      );
      since.clear();
      session.say(words.place.changed);
      void client.invalidateQueries();
    } catch (error) {
      session.complain(error);
    }
  }
  const url = (file: string): string => `/api/places/${placeId}/${file}`;
</script>

<svelte:head
  ><title>{place ? `${place.name}, ${words.place.climate.toLowerCase()} · Zymon` : 'Zymon'}</title
  ></svelte:head
>
<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} {placeId} />{/if}
  <main class="flex-1 overflow-y-auto px-5 pt-3 pb-10 max-md:px-3">
    {#if place}
      <div class="flex flex-wrap items-baseline gap-x-5">
        <h1 class="font-tag text-3xl font-bold">{place.name}</h1>
        <p class="quiet">{place.sort ? words.place.kinds[place.sort] : words.places[place.kind]}</p>
        {#if place.kind === 'chamber'}
          <a
            class="underline underline-offset-4"
            href={p('/hang/:place', { params: { place: String(placeId) } })}
            >{words.hang.pieces(place.pieces)}</a
          >
        {/if}
        <div class="ml-auto" role="group" aria-label={words.place.climate}>
          {#each Object.keys(spans) as name (name)}
            <button
              class="min-h-11 px-2"
              class:font-semibold={span === name && !zoom}
              class:underline={span === name && !zoom}
              aria-pressed={span === name && !zoom}
              onclick={() => {
                span = name as keyof typeof spans;
                zoom = null;
              }}>{words.place.spans[name as keyof typeof spans]}</button
            >
          {/each}
        </div>
      </div>
      <div bind:clientWidth={width} class="mt-3">
        {#if climate.data && climate.data.at_s.length}
          <ClimateChart
            climate={climate.data}
            {width}
            setpoint={place.setpoint}
            onzoom={(from, to) => (zoom = [from, to])}
          />
          {@const shown = climate.data}
          <AsTable
            name={words.tables.climate}
            head={[words.tables.when, words.piece.temperature, words.piece.humidity]}
            rows={shown.at_s.map((at, i) => [
              dayAndTime(new Date(at * 1000).toISOString()),
              temperatureText(shown.temperature_c[i] ?? 0),
              shown.rh_percent[i] == null ? '–' : `${numberText(shown.rh_percent[i], 0)} %`,
            ])}
            file="/api/places/{place.id}/climate.csv?from_s={shown.at_s[0]}&to_s={(shown.at_s.at(-1) ?? 0) +
              shown.bucket_s}"
          />
        {:else if climate.isError}
          <p class="text-error" role="alert">{climate.error.message}</p>
        {:else if climate.data}
          <p class="max-w-lg py-6 text-lg">{words.place.noClimate}</p>
        {/if}
      </div>
      <div class="mt-4 grid gap-x-10 gap-y-5 md:grid-cols-[auto_1fr]">
        <form onsubmit={change} class="flex flex-wrap items-end gap-3" aria-label={words.place.setpoint}>
          <div class="w-28"><Field label={words.place.temperature} numeric bind:value={temperature} /></div>
          <div class="w-28"><Field label={words.place.humidity} numeric bind:value={humidity} /></div>
          <button class="btn min-h-11">{words.place.change}</button>
          <When when={since} />
        </form>
        <div class="flex flex-wrap items-center gap-x-5 gap-y-1 self-end">
          <button class="btn min-h-11" onclick={() => (importing = !importing)}>{words.imports.title}</button>
          <span class="quiet">{words.place.exports}:</span>
          {#if place.kind === 'chamber'}
            <a
              class="inline-flex min-h-11 items-center underline underline-offset-4"
              href={url('hang-file')}
              download>{words.place.hangFile}</a
            >
            <a
              class="inline-flex min-h-11 items-center underline underline-offset-4"
              href={url('weights.csv')}
              download>{words.place.weightsCsv}</a
            >
          {/if}
          <a
            class="inline-flex min-h-11 items-center underline underline-offset-4"
            href={url('climate.csv')}
            download>{words.place.climateCsv}</a
          >
        </div>
      </div>
      {#if importing}
        <div class="mt-5 max-w-2xl">
          <ImportSheet
            {placeId}
            placeName={place.name}
            ondone={(done) => {
              importing = false;
              session.say(words.imports.done(done.rows_new));
              void client.invalidateQueries({ queryKey: keys.line });
              void client.invalidateQueries();
            }}
            onclose={() => (importing = false)}
          />
        </div>
      {/if}
      <PlaceFacts place={placeId} />
      {#key placeId}<PlaceLog place={placeId} />{/key}
      {#if place.kind === 'chamber'}{#key placeId}<Rods place={placeId} />{/key}{/if}
      {#if place.kind === 'chamber' && place.pieces}{#key placeId}<RoomWhatIf {place} />{/key}{/if}
      <Devices
        place={placeId}
        placeName={place.name}
        now={now * 1000}
        simulated={line.data?.simulated ?? false}
      />
    {:else if line.data}
      <p class="p-6">{words.errors.notFound}</p>
    {/if}
  </main>
</div>
