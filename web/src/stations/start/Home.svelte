<script lang="ts">
  // Where the address leads: to the first chamber, or, in a new database, to the making of one.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';
  import { lineQuery } from '../../api/queries';
  import Field from '../../forms/Field.svelte';
  import Mark from '../../shell/Mark.svelte';
  import { navigate } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { shows, writeShows } from '../../units/shows';
  import { words } from '../../words';
  import PlaceForm from '../hang/PlaceForm.svelte';
  import BringIn from './BringIn.svelte';

  const client = useQueryClient();
  const line = createQuery(() => lineQuery());
  let workshop = $state('');
  let you = $state(session.who === 'maker' ? '' : session.who);
  let zone = $state(Intl.DateTimeFormat().resolvedOptions().timeZone);

  const chambers = $derived(line.data?.places.filter((place) => place.kind === 'chamber') ?? []);
  $effect(() => {
    const most = [...chambers].sort((a, b) => b.pieces - a.pieces)[0];
    if (most) void navigate('/hang/:place', { params: { place: String(most.id) }, replace: true });
  });

  async function name(): Promise<void> {
    session.rename(you);
    await take(
      api.PUT('/api/workshop', {
        body: { name: workshop, time_zone: zone, shows: writeShows(shows), by: session.who },
      }),
    );
  }
</script>

<svelte:head><title>Zymon</title></svelte:head>
{#if line.isError}
  <p class="text-error p-8 text-lg" role="alert">{line.error.message}</p>
{:else if line.data && chambers.length === 0}
  <main class="mx-auto max-w-lg px-5 py-10">
    <Mark size={56} />
    <h1 class="font-tag mt-3 text-4xl font-bold">{words.start.title}</h1>
    <p class="mt-2 text-lg">{words.start.text}</p>
    <div class="mt-5 grid grid-cols-2 gap-3">
      <Field label={words.start.workshop} bind:value={workshop} required />
      <Field label={words.start.you} bind:value={you} />
      <div class="col-span-2"><Field label={words.start.zone} bind:value={zone} required /></div>
    </div>
    <div class="mt-4">
      <PlaceForm label={words.start.open} before={name} onmade={() => void client.invalidateQueries()} />
    </div>
    {#if line.data.workshop === null}<BringIn />{/if}
    <p class="quiet mt-6 text-sm">{words.piece.caution}</p>
  </main>
{:else}
  <p class="quiet p-8">{words.loading}</p>
{/if}
