<script lang="ts">
  // From the shop to the plate: what was there at each step, drawn as it shrinks, and what a kilogram cost.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { head } from '../../api/entry';
  import Field from '../../forms/Field.svelte';
  import Reason from '../../forms/Reason.svelte';
  import { session } from '../../shell/session.svelte';
  import { percent } from '../../units/format';
  import { numberText, typedNumber } from '../../units/number';
  import { priceText, weightText } from '../../units/quantity';
  import { words } from '../../words';

  let { batch }: { batch: number } = $props();
  const say = words.stock.yields;
  const client = useQueryClient();
  const key = $derived(['yield', batch]);
  const found = createQuery(() => ({
    queryKey: key,
    queryFn: () => take(api.GET('/api/batches/{batch_id}/yield', { params: { path: { batch_id: batch } } })),
  }));
  let kind = $state<Schema['CostIn']['kind']>('casing');
  let amount = $state('');
  let striking = $state<number | null>(null);
  const money = (amount: number): string => numberText(amount, 2);

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const value = typedNumber(amount);
    if (value === null) return;
    try {
      const body = { ...head(), kind, amount: value, note: '' };
      const params = { path: { batch_id: batch } };
      client.setQueryData(key, await take(api.POST('/api/batches/{batch_id}/costs', { params, body })));
      amount = '';
    } catch (error) {
      session.complain(error);
    }
  }
  async function strike(reason: string): Promise<void> {
    if (striking === null) return;
    const params = { path: { cost_id: striking } };
    striking = null;
    try {
      const body = { reason, by: session.who };
      client.setQueryData(key, await take(api.POST('/api/costs/{cost_id}/strike', { params, body })));
    } catch (error) {
      session.complain(error);
    }
  }
</script>

{#if found.data}
  <section aria-label={say.title}>
    <h2 class="font-tag text-xl font-semibold">{say.title}</h2>
    <p class="quiet">{say.pieces(found.data.pieces, found.data.discarded)}</p>
    <dl class="yield">
      {#each found.data.steps as step (step.step)}
        <dt>{say.steps[step.step]}</dt>
        <dd>
          <i style:width={`${100 * (step.share ?? 0)}%`}></i>
          <span
            >{step.grams === null ? say.unknown : weightText(step.grams)}
            {#if step.share !== null}<small>{percent(100 * step.share, 0)}</small>{/if}</span
          >
        </dd>
      {/each}
    </dl>
    <p class="mt-2">
      {say.ingredients}
      {found.data.ingredients_cost === null ? say.noPrices : money(found.data.ingredients_cost)}
    </p>
    <ul>
      {#each found.data.costs as cost (cost.id)}
        <li>
          <span class:line-through={cost.struck_reason !== null}
            >{say.kinds[cost.kind]} {money(cost.amount)}</span
          >
          <span class="quiet">{cost.note} {cost.by}</span>
          {#if cost.struck_reason === null}<button
              class="quiet min-h-8 underline"
              onclick={() => (striking = cost.id)}>{words.stock.strike}</button
            >{:else}<span class="quiet">{say.struck(cost.struck_reason)}</span>{/if}
        </li>
      {/each}
    </ul>
    {#if found.data.cost_per_finished_kg !== null}<p>
        <strong>{priceText(found.data.cost_per_finished_kg)}</strong>
        {say.perFinished}{#if found.data.cost_per_usable_kg !== null},
          <strong>{priceText(found.data.cost_per_usable_kg)}</strong>
          {say.perUsable}{/if}
      </p>{/if}
    {#if striking !== null}<Reason
        label={words.stock.strikeWhy}
        button={words.stock.strike}
        onanswer={(why) => void strike(why)}
      />{/if}
    <form class="mt-1 flex flex-wrap items-end gap-2 print:hidden" onsubmit={add} aria-label={say.add}>
      <select class="select min-h-11 w-32" aria-label={say.add} bind:value={kind}>
        {#each Object.entries(say.kinds) as [value, name] (value)}<option {value}>{name}</option>{/each}
      </select>
      <div class="w-28"><Field label={say.amount} numeric bind:value={amount} /></div>
      <button class="btn min-h-11" disabled={!amount.trim()}>{say.add}</button>
    </form>
  </section>
{/if}

<style>
  .yield {
    display: grid;
    grid-template-columns: max-content minmax(0, 34rem);
    align-items: center;
    gap: 0.2rem 0.8rem;
    margin-top: 0.3rem;
  }
  dd {
    position: relative;
    display: flex;
    align-items: center;
    min-height: 1.7rem;
  }
  dd i {
    position: absolute;
    inset: 2px auto 2px 0;
    border-radius: 2px 8px 8px 2px;
    background: color-mix(in oklab, var(--meat-fresh), transparent 45%);
  }
  dd span {
    position: relative;
    padding-left: 0.4rem;
  }
</style>
