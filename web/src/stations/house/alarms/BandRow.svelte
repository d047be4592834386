<script lang="ts">
  // What is watched at a place, in a line; changed in a row of fields.
  import { useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';

  import { api, type Schema, take } from '../../../api/client';

  import { keys } from '../../../api/queries';
  import { head } from '../../../api/entry';
  import Field from '../../../forms/Field.svelte';
  import { optionalAs, optionalNumber } from '../../../forms/typed';
  import { takesFocus } from '../../../keys/focus';
  import { session } from '../../../shell/session.svelte';
  import { fieldText, unit } from '../../../units/quantity';
  import { words } from '../../../words';

  let { band }: { band: Schema['BandOut'] } = $props();
  const say = words.alarms;
  const client = useQueryClient();
  let open = $state(false);
  const set = $derived(band.by !== null);
  const text = (value: number | null | undefined): string => value?.toString() ?? '';
  const from = $derived(set ? band : { ...band, ...band.usual });
  let fields = $state(untrack(() => typed()));

  function typed() {
    const watched = band.by !== null ? band : { ...band, ...band.usual };
    return {
      low_c: fieldText('temperature', watched.low_c ?? null),
      high_c: fieldText('temperature', watched.high_c ?? null),
      low_rh: text(watched.low_rh),
      high_rh: text(watched.high_rh),
      for_minutes: text(watched.for_minutes),
      silent_minutes: text(watched.silent_minutes),
      door_minutes: text(watched.door_minutes),
      frost: watched.frost,
    };
  }
  type Limit = number | null | undefined;
  function range(low: Limit, high: Limit, units: string, shown = text): string {
    if (low == null && high == null) return '';
    if (low == null) return say.below(shown(high), units);
    return high == null ? say.above(shown(low), units) : say.between(shown(low), shown(high), units);
  }
  const degrees = (c: Limit): string => fieldText('temperature', c ?? null);
  const limits = $derived(
    [range(band.low_c, band.high_c, unit.temperature, degrees), range(band.low_rh, band.high_rh, '%')]
      .filter(Boolean)
      .join(', '),
  );
  const besides = $derived(
    [
      limits ? say.after(band.for_minutes ?? 60) : '',
      band.frost ? say.frostToo : '',
      band.silent_minutes == null ? '' : say.silentAfter(band.silent_minutes),
      band.door_minutes == null ? '' : say.doorAfter(band.door_minutes),
    ]
      .filter(Boolean)
      .join(' · '),
  );

  async function watch(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      await take(
        api.PUT('/api/alarms/bands/{place_id}', {
          params: { path: { place_id: band.place_id } },
          body: {
            low_c: optionalAs('temperature', fields.low_c),
            high_c: optionalAs('temperature', fields.high_c),
            low_rh: optionalNumber(fields.low_rh),
            high_rh: optionalNumber(fields.high_rh),
            for_minutes: optionalNumber(fields.for_minutes) ?? 60,
            silent_minutes: optionalNumber(fields.silent_minutes),
            door_minutes: optionalNumber(fields.door_minutes),
            frost: fields.frost,
            ...head(),
          },
        }),
      );
      open = false;
      session.say(say.changed(band.place));
      void client.invalidateQueries({ queryKey: keys.alarms });
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<div class="border-base-300 border-b py-1">
  <div class="flex flex-wrap items-baseline gap-x-4">
    <strong class="w-44">{band.place}</strong>
    <span class:quiet={!limits}>{limits || say.notSet}</span>
    <span class="quiet text-sm">{besides}</span>
    <button
      class="ml-auto min-h-11 underline underline-offset-4"
      aria-expanded={open}
      aria-label="{say.change}: {band.place}"
      onclick={() => {
        fields = typed();
        open = !open;
      }}>{say.change}</button
    >
  </div>
  {#if open}
    <form class="pb-3" onsubmit={watch} {@attach takesFocus} aria-label={band.place}>
      {#if !set && (from.low_c != null || from.low_rh != null)}<p class="text-info">
          {say.usual(say.setpoint)}
        </p>{/if}
      <div class="flex flex-wrap items-end gap-3">
        {#each ['low_c', 'high_c', 'low_rh', 'high_rh'] as const as name, i (name)}
          <div class="w-24">
            <Field
              label={[say.lowC, say.highC, say.lowRh, say.highRh][i] ?? ''}
              numeric
              bind:value={fields[name]}
            />
          </div>
        {/each}
        <div class="w-24"><Field label={say.forMinutes} numeric bind:value={fields.for_minutes} /></div>
        <div class="w-28"><Field label={say.silent} numeric bind:value={fields.silent_minutes} /></div>
        <div class="w-32"><Field label={say.door} numeric bind:value={fields.door_minutes} /></div>
        <label class="flex min-h-11 items-center gap-2"
          ><input type="checkbox" class="checkbox" bind:checked={fields.frost} />{say.frostToo}</label
        >
        <button class="btn btn-primary min-h-11">{say.watch}</button>
      </div>
      <p class="quiet text-sm">{say.emptyNot}</p>
    </form>
  {/if}
</div>
