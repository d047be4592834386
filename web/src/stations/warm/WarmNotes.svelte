<script lang="ts">
  // Readings and what was done, newest first; what is done with one touch; thrown away only with a reason.
  import type { Schema } from '../../api/client';
  import Reason from '../../forms/Reason.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { timeOfDay } from '../../units/format';
  import { numberText } from '../../units/number';
  import { temperatureText } from '../../units/quantity';
  import { words } from '../../words';
  import { said } from '../../words/said';
  import type { WarmDesk } from './warmdesk.svelte';

  let { detail, desk }: { detail: Schema['WarmDetail']; desk: WarmDesk } = $props();
  const say = words.warm;
  let striking = $state<{ what: 'reading' | 'event'; id: number } | null>(null);
  let throwing = $state(false);
  const touches = ['mould', 'vinegar', 'spray', 'cool', 'hang'] as const;

  const moment = new Moment();
  async function note(kind: (typeof touches)[number]): Promise<void> {
    if (await desk.note(kind, '', moment)) moment.clear();
  }
  async function strike(reason: string): Promise<void> {
    if (striking) await desk.strike(striking.what, striking.id, reason);
    striking = null;
  }
  async function discard(reason: string): Promise<void> {
    if (await desk.note('discard', reason, moment)) throwing = false;
  }
</script>

{#if !detail.card.ended_at}
  <section class="mt-4" aria-label={say.done}>
    <h3 class="font-tag text-lg font-semibold">{say.done}</h3>
    <div class="flex flex-wrap gap-2">
      {#each touches as kind (kind)}
        <button class="btn btn-sm min-h-11" onclick={() => void note(kind)}>{say.events[kind]}</button>
      {/each}
      <button class="btn btn-sm text-error min-h-11" onclick={() => (throwing = !throwing)}
        >{say.discard}</button
      >
    </div>
    <When when={moment} />
    {#if throwing}
      <Reason label={say.discardWhy} button={say.discard} grave onanswer={(reason) => void discard(reason)} />
    {/if}
  </section>
{/if}
<section class="mt-4" aria-label={say.readings}>
  <h3 class="font-tag text-lg font-semibold">{say.readings}</h3>
  <ul class="text-sm">
    {#each detail.readings as reading (reading.id)}
      <li class="flex items-baseline gap-3 py-0.5">
        <span class="quiet w-24 flex-none">{timeOfDay(reading.at)}</span>
        <strong class="w-10" class:line-through={reading.struck_reason !== null}
          >{numberText(reading.ph, 2)}</strong
        >
        <span class="quiet flex-1"
          >{[
            reading.sample_c === null ? '' : temperatureText(reading.sample_c, 0),
            reading.meter ?? '',
            reading.by,
          ]
            .filter(Boolean)
            .join(', ')}
          {#if reading.warnings.length}<span class="text-warning"
              >{reading.warnings.map(said).join('; ')}</span
            >{/if}
          {#if reading.struck_reason !== null}{say.struck(reading.struck_reason)}{/if}</span
        >
        {#if reading.struck_reason === null}
          <button
            class="quiet min-h-8 underline"
            onclick={() => (striking = { what: 'reading', id: reading.id })}>{say.strike}</button
          >
        {/if}
      </li>
    {/each}
    {#each detail.events as event (event.id)}
      <li class="flex items-baseline gap-3 py-0.5">
        <span class="quiet w-24 flex-none">{timeOfDay(event.at)}</span>
        <span class="flex-1"
          ><span class:line-through={event.struck_reason !== null}
            ><strong>{say.events[event.kind]}</strong> {event.note}</span
          >
          <span class="quiet"
            >{event.by}
            {#if event.struck_reason !== null}{say.struck(event.struck_reason)}{/if}</span
          ></span
        >
        {#if event.struck_reason === null}
          <button class="quiet min-h-8 underline" onclick={() => (striking = { what: 'event', id: event.id })}
            >{say.strike}</button
          >
        {/if}
      </li>
    {/each}
  </ul>
  {#if striking}
    <Reason label={say.strikeWhy} button={say.strike} onanswer={(reason) => void strike(reason)} />
  {/if}
</section>
