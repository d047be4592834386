<script lang="ts">
  // What has to be bought for the plans that begin in a span: on paper, or as a table.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { lineQuery } from '../../api/queries';
  import { inAddress, intoAddress } from '../../shell/address';
  import Line from '../../shell/Line.svelte';
  import { p } from '../../shell/router';
  import { timeZone } from '../../units/format';
  import { farLengthText, fieldText, muchWeight, recipeWeight, typedAs } from '../../units/quantity';
  import { dayOf, daysLater, noonOf } from '../../units/days';
  import { words } from '../../words';
  import { textOf } from '../../words/said';

  const say = words.plan.shop;
  const AHEAD_DAYS = 28;
  const line = createQuery(lineQuery);
  let from = $state(inAddress('from') ?? dayOf(new Date(), timeZone()));
  let to = $state(inAddress('to') ?? dayOf(daysLater(new Date(), AHEAD_DAYS), timeZone()));
  let pack = $state(inAddress('pack') ?? ''); // the usual one, unless somebody says otherwise
  $effect(() => intoAddress({ from, to, pack: pack || null }, false));

  const query = $derived.by(() => {
    const [start, end] = [noonOf(from, timeZone()), noonOf(to, timeZone())];
    if (!start || !end) return null;
    // the whole of both days
    const span = { start: daysLater(start, -0.5), end: daysLater(end, 0.5) };
    if (!pack.trim()) return span;
    const culture_pack_g = typedAs('mass', pack);
    return culture_pack_g ? { ...span, culture_pack_g } : null;
  });
  const list = createQuery(() => ({
    queryKey: ['shopping', query],
    enabled: query !== null,
    queryFn: () => take(api.GET('/api/plans/shopping', { params: { query: query! } })),
    placeholderData: (before: Schema['ShoppingOut'] | undefined) => before,
  }));
  const file = $derived(
    query
      ? `/api/plans/shopping.csv?${new URLSearchParams(Object.entries(query).map(([key, value]) => [key, String(value)]))}`
      : '',
  );
  const amount = (line: Schema['ShoppingLine']): string => {
    if (line.unit === 'packs') return say.packs(line.amount);
    if (line.unit === 'pieces') return say.pieces(line.amount);
    if (line.unit === 'mm') return farLengthText(line.amount);
    return line.amount >= 1000 ? muchWeight(line.amount) : recipeWeight(line.amount);
  };
  const shelves = $derived(
    (Object.keys(say.goods) as (keyof typeof say.goods)[])
      .map((goods) => ({ goods, lines: (list.data?.lines ?? []).filter((one) => one.goods === goods) }))
      .filter((shelf) => shelf.lines.length),
  );
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="today" />{/if}
  <main class="mx-auto w-full max-w-4xl flex-1 overflow-y-auto px-5 pt-3 pb-16 max-md:px-3">
    <header class="flex flex-wrap items-baseline gap-x-5">
      <h1 class="font-tag text-3xl font-bold">{say.title}</h1>
      <p class="quiet">{say.hint}</p>
      <a
        class="ml-auto inline-flex min-h-11 items-center underline underline-offset-4 print:hidden"
        href={p('/ahead')}>{words.plan.title}</a
      >
    </header>
    <div class="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
      <label class="quiet"
        >{say.from} <input class="input min-h-11 w-40" type="date" bind:value={from} /></label
      >
      <label class="quiet">{say.to} <input class="input min-h-11 w-40" type="date" bind:value={to} /></label>
      <label class="quiet"
        >{say.pack}
        <input
          class="input min-h-11 w-20"
          inputmode="decimal"
          placeholder={fieldText('mass', list.data?.culture_pack_g ?? null)}
          bind:value={pack}
        /></label
      >
      <button class="btn min-h-11 print:hidden" onclick={() => print()}>{say.print}</button>
      {#if file}<a class="btn min-h-11 print:hidden" download href={file}>{say.file}</a>{/if}
    </div>
    {#if list.isError}<p class="text-error" role="alert">{list.error.message}</p>{/if}
    {#if list.data && !list.data.plans}<p class="mt-6 text-lg">{say.none}</p>{/if}
    {#each shelves as shelf (shelf.goods)}
      <h2 class="font-tag mt-5 text-lg font-semibold">{say.goods[shelf.goods]}</h2>
      <table class="w-full">
        <thead class="sr-only"><tr><th>{say.what}</th><th>{say.amount}</th><th>{say.batches}</th></tr></thead>
        <tbody>
          {#each shelf.lines as one (one.what)}
            <tr>
              <td class="w-10"><span class="box" aria-hidden="true"></span></td>
              <th scope="row">{textOf(one.what)}</th>
              <td class="amount">{amount(one)}</td>
              <td class="quiet"
                >{one.batches.join(', ')}{#if one.usual_trim}; {say.trim(one.usual_trim)}{/if}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    {/each}
  </main>
</div>

<style>
  th {
    text-align: left;
    font-weight: 600;
    width: 14rem;
  }
  td,
  th {
    padding: 0.4rem 0.6rem 0.4rem 0;
    vertical-align: baseline;
    border-bottom: 1px solid var(--color-base-300);
  }
  .amount {
    width: 7rem;
    text-align: right;
    padding-right: 1.4rem;
    white-space: nowrap;
  }
  .box {
    display: inline-block;
    width: 1rem;
    height: 1rem;
    border: 1.5px solid var(--quiet);
  }
  @media (max-width: 700px) {
    th {
      width: auto;
    }
    .amount {
      width: auto;
      padding-right: 0.6rem;
    }
  }
</style>
