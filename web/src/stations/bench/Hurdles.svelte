<script lang="ts">
  // The ledger of a batch: every hurdle, its value beside its limit, how it is known, and what would settle it.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';

  import { head } from '../../api/entry';
  import { session } from '../../shell/session.svelte';
  import { tidyNumber } from '../../units/format';
  import { words } from '../../words/en';
  import Evidence from './Evidence.svelte';
  import KeepingTable from './KeepingTable.svelte';

  let { batch }: { batch: number } = $props();
  const say = words.bench.hurdles;
  const client = useQueryClient();
  const key = $derived(['ledger', batch]);
  const ledger = createQuery(() => ({
    queryKey: key,
    queryFn: () =>
      take(api.GET('/api/batches/{batch_id}/hurdles', { params: { path: { batch_id: batch } } })),
  }));
  let signing = $state<string | null>(null);
  let reason = $state('');
  const marks = { pass: '✓', fail: '✕', pending: '…', unknown: '?' } as const;

  async function sign(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!signing) return;
    try {
      const answer = await take(
        api.POST('/api/batches/{batch_id}/signatures', {
          params: { path: { batch_id: batch } },
          body: { hurdle: signing, reason, ...head() },
        }),
      );
      client.setQueryData(key, answer);
      signing = null;
      reason = '';
    } catch (error) {
      session.complain(error);
    }
  }
  const shown = (value: number | string | null): string =>
    value === null ? '' : typeof value === 'number' ? tidyNumber(value, 2) : value;
</script>

<section class="mt-6" aria-label={say.title}>
  <h2 class="font-tag text-xl font-semibold">{say.title}</h2>
  {#if ledger.data}
    {@const found = ledger.data.ledger}
    <p class:text-success={found.ready} class:quiet={!found.ready}>
      {found.ready ? say.ready : say.notReady}
    </p>
    {#each found.why.filter((why) => why.startsWith('thrown away') || why.startsWith('held')) as why (why)}
      <p class="text-error font-semibold first-letter:uppercase">{why}</p>
    {/each}
    <ul>
      {#each found.hurdles as hurdle (hurdle.name)}
        <li class={hurdle.signed_by ? 'signed' : hurdle.state}>
          <span class="mark" aria-hidden="true">{marks[hurdle.state]}</span>
          <span class="what">
            <strong>{say.names[hurdle.name] ?? hurdle.name}</strong>
            <span class="state">{say.states[hurdle.state]}</span>
            {#if hurdle.value !== null}{shown(hurdle.value)} {hurdle.unit}{/if}
            <span class="quiet text-sm">{hurdle.limit}, {hurdle.known}</span>
            {#if hurdle.caution}<span class="text-warning block">{hurdle.caution}</span>{/if}
            {#if hurdle.signed_by}
              <span class="block">{say.signed(hurdle.signed_by, hurdle.signed_reason ?? '')}</span>
            {:else if hurdle.says}<span class="quiet block first-letter:uppercase">{hurdle.says}</span>{/if}
            {#if signing === hurdle.name}
              <form class="mt-1 flex flex-wrap gap-2" onsubmit={sign}>
                <input
                  class="input min-h-11 grow text-base"
                  aria-label={say.signWhy}
                  placeholder={say.signWhy}
                  required
                  bind:value={reason}
                />
                <button class="btn min-h-11">{say.sign}</button>
              </form>
            {/if}
          </span>
          {#if hurdle.state === 'unknown' && !hurdle.signed_by && signing !== hurdle.name && hurdle.name !== 'keeping'}
            <button
              class="min-h-11 underline underline-offset-4"
              onclick={() => {
                signing = hurdle.name;
                reason = '';
              }}>{say.sign}</button
            >
          {/if}
        </li>
      {/each}
    </ul>
    <p class="quiet mt-1 text-sm">{say.law}</p>
    <Evidence {batch} data={ledger.data} took={(answer) => client.setQueryData(key, answer)} />
    {#if ledger.data.keeping.length}<KeepingTable
        keeping={ledger.data.keeping}
        by={ledger.data.keeping_by}
      />{/if}
  {:else if ledger.isError}
    <p class="text-error" role="alert">{ledger.error.message}</p>
  {/if}
</section>

<style>
  li {
    display: flex;
    align-items: flex-start;
    gap: 0.7rem;
    padding: 0.35rem 0;
    border-top: 1px solid var(--color-base-300);
  }
  .what {
    flex: 1;
  }
  .mark {
    display: grid;
    place-items: center;
    width: 1.5rem;
    height: 1.5rem;
    flex: none;
    border: 1.5px solid currentColor;
    border-radius: 50%;
    font-weight: 700;
    font-size: 0.9rem;
  }
  .pass .mark {
    color: var(--color-success);
  }
  .pass .state,
  .pending .state {
    color: var(--quiet);
  }
  .fail .mark,
  .fail .state {
    color: var(--color-error);
    font-weight: 600;
  }
  .unknown .mark,
  .unknown .state {
    color: var(--color-warning);
    font-weight: 600;
  }
  .signed .mark {
    color: var(--color-info);
  }
</style>
