<script lang="ts">
  // Note a pH: the figure, the sample's temperature, the meter.
  import type { Schema } from '../../api/client';
  import { dipped } from '../../api/standins';
  import Field from '../../forms/Field.svelte';
  import Instrument from '../../forms/Instrument.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { optionalAs } from '../../forms/typed';
  import { numberText, typedNumber } from '../../units/number';
  import { words } from '../../words';
  import { said } from '../../words/said';
  import type { WarmDesk } from './warmdesk.svelte';

  let { desk, meters }: { desk: WarmDesk; meters: Schema['MeterOut'][] } = $props();
  const say = words.warm;
  let ph = $state('');
  let sample = $state('');
  let meter = $state(0);
  const moment = new Moment();
  let fault = $state<string | null>(null);
  const chosen = $derived(meters.find((m) => m.id === meter) ?? null);
  $effect(() => {
    if (meter === 0 && meters[0]) meter = meters[0].id;
  });

  async function note(sure: boolean): Promise<void> {
    const value = typedNumber(ph);
    fault = value === null ? words.errors.noNumber : null;
    if (value === null) return;
    try {
      if (await desk.read(value, optionalAs('temperature', sample), meter || null, sure, moment)) {
        ph = '';
        moment.clear();
      }
    } catch (error) {
      fault = error instanceof Error ? error.message : words.errors.unexpected(0);
    }
  }
</script>

<form
  class="mt-3"
  aria-label={say.read}
  onsubmit={(e) => {
    e.preventDefault();
    void note(false);
  }}
>
  <h3 class="font-tag text-lg font-semibold">{say.read}</h3>
  <div class="flex flex-wrap items-end gap-3">
    <div class="w-24">
      <Field
        label={say.phField}
        numeric
        required
        bind:value={ph}
        fault={fault !== null}
        onchange={() => (desk.question = null)}
      />
    </div>
    <div class="w-28"><Field label={say.sample} numeric bind:value={sample} /></div>
    <label class="block"
      ><span class="block text-sm font-semibold">{say.meter}</span>
      <select class="select min-h-11" bind:value={meter}>
        <option value={0}>{say.noMeter}</option>
        {#each meters as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
      </select></label
    >
    <button class="btn btn-primary min-h-11" disabled={desk.busy}>{say.note}</button>
  </div>
  <When when={moment} />
  <div class="mt-1">
    <Instrument
      kind="ph"
      simulate={() => dipped(desk.batch)}
      onvalue={(value) => {
        ph = numberText(value, 2);
        desk.question = null;
      }}
    />
  </div>
  {#if chosen?.warnings.length}<p class="text-warning mt-1">
      {chosen.name}: {chosen.warnings.map(said).join('; ')}
    </p>{/if}
  {#if fault}<p class="text-error" role="alert">{fault}</p>{/if}
  {#if desk.question}
    <p class="text-warning mt-1 font-semibold" role="alert">{desk.question}</p>
    <button type="button" class="btn mt-1 min-h-11" onclick={() => void note(true)}>{say.keep}</button>
  {/if}
</form>
