<script lang="ts">
  // A lot knows where it went: every batch, every piece and every pack that holds something of it.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';
  import { keys, lineQuery } from '../../api/queries';
  import PaperTag from '../../goods/PaperTag.svelte';
  import Line from '../../shell/Line.svelte';
  import { p, route } from '../../shell/router';
  import { fullDay, shortDay } from '../../units/format';
  import { recipeWeight, weightAsTyped } from '../../units/quantity';
  import { words } from '../../words';

  const say = words.bench.lots;
  const told = words.stock.recall;
  const id = $derived(Number((route.params as { id?: string }).id));
  const line = createQuery(lineQuery);
  const lot = createQuery(() => ({
    queryKey: keys.lot(id),
    queryFn: () => take(api.GET('/api/lots/{lot_id}', { params: { path: { lot_id: id } } })),
  }));
</script>

<svelte:head><title>{lot.data ? say.title(lot.data.code) : words.bench.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="bench" />{/if}
  <main class="overflow-y-auto px-5 pt-3 pb-12">
    {#if lot.data}
      <p class="quiet">{lot.data.what}</p>
      <h1 class="font-tag text-4xl font-bold">{say.title(lot.data.code)}</h1>
      <p class="print:hidden">
        <a
          download
          class="inline-flex min-h-11 items-center underline underline-offset-4"
          href={`/api/lots/${id}/recall.pdf`}>{words.book.recall}</a
        >
      </p>
      <h2 class="font-tag mt-3 text-xl font-semibold">{say.goes}</h2>
      {#each lot.data.batches as batch (batch.batch_id)}
        <section class="mt-2">
          <p>
            <a
              class="font-semibold underline underline-offset-4"
              href={p('/bench/batch/:id', { params: { id: String(batch.batch_id) } })}
              >{batch.batch} {batch.product}</a
            >
            <span class="quiet">{fullDay(batch.made_at)} · {say.grams(recipeWeight(batch.grams))}</span>
          </p>
          <ul class="mt-2 flex flex-wrap gap-x-6 gap-y-3" aria-label={told.where}>
            {#each batch.pieces as piece (piece.tag)}
              <li class="flex gap-3">
                <a href={p('/t/:tag', { params: { tag: piece.tag } })}
                  ><PaperTag top={batch.batch} main={piece.tag} /></a
                >
                <span class="max-w-64 text-sm">
                  <strong>{told.states[piece.state] ?? piece.state}</strong>
                  {piece.place ?? ''}
                  {#each piece.packs as pack (pack.id)}
                    {#if pack.left}<span class="block"
                        >{told.left(pack.left, pack.net_g === null ? '' : weightAsTyped(pack.net_g))}, {words
                          .stock.keepAt[pack.keep_at]}</span
                      >{/if}
                    {#each pack.events.filter((e) => e.kind === 'out' && e.how !== 'moved' && e.struck_reason === null) as event (event.id)}
                      <span class="quiet block"
                        >{told.went(
                          event.number,
                          words.stock.went[event.how] ?? event.how,
                          event.to_whom,
                          shortDay(event.at),
                        )}</span
                      >
                    {/each}
                  {/each}
                </span>
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
