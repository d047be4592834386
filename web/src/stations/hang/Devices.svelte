<script lang="ts">
  // The devices of the workshop: what they sent, which are silent; one more made known.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { type Answer, api, type Schema, take } from '../../api/client';

  import { keys } from '../../api/queries';

  import { session } from '../../shell/session.svelte';
  import { age, dayAndTime } from '../../units/format';
  import { words } from '../../words';
  import NewDevice from '../house/NewDevice.svelte';

  let {
    place,
    placeName,
    now,
    simulated,
  }: { place: number; placeName: string; now: number; simulated: boolean } = $props();
  const say = words.placeFacts;
  const client = useQueryClient();
  const devices = createQuery(() => ({
    queryKey: keys.devices,
    queryFn: () => take(api.GET('/api/devices')),
    refetchInterval: 30_000,
  }));
  const mine = $derived((devices.data ?? []).filter((one) => one.place === null || one.place === placeName));
  let token = $state<string | null>(null);
  let busy = $state(false);

  async function change(call: Promise<Answer<Schema['DeviceMade']>>): Promise<void> {
    try {
      token = (await take(call)).token;
      void client.invalidateQueries({ queryKey: keys.devices });
    } catch (error) {
      session.complain(error);
    }
  }
  /** How far time was run ahead; stays to be read. */
  let ran = $state<string | null>(null);
  async function forward(hours: number): Promise<void> {
    busy = true;
    try {
      const done = await take(api.POST('/api/standins/forward', { body: { hours } }));
      await client.invalidateQueries();
      ran = say.ran(dayAndTime(done.now), done.readings);
    } catch (error) {
      session.complain(error);
    } finally {
      busy = false;
    }
  }
</script>

<section class="mt-6 max-w-3xl" aria-label={say.devices}>
  <h2 class="font-tag text-xl font-semibold">{say.devices}</h2>
  <ul>
    {#each mine as one (one.id)}
      <li class="flex flex-wrap gap-x-3 py-0.5">
        <strong>{one.name}</strong>
        <span class="quiet">{[one.place, say.kinds[one.kind]].filter(Boolean).join(', ')}</span>
        {#if one.simulated}<span class="text-info">{say.simulated}</span>{/if}
        <span class:text-error={one.silent} class:quiet={!one.silent}
          >{one.last_at
            ? (one.silent ? `${say.silent}, ` : '') + say.heard(age(one.last_at, now))
            : say.notHeard}</span
        >
        <span class="quiet">{say.sent(one.taken, one.late, one.repeated, one.impossible)}</span>
      </li>
    {/each}
  </ul>
  <NewDevice places={[{ id: place, name: placeName }]} {change} />
  {#if token}<p class="mt-1 break-all" role="status">{say.token(token)}</p>{/if}
  {#if simulated}
    <p class="quiet mt-4">{say.forwardHint}</p>
    <div class="flex gap-2">
      {#each Object.entries(say.hours) as [hours, text] (hours)}
        <button class="btn min-h-11" disabled={busy} onclick={() => void forward(Number(hours))}
          >{say.forward}: {text}</button
        >
      {/each}
    </div>
    <p class="mt-2" role="status">{ran ?? ''}</p>
  {/if}
</section>
