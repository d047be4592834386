<script lang="ts">
  // What is wrong now, over every page, until somebody takes care and it is over.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { lineQuery } from '../api/queries';
  import { takeCare } from '../stations/house/alarms/care';
  import { words } from '../words';
  import { said } from '../words/said';
  import { door } from './door.svelte';
  import { p } from './router';

  const say = words.alarms;
  const client = useQueryClient();
  const line = createQuery(() => ({ ...lineQuery(), enabled: !door.shut }));
  // one line whatever there is: the worst that nobody has seen, else the worst that goes on; the rest is a touch away
  const open = $derived((line.data?.alarms ?? []).filter((one) => !(one.ended && one.acknowledged_by)));
  const unseen = $derived(open.filter((one) => !one.acknowledged_by));
  const first = $derived(unseen[0] ?? open[0]);
  const more = $derived(open.length - 1);
</script>

{#if first}
  {@const loud = first.urgent && !first.acknowledged_by}
  <p
    class="flex items-center gap-x-4 px-4 text-base print:hidden"
    class:bg-error={loud}
    class:text-error-content={loud}
    class:bg-warning={!loud}
    class:text-warning-content={!loud}
    role={loud ? 'alert' : 'status'}
  >
    <a
      class="inline-flex min-h-11 min-w-0 items-center font-semibold underline underline-offset-4"
      href={first.link}>{said(first.title)}{first.ended ? ` (${say.over})` : ''}</a
    >
    {#if first.acknowledged_by}<span>{say.takenBy(first.acknowledged_by)}</span>
    {:else}<button
        class="min-h-11 shrink-0 font-semibold underline underline-offset-4"
        onclick={() => void takeCare(client, first.id)}>{say.take}</button
      >{/if}
    {#if more}<a
        class="ml-auto inline-flex min-h-11 shrink-0 items-center underline underline-offset-4"
        href={p('/house/alarms')}>{say.more(more)}</a
      >{/if}
  </p>
{/if}
