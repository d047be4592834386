<script lang="ts">
  // The whole chamber set otherwise: every date and pace, now and then.
  import { untrack } from 'svelte';

  import { api, type Schema, take } from '../../api/client';
  import Field from '../../forms/Field.svelte';
  import { optionalAs, optionalNumber } from '../../forms/typed';
  import { session } from '../../shell/session.svelte';
  import { shortDay } from '../../units/format';
  import { numberText } from '../../units/number';
  import { fieldText } from '../../units/quantity';
  import { words } from '../../words';

  let { place }: { place: Schema['PlaceOut'] } = $props();
  const say = words.placeFacts;
  const SAME = 0.75; // days, under which a date is the same
  const WORSE = 0.05; // of the ring index, from which it is said in red
  let humidity = $state(untrack(() => String(place.setpoint?.rh_percent ?? '')));
  let temperature = $state(untrack(() => fieldText('temperature', place.setpoint?.temperature_c ?? null)));
  let shifts = $state<Schema['PieceShift'][] | null>(null);
  let busy = $state(false);

  async function ask(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    try {
      shifts = await take(
        api.POST('/api/places/{place_id}/what-if', {
          params: { path: { place_id: place.id } },
          body: {
            rh_percent: optionalNumber(humidity),
            temperature_c: optionalAs('temperature', temperature),
          },
        }),
      );
    } catch (error) {
      session.complain(error);
    } finally {
      busy = false;
    }
  }
</script>

<form class="mt-5 flex flex-wrap items-end gap-3" onsubmit={ask} aria-label={say.whatIf}>
  <span class="font-tag pb-2 text-xl font-semibold">{say.whatIf}</span>
  <div class="w-28"><Field label={words.place.temperature} numeric bind:value={temperature} /></div>
  <div class="w-28"><Field label={words.place.humidity} numeric bind:value={humidity} /></div>
  <button class="btn min-h-11" disabled={busy}>{say.ask}</button>
</form>
{#if shifts}
  <table class="rows mt-2 max-w-3xl">
    <thead>
      <tr
        ><th class="left">{words.stations.hang}</th><th>{say.before}</th><th>{say.after}</th><td></td><th
          >{say.pace}</th
        ><th title={words.mend.ringHelp}>{say.ring}</th></tr
      >
    </thead>
    <tbody>
      {#each shifts as one (one.id)}
        <tr>
          <td class="left"
            ><strong class="font-tag">{one.tag}</strong> <span class="quiet">{one.product}</span></td
          >
          <td>{one.before ? shortDay(one.before) : say.never}</td>
          <td class="font-semibold">{one.after ? shortDay(one.after) : say.never}</td>
          <td
            >{one.days_later === null
              ? ''
              : say.later(Math.abs(one.days_later) < SAME ? 0 : Math.round(one.days_later))}</td
          >
          <td class:text-error={one.too_fast}
            >{numberText(one.pace_before, 2)} → {numberText(one.pace_after, 2)} %{#if one.too_fast}&nbsp;{say.tooFast}{/if}</td
          >
          <td class:text-error={one.ring_after - one.ring_before > WORSE}
            >{numberText(one.ring_before, 2)} → {numberText(one.ring_after, 2)}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
{/if}
