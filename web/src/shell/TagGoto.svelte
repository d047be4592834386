<script lang="ts">
  // Where the code on a paper tag leads: to the hanging piece, or to the batch that it was made in.
  import { api, take } from '../api/client';
  import { words } from '../words';
  import { navigate, route } from './router';

  const tag = $derived((route.params as { tag?: string }).tag ?? '');
  let problem = $state<string | null>(null);

  async function go(): Promise<void> {
    try {
      const found = await take(api.GET('/api/tags/{tag}', { params: { path: { tag } } }));
      if (found.piece_id !== null && found.place_id !== null) {
        await navigate('/hang/:place', {
          params: { place: String(found.place_id) },
          search: { piece: String(found.piece_id) },
          replace: true,
        });
      } else if (found.salt_id !== null) {
        await navigate('/salt/:id', { params: { id: String(found.salt_id) }, replace: true });
      } else {
        await navigate('/bench/batch/:id', { params: { id: String(found.batch_id) }, replace: true });
      }
    } catch (error) {
      problem = error instanceof Error ? error.message : words.bench.tagLost(tag);
    }
  }
  $effect(() => void go());
</script>

<p class="p-6 text-lg first-letter:uppercase" class:text-error={problem}>{problem ?? words.loading}</p>
