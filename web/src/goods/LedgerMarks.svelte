<script lang="ts">
  // The ledger of a batch, small: a mark for every hurdle, and what stands against it in words.
  import { createQuery } from '@tanstack/svelte-query';

  import { ledgerQuery } from '../api/queries';
  import { p } from '../shell/router';
  import { words } from '../words';
  import HurdleMark from './HurdleMark.svelte';

  let { batch }: { batch: number } = $props();
  const say = words.ledger;
  const ledger = createQuery(() => ({ ...ledgerQuery(batch), retry: false }));
  // what stands against it is the ledger's to say; what is only pending comes with time
  const against = $derived((ledger.data?.hurdles ?? []).filter((h) => h.blocks && h.state !== 'pending'));
  const named = (name: string): string => say.names[name] ?? name;
</script>

{#if ledger.data}
  <a class="marks" href={p('/bench/batch/:id/against', { params: { id: String(batch) } })} title={say.title}>
    <span class="sr-only">{say.title}</span>
    <span class="quiet">{say.short}</span>
    {#each ledger.data.hurdles as hurdle (hurdle.name)}
      <span title={`${named(hurdle.name)}: ${say.states[hurdle.state]}`}
        ><HurdleMark
          state={hurdle.state}
          cautious={hurdle.cautions.length > 0}
          signed={hurdle.signed !== null && !hurdle.blocks}
          blocks={hurdle.blocks}
          known={hurdle.known}
        /><span class="sr-only">{named(hurdle.name)} {say.states[hurdle.state]}</span></span
      >
    {/each}
  </a>
  {#if ledger.data.verdict === 'held' && against.length}
    <p class="text-sm">
      {say.verdicts.held}:
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
    gap: 0.35rem;
    min-height: 44px;
  }
  .fail {
    color: var(--color-error);
    font-weight: 600;
  }
  .unknown {
    color: var(--color-warning);
    font-weight: 600;
  }
</style>
