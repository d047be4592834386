<script lang="ts">
  // The shelf: every resting piece in its bag, place by place; beside it the one that was picked.
  import { createQuery } from '@tanstack/svelte-query';

  import { cutQuery, lineQuery, restQuery } from '../../api/queries';
  import Line from '../../shell/Line.svelte';
  import { navigate, p, route } from '../../shell/router';
  import { words } from '../../words';
  import Bag from './Bag.svelte';
  import RestPanel from './RestPanel.svelte';
  import Rooms from './Rooms.svelte';

  const say = words.rest;
  const line = createQuery(lineQuery);
  const rest = createQuery(restQuery);
  const toCut = createQuery(cutQuery);
  const picked = $derived(route.params.id ? Number(route.params.id) : null);
  const pieces = $derived(rest.data?.pieces ?? []);
  const shelves = $derived([...new Set(pieces.map((c) => c.place))]);
  const widest = $derived(Math.max(1, ...pieces.map((c) => c.across_mm)));
  const now = $derived(line.data ? new Date(line.data.now).getTime() : Date.now());
  const close = (): void => void navigate('/rest');
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>
<svelte:window onkeydown={(event) => event.key === 'Escape' && picked !== null && close()} />

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="rest" />{/if}
  <div class="station">
    <main>
      <header class="mb-2 flex flex-wrap items-baseline gap-x-6">
        <h1 class="font-tag text-3xl font-bold">{say.title}</h1>
        <Rooms here="shelf" toCut={toCut.data?.waiting.length} />
        {#if pieces.length}<p class="quiet">
            {say.count(pieces.length, pieces.filter((c) => c.state === 'even').length)}
          </p>{/if}
      </header>
      {#if rest.isError}<p class="text-error" role="alert">{rest.error.message}</p>{/if}
      {#if rest.data && pieces.length === 0}
        <p class="mt-6 text-lg">{say.none}</p>
        <p class="quiet max-w-xl">{say.noneHint}</p>
      {/if}
      {#each shelves as place (place)}
        <section class="mt-4" aria-label={place ?? say.shelf}>
          <h2 class="quiet">{place ?? say.shelf}</h2>
          <div class="shelf">
            {#each pieces.filter((c) => c.place === place) as card (card.id)}
              <Bag
                {card}
                {widest}
                {now}
                chosen={card.id === picked}
                onpick={(id) => void navigate('/rest/:id', { params: { id: String(id) } })}
              />
            {/each}
          </div>
        </section>
      {/each}
      <p class="mt-5">
        <a class="inline-block min-h-11 underline underline-offset-4" href={p('/rest/in')}
          >{say.outside.link}</a
        >
      </p>
      {#if pieces.length}<p class="quiet text-sm">{say.legend}. {say.estimate}</p>{/if}
    </main>
    <aside class:open={picked !== null}>
      {#if picked !== null}
        {#key picked}<RestPanel id={picked} {now} onclose={close} />{/key}
      {:else if pieces.length}<p class="quiet">{say.pick}</p>{/if}
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
