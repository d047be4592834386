<script lang="ts">
  // The ledger of a batch, small: a mark for every hurdle, and what stands against it in words.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, take } from '../api/client';
  import { p } from '../shell/router';
  import { words } from '../words/en';

  let { batch }: { batch: number } = $props();
  const say = words.bench.hurdles;
  const ledger = createQuery(() => ({
    queryKey: ['ledger', batch],
    queryFn: () =>
      take(api.GET('/api/batches/{batch_id}/hurdles', { params: { path: { batch_id: batch } } })),
    retry: false,
  }));
  const marks = { pass: '✓', fail: '✕', pending: '…', unknown: '?' } as const;
  // what stands against it is the ledger's to say; what is only pending comes with time
  const against = $derived(
    (ledger.data?.ledger.hurdles ?? []).filter(
      (h) => h.state !== 'pending' && ledger.data?.ledger.why.some((why) => why.startsWith(`${h.name}:`)),
    ),
  );
  const named = (name: string): string => say.names[name] ?? name;
</script>

{#if ledger.data}
  <a class="marks" href={p('/bench/batch/:id', { params: { id: String(batch) } })} aria-label={say.title}>
    <span class="quiet">{say.title}</span>
    {#each ledger.data.ledger.hurdles as hurdle (hurdle.name)}
      <span
        class={hurdle.signed_by ? 'signed' : hurdle.state}
        title={`${named(hurdle.name)}: ${say.states[hurdle.state]}`}
        ><span aria-hidden="true">{marks[hurdle.state]}</span><span class="sr-only"
          >{named(hurdle.name)} {say.states[hurdle.state]}</span
        ></span
      >
    {/each}
  </a>
  {#if against.length}
    <p class="text-sm">
      {say.against}
      {#each against as hurdle, i (hurdle.name)}{i ? ', ' : ' '}<span class={hurdle.state}
          >{named(hurdle.name)}</span
        >{/each}
    </p>
  {/if}
{/if}

<style>
  .marks {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem;
    min-height: 44px;
  }
  .marks > span:not(.quiet) {
    display: grid;
    place-items: center;
    width: 1.35rem;
    height: 1.35rem;
    border: 1.5px solid currentColor;
    border-radius: 50%;
    font-weight: 700;
    font-size: 0.8rem;
  }
  .pass {
    color: var(--color-success);
  }
  .fail {
    color: var(--color-error);
    font-weight: 600;
  }
  .unknown {
    color: var(--color-warning);
    font-weight: 600;
  }
  .signed {
    color: var(--color-info);
  }
</style>
