<script lang="ts">
  // A strip over every page while there is no connection: of when the page is, and what still waits to be sent.
  import { outbox } from '../stations/hang/outbox.svelte';
  import { dayAndTime } from '../units/format';
  import { words } from '../words/en';
  import { connection } from './connection.svelte';

  const waits = $derived(outbox.cut ? outbox.waiting.length : 0);
</script>

<svelte:window ononline={() => void outbox.send()} />

{#if connection.keptAt || waits}
  <p class="bg-warning text-warning-content px-4 py-1 text-base print:hidden" role="status">
    {#if connection.keptAt}{words.noConnection(dayAndTime(connection.keptAt))}{/if}
    {#if waits}<strong>{words.round.waiting(waits)}</strong>{/if}
  </p>
{/if}
