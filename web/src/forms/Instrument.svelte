<script lang="ts">
  // What a scale or meter shows, beside the field it fills: how old it is, and held until it has come to rest.
  import { createQuery } from '@tanstack/svelte-query';
  import { onMount } from 'svelte';

  import { kindsQuery, lineQuery, showingQuery } from '../api/queries';
  import { atRest, serialScale } from '../api/serial.svelte';
  import { session } from '../shell/session.svelte';
  import { numberText } from '../units/number';
  import { weightText } from '../units/quantity';
  import { words } from '../words';

  interface Props {
    kind: 'scale' | 'ph';
    onvalue: (value: number) => void;
    /** Where the workshop is simulated: lets the simulated instrument send what it would show. */
    simulate?: () => Promise<number | null>;
    /** Whether a scale on a cable can be connected here. */
    cable?: boolean;
  }
  let { kind, onvalue, simulate, cable = false }: Props = $props();
  const say = words.instruments;
  const line = createQuery(lineQuery);
  const kinds = createQuery(() => kindsQuery());
  const showing = createQuery(() => showingQuery());
  let now = $state(Date.now());
  let waits = $state(false);
  let busy = $state(false);
  onMount(() => {
    const tick = setInterval(() => (now = Date.now()), 1000);
    return () => clearInterval(tick);
  });

  const when = $derived(kinds.data?.find((one) => one.kind === kind)?.steady_when ?? null);
  const sent = $derived(
    (showing.data ?? []).find((one) => one.kind === kind && !(one.simulated && simulate)),
  );
  const wired = $derived(kind === 'scale' && serialScale.state === 'on' ? serialScale.last : null);
  const shown = $derived(
    wired
      ? {
          name: say.wired,
          value: wired.grams,
          age: Math.max(0, (now - wired.at) / 1000),
          steady: when !== null && atRest(serialScale.shown, when),
        }
      : sent
        ? {
            name: sent.name,
            value: sent.value,
            age: sent.age_s + Math.max(0, (now - showing.dataUpdatedAt) / 1000),
            steady: sent.steady,
          }
        : null,
  );
  const text = (value: number): string =>
    kind === 'scale' ? weightText(value) : `pH ${numberText(value, 2)}`;

  $effect(() => {
    if (!waits || !shown?.steady) return;
    waits = false;
    onvalue(shown.value);
  });

  async function send(): Promise<void> {
    busy = true;
    try {
      const value = await simulate?.();
      if (value != null) onvalue(value);
    } catch (error) {
      session.complain(error);
    } finally {
      busy = false;
    }
  }
</script>

{#if shown || (cable && serialScale.offered) || (simulate && line.data?.simulated)}
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
    {#if shown}
      <span
        >{shown.name}: <strong class="font-tag text-lg">{text(shown.value)}</strong>
        <span class="quiet">{say.ago(shown.age)}{shown.steady ? `, ${say.steady}` : ''}</span></span
      >
      {#if waits}
        <button type="button" class="btn btn-sm min-h-11" onclick={() => (waits = false)}
          >{say.waiting}</button
        >
      {:else}
        <button
          type="button"
          class="btn btn-sm min-h-11"
          onclick={() => (shown.steady ? onvalue(shown.value) : (waits = true))}
          >{shown.steady ? say.take : say.hold}</button
        >
      {/if}
    {/if}
    {#if simulate && line.data?.simulated}
      <button type="button" class="btn btn-sm min-h-11" disabled={busy} onclick={() => void send()}
        >{kind === 'scale' ? words.standins.scale : words.standins.meter}
        <span class="text-info font-normal">{words.placeFacts.simulated}</span></button
      >
    {/if}
    {#if cable && kind === 'scale' && serialScale.offered}
      {#if serialScale.state === 'on'}
        <button
          type="button"
          class="min-h-11 text-sm underline underline-offset-4"
          onclick={() => void serialScale.disconnect()}>{say.disconnect}</button
        >
        {#if !wired}<span class="quiet text-sm">{say.listens}</span>{/if}
      {:else}
        <button
          type="button"
          class="min-h-11 text-sm underline underline-offset-4"
          onclick={() => void serialScale.connect().catch(() => session.say(say.notConnected))}
          >{say.connect}</button
        >
        {#if serialScale.state === 'lost'}<span class="text-warning text-sm">{say.lost}</span>{/if}
      {/if}
    {/if}
  </div>
{/if}
