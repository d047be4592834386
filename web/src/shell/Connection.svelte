<script lang="ts">
  // A strip over every page while there is no connection: of when the page is, and what still waits to be sent.
  import { createQuery } from '@tanstack/svelte-query';

  import { lineQuery } from '../api/queries';
  import { outbox } from '../stations/hang/outbox.svelte';
  import { dayAndTime } from '../units/format';
  import { words } from '../words';
  import { door } from './door.svelte';
  import { connection } from './connection.svelte';

  const waits = $derived(outbox.cut ? outbox.waiting.length : 0);
  const others = $derived(outbox.waiting.filter((entry) => !door.sendsFor(entry.by)));
  const names = $derived([...new Set(others.map((entry) => entry.by))].join(', '));
  const line = createQuery(() => ({ ...lineQuery(), enabled: !door.shut }));
  const trouble = $derived(line.data?.trouble ?? null);
</script>

<svelte:window ononline={() => void outbox.send()} />

{#if trouble}
  <p class="bg-error text-error-content px-4 py-1 text-base print:hidden" role="alert">
    {words.house.trouble[trouble]}
  </p>
{/if}
{#if others.length && !door.shut}
  <p class="bg-warning text-warning-content px-4 py-1 text-base print:hidden" role="status">
    {words.house.waitsFor(others.length, names)}
  </p>
{/if}
{#if connection.keptAt || waits}
  <p class="bg-warning text-warning-content px-4 py-1 text-base print:hidden" role="status">
    {#if connection.keptAt}{words.noConnection(dayAndTime(connection.keptAt))}{/if}
    {#if waits}<strong>{words.round.waiting(waits)}</strong>{/if}
  </p>
{/if}
