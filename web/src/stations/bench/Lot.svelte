<script lang="ts">
  // A lot knows where it went: batches, and every piece of them.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';
  import { lineQuery } from '../../api/queries';
  import PaperTag from '../../goods/PaperTag.svelte';
  import Line from '../../shell/Line.svelte';
  import { p, route } from '../../shell/router';
  import { fullDay, recipeGrams } from '../../units/format';
  import { words } from '../../words/en';

  const say = words.bench.lots;
  const id = $derived(Number((route.params as { id?: string }).id));
  const line = createQuery(lineQuery);
  const lot = createQuery(() => ({
    queryKey: ['lot', id],
    queryFn: () => take(api.GET('/api/lots/{lot_id}', { params: { path: { lot_id: id } } })),
  }));
</script>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="bench" />{/if}
  <main class="overflow-y-auto px-5 pt-3 pb-12">
    {#if lot.data}
      <p class="quiet">{lot.data.lot.what} · {fullDay(lot.data.lot.at)}</p>
      <h1 class="font-tag text-4xl font-bold">{say.title(lot.data.lot.code)}</h1>
      <h2 class="font-tag mt-3 text-xl font-semibold">{say.goes}</h2>
      {#each lot.data.batches as batch (batch.id)}
        <section class="mt-2">
          <p>
            <a
              class="font-semibold underline underline-offset-4"
              href={p('/bench/batch/:id', { params: { id: String(batch.id) } })}
              >{batch.code} {batch.product}</a
            >
            <span class="quiet">{fullDay(batch.made_at)} · {say.grams(`${recipeGrams(batch.grams)} g`)}</span>
          </p>
          <ul class="mt-1 flex flex-wrap gap-3">
            {#each batch.tags as tag (tag)}
              <li>
                <a href={p('/t/:tag', { params: { tag } })}><PaperTag top={batch.code} main={tag} /></a>
              </li>
            {/each}
          </ul>
        </section>
      {:else}<p class="quiet">{say.nowhere}</p>{/each}
    {:else}
      <p class="first-letter:uppercase" class:text-error={lot.isError}>
        {lot.isError ? lot.error.message : words.loading}
      </p>
    {/if}
  </main>
</div>
