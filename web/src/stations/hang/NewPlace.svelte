<script lang="ts">
  // One more chamber.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { lineQuery } from '../../api/queries';
  import Line from '../../shell/Line.svelte';
  import { navigate } from '../../shell/router';
  import { words } from '../../words';
  import PlaceForm from './PlaceForm.svelte';

  const client = useQueryClient();
  const line = createQuery(() => lineQuery());
</script>

<svelte:head><title>{words.place.title} · Zymon</title></svelte:head>
<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} />{/if}
  <main class="mx-auto w-full max-w-lg overflow-y-auto px-5 py-8">
    <h1 class="font-tag mb-4 text-3xl font-bold">{words.place.title}</h1>
    <PlaceForm
      onmade={(place) => {
        void client.invalidateQueries();
        const params = { place: String(place.id) };
        void (place.kind === 'chamber'
          ? navigate('/hang/:place', { params })
          : navigate('/hang/:place/climate', { params }));
      }}
    />
  </main>
</div>
