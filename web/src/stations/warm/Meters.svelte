<script lang="ts">
  // The pH meters and their calibrations.
  import { useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';

  import { head } from '../../api/entry';
  import { keys } from '../../api/queries';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { session } from '../../shell/session.svelte';
  import { fullDay } from '../../units/format';
  import { tidyNumber, typedNumber } from '../../units/number';
  import { words } from '../../words';
  import { said } from '../../words/said';

  let { meters }: { meters: Schema['MeterOut'][] } = $props();
  const say = words.warm;
  const client = useQueryClient();
  let name = $state('');
  let slope = $state('');
  const when = new Moment();
  $effect(() => {
    if (name === '' && meters[0]) name = meters[0].name;
  });

  async function calibrate(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const value = typedNumber(slope);
    if (value === null) {
      session.complain(new Error(words.errors.noNumber));
      return;
    }
    try {
      await take(api.POST('/api/warm/meters', { body: { name, slope_percent: value, ...head(when) } }));
      slope = '';
      when.clear();
      await client.invalidateQueries({ queryKey: keys.warm });
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<details class="mt-4">
  <summary class="font-tag min-h-11 cursor-pointer py-2 text-lg font-semibold">{say.meters}</summary>
  <ul>
    {#each meters as meter (meter.id)}
      <li>
        {meter.name}:
        {meter.slope_percent !== null && meter.calibrated_at
          ? say.calibration(tidyNumber(meter.slope_percent, 1), fullDay(meter.calibrated_at))
          : ''}
        {#if meter.warnings.length}<span class="text-warning">{meter.warnings.map(said).join('; ')}</span
          >{/if}
      </li>
    {/each}
  </ul>
  <form class="mt-2 flex flex-wrap items-end gap-2" onsubmit={calibrate} aria-label={say.calibrate}>
    <label class="block"
      ><span class="block text-sm font-semibold">{say.meterName}</span>
      <input class="input min-h-11 w-40" required bind:value={name} /></label
    >
    <label class="block"
      ><span class="block text-sm font-semibold">{say.slope}</span>
      <input class="input min-h-11 w-32" inputmode="decimal" required bind:value={slope} /></label
    >
    <button class="btn min-h-11">{say.calibrate}</button>
    <div class="w-full"><When {when} /></div>
  </form>
</details>
