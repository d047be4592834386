<script lang="ts">
  // What was done to a piece, newest first; a wrong entry is struck through with a reason.
  import type { Schema } from '../../api/client';
  import Reason from '../../forms/Reason.svelte';
  import { dayAndTime } from '../../units/format';
  import { tidyNumber } from '../../units/number';
  import { temperatureText, weightText } from '../../units/quantity';
  import { words } from '../../words';
  import type { SaltDesk } from './saltdesk.svelte';

  let { events, desk }: { events: Schema['SaltEventOut'][]; desk: SaltDesk } = $props();
  const say = words.salt;
  let striking = $state<number | null>(null);

  function more(event: Schema['SaltEventOut']): string {
    const parts: string[] = [];
    if (event.value !== null)
      parts.push(
        event.kind === 'check'
          ? temperatureText(event.value)
          : event.kind === 'soak'
            ? `${tidyNumber(event.value, 1)} h`
            : weightText(event.value),
      );
    if (event.percent !== null) parts.push(`${tidyNumber(event.percent, 2)} %`);
    if (event.place) parts.push([event.place, event.container].filter(Boolean).join(', '));
    if (event.note) parts.push(event.note);
    return parts.join(' · ');
  }
  async function strike(reason: string): Promise<void> {
    if (striking !== null && (await desk.strike(striking, reason))) striking = null;
  }
</script>

<section class="mt-4" aria-label={say.events}>
  <h3 class="font-tag text-lg font-semibold">{say.events}</h3>
  <ul class="text-sm">
    {#each events as event (event.id)}
      <li class="py-1">
        <div class="flex items-baseline gap-2">
          <span class="quiet w-28 flex-none">{dayAndTime(event.at)}</span>
          <span class="flex-1" class:line-through={event.struck_reason !== null}>
            <strong class="font-semibold">{say.kinds[event.kind]}</strong>
            {more(event)} <span class="quiet">{event.by}</span>
          </span>
          {#if event.struck_reason === null && event.kind !== 'in'}
            <button class="quiet min-h-8 underline underline-offset-4" onclick={() => (striking = event.id)}
              >{say.strike}</button
            >
          {/if}
        </div>
        {#if event.struck_reason !== null}<p class="quiet pl-30">
            {say.struck(event.struck_by ?? '', event.struck_reason)}
          </p>{/if}
        {#if striking === event.id}
          <Reason label={say.strikeWhy} button={say.strike} onanswer={(reason) => void strike(reason)} />
        {/if}
      </li>
    {/each}
  </ul>
</section>
