<script lang="ts">
  // The stock: what is there, in fridge, freezer and cellar, what to use first at the front; one touch takes it out.
  import { createQuery } from '@tanstack/svelte-query';

  import { cutQuery, lineQuery, stockQuery } from '../../api/queries';
  import PaperTag from '../../goods/PaperTag.svelte';
  import Line from '../../shell/Line.svelte';
  import { navigate, p, route } from '../../shell/router';
  import { muchWeight } from '../../units/quantity';
  import { words } from '../../words';
  import PackShape from './PackShape.svelte';
  import Rooms from './Rooms.svelte';
  import { clock, keyOf, spoken, urgent } from './stock';
  import StockPanel from './StockPanel.svelte';

  const say = words.stock;
  const line = createQuery(lineQuery);
  const stock = createQuery(stockQuery);
  const toCut = createQuery(cutQuery);
  const picked = $derived(route.params.id ?? null);
  const packs = $derived(stock.data?.packs ?? []);
  const pack = $derived(packs.find((one) => keyOf(one) === picked));
  const now = $derived(line.data ? new Date(line.data.now).getTime() : Date.now());
  const close = (): void => void navigate('/rest/stock');
  const shelves = $derived(
    (['fridge', 'freezer', 'cellar'] as const).filter((at) => packs.some((one) => one.keep_at === at)),
  );
  const ids = $derived(packs.flatMap((one) => (one.id === null ? [] : [`ids=${one.id}`])).slice(0, 100));
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>
<svelte:window onkeydown={(event) => event.key === 'Escape' && picked !== null && close()} />

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="rest" />{/if}
  <div class="station">
    <main>
      <header class="mb-2 flex flex-wrap items-baseline gap-x-6">
        <h1 class="font-tag text-3xl font-bold">{say.title}</h1>
        <Rooms here="stock" toCut={toCut.data?.waiting.length} />
        {#if stock.data && packs.length}<p class="quiet ml-auto">
            {say.count(stock.data.packs_left, muchWeight(stock.data.grams_left))}
          </p>{/if}
      </header>
      {#if stock.isError}<p class="text-error" role="alert">{stock.error.message}</p>{/if}
      {#if stock.data && packs.length === 0}
        <p class="mt-6 text-lg">{say.none}</p>
        <p class="quiet max-w-xl">{say.noneHint}</p>
      {/if}
      {#each shelves as at (at)}
        <section class="mt-4" aria-label={say.places[at]}>
          <h2 class="quiet">{say.places[at]}</h2>
          <div class="shelf">
            {#each packs.filter((one) => one.keep_at === at) as one (keyOf(one))}
              <button
                class="spot"
                aria-label={spoken(one, now)}
                onclick={() => void navigate('/rest/stock/:id', { params: { id: keyOf(one) } })}
              >
                <PackShape pack={one} />
                <PaperTag
                  top={one.tag}
                  main={clock(one, now)}
                  chosen={keyOf(one) === picked}
                  loud={urgent(one, now)}
                />
              </button>
            {/each}
          </div>
        </section>
      {/each}
      <p class="mt-6 flex flex-wrap gap-x-5">
        {#if ids.length}<a
            download
            class="min-h-11 underline underline-offset-4"
            href={`/api/packs/labels.pdf?${ids.join('&')}`}>{say.labels}</a
          >{/if}
        <a class="min-h-11 underline underline-offset-4" href={p('/rest/allergens')}>{say.allergens.title}</a>
      </p>
      {#if packs.length}<p class="quiet text-sm">{say.caution}</p>{/if}
    </main>
    <aside class:open={picked !== null}>
      {#if pack}
        {#key keyOf(pack)}<StockPanel {pack} {now} onclose={close} />{/key}
      {:else if packs.length}<p class="quiet">{say.pick}</p>{/if}
    </aside>
  </div>
</div>

<style>
  .shelf {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 1.4rem 0.9rem;
    margin-top: 0.4rem;
    padding-bottom: 0.2rem;
  }
  .spot {
    display: flex;
    flex-direction: column;
    align-items: center;
    gap: 0.5rem;
    cursor: pointer;
  }
  aside {
    width: 27rem;
  }
  @media (max-width: 1000px) {
    aside {
      width: auto;
    }
    aside.open {
      order: -1;
    }
  }
</style>
