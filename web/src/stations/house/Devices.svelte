<script lang="ts">
  // Every device of the workshop: where it stands, what it sent, switched off or given a new token.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { keys, lineQuery } from '../../api/queries';
  import { door } from '../../shell/door.svelte';
  import { session } from '../../shell/session.svelte';
  import { age, fullDay } from '../../units/format';
  import { words } from '../../words';
  import HousePage from './HousePage.svelte';
  import NewDevice from './NewDevice.svelte';

  const say = words.house;
  const facts = words.placeFacts;
  const client = useQueryClient();
  const line = createQuery(lineQuery);
  const devices = createQuery(() => ({
    queryKey: keys.devices,
    queryFn: () => take(api.GET('/api/devices')),
    refetchInterval: 30_000,
  }));
  const broker = createQuery(() => ({
    queryKey: keys.broker,
    queryFn: () => take(api.GET('/api/devices/broker')),
    refetchInterval: 10_000,
  }));
  const now = $derived(new Date(line.data?.now ?? Date.now()).getTime());
  const keeps = $derived(door.keepsHouse);
  let token = $state<{ name: string; token: string } | null>(null);

  async function change(
    call: Promise<{ data?: unknown; error?: unknown; response: Response }>,
  ): Promise<void> {
    try {
      const told = await take(call);
      if (told && typeof told === 'object' && 'token' in told) {
        const made = told as Schema['DeviceMade'];
        token = { name: made.device.name, token: made.token };
      }
      void client.invalidateQueries({ queryKey: keys.devices });
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<HousePage here="devices" hint={say.devicesHint}>
  {#if broker.data}<p class="max-w-3xl" class:text-error={broker.data.state === 'away'}>
      {say.broker[broker.data.state](broker.data.where ?? '')}
      {#if broker.data.since && broker.data.state !== 'none'}<span class="quiet"
          >{say.brokerTold(age(broker.data.since, now), broker.data.messages, broker.data.refused)}</span
        >{/if}
      {#if broker.data.trouble}<span class="quiet">({broker.data.trouble})</span>{/if}
    </p>{/if}
  {#if token}<p class="shown" role="status">
      <strong>{say.tokenOf(token.name)}</strong> <code class="break-all">{token.token}</code>
    </p>{/if}
  <ul class="mt-3 max-w-5xl">
    {#each devices.data ?? [] as one (one.id)}
      <li class="device" class:off={one.ended_at !== null}>
        <span class="min-w-0">
          <strong class="block text-lg">{one.name}</strong>
          <span class="quiet">{facts.kinds[one.kind]}{one.simulated ? `, ${facts.simulated}` : ''}</span>
        </span>
        <span class="min-w-0">
          <span class="block" class:text-error={one.silent}
            >{one.ended_at
              ? say.offSince(fullDay(one.ended_at), one.ended_by ?? '')
              : one.last_at
                ? (one.silent ? `${facts.silent}, ` : '') + facts.heard(age(one.last_at, now))
                : facts.notHeard}</span
          >
          <span class="quiet text-sm">{facts.sent(one.taken, one.late, one.repeated, one.impossible)}</span>
        </span>
        <span class="flex flex-wrap items-center justify-end gap-x-4 max-md:justify-start">
          {#if one.place !== null}
            <select
              class="select min-h-11 w-40"
              aria-label={say.placeOf(one.name)}
              disabled={!keeps}
              value={line.data?.places.find((place) => place.name === one.place)?.id}
              onchange={(event) =>
                void change(
                  api.PUT('/api/devices/{device_id}/place', {
                    params: { path: { device_id: one.id } },
                    body: { place_id: Number(event.currentTarget.value), by: session.who },
                  }),
                )}
            >
              {#each line.data?.places ?? [] as place (place.id)}<option value={place.id}>{place.name}</option
                >{/each}
            </select>
          {/if}
          {#if keeps}
            <button
              class="min-h-11 underline underline-offset-4"
              onclick={() =>
                void change(
                  api.POST('/api/devices/{device_id}/token', {
                    params: { path: { device_id: one.id } },
                    body: { by: session.who },
                  }),
                )}>{one.ended_at ? say.onAgain : say.newToken}</button
            >
            {#if !one.ended_at}<button
                class="min-h-11 underline underline-offset-4"
                onclick={() =>
                  void change(
                    api.POST('/api/devices/{device_id}/end', {
                      params: { path: { device_id: one.id } },
                      body: { by: session.who },
                    }),
                  )}>{say.switchOff}</button
              >{/if}
          {/if}
        </span>
      </li>
    {:else}
      {#if devices.data}<li class="text-lg">{say.noDevices}</li>{/if}
    {/each}
  </ul>
  {#if keeps}<NewDevice places={line.data?.places ?? []} {change} />{/if}
</HousePage>

<style>
  .device {
    display: grid;
    grid-template-columns: 15rem minmax(0, 1fr) 25rem;
    gap: 0.3rem 1.6rem;
    align-items: center;
    padding: 0.6rem 0;
    border-bottom: 1px solid var(--color-base-300);
  }
  .off strong {
    text-decoration: line-through;
  }
  .shown {
    max-width: 60rem;
    margin-top: 0.8rem;
    padding: 0.7rem 1rem;
    border-left: 4px solid var(--color-primary);
    background: var(--paper);
  }
  @media (max-width: 900px) {
    .device {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
