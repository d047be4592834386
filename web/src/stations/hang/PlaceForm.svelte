<script lang="ts">
  // Make a place: what one has comes first, then where pieces hang in it. Also the first step of an empty workshop.
  import { createQuery } from '@tanstack/svelte-query';

  import { ProblemError, type Schema } from '../../api/client';
  import { usualAirQuery } from '../../api/queries';
  import Field from '../../forms/Field.svelte';
  import { words } from '../../words';
  import { said, whole } from '../../words/said';
  import { PlaceForm, type What } from './placeform.svelte';

  let {
    onmade,
    label = words.place.make,
    before,
  }: { onmade: (place: Schema['PlaceOut']) => void; label?: string; before?: () => Promise<void> } = $props();

  const form = new PlaceForm();
  const say = words.place;
  const air = createQuery(usualAirQuery);
  const usual = $derived.by(() => {
    const told = form.controlled ? undefined : air.data?.find((one) => one.sort === form.what);
    return told && [whole(said(told.says)), say.notes[form.what]].filter(Boolean).join(' ');
  });
  let problem = $state<ProblemError | null>(null);
  let busy = $state(false);

  async function submit(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    problem = null;
    busy = true;
    try {
      if (before) await before();
      onmade(await form.make());
    } catch (error) {
      problem = error instanceof ProblemError ? error : new ProblemError('error', String(error));
    } finally {
      busy = false;
    }
  }
  const where = $derived(problem?.where ?? '');
</script>

<form onsubmit={submit} class="grid grid-cols-2 gap-3" aria-label={say.title}>
  <label class="col-span-2 block"
    ><span class="block text-sm font-semibold">{say.kind}</span>
    <select
      class="select min-h-11 w-full text-base"
      value={form.what}
      onchange={(event) => {
        form.pick(event.currentTarget.value as What);
      }}
    >
      {#each Object.entries(say.kinds) as [key, text] (key)}<option value={key}>{text}</option>{/each}
    </select>
    {#if usual}<span class="quiet text-sm">{usual}</span>{/if}</label
  >
  <div class="col-span-2">
    <Field label={say.name} bind:value={form.name} required fault={where === 'name'} />
  </div>
  {#if form.hangs}
    <Field label={form.shelves ? say.shelves : say.rods} numeric bind:value={form.rods} required />
    <Field
      label={form.shelves ? say.onShelf : say.hooks}
      numeric
      bind:value={form.hooks}
      required
      fault={where.startsWith('hooks')}
    />
    {#if !form.shelves}
      <div class="col-span-2">
        <Field
          label={words.rods.spacing}
          numeric
          bind:value={form.spacing}
          fault={where === 'hook_spacing_mm'}
        />
      </div>
    {/if}
    <label class="col-span-2 block"
      ><span class="block text-sm font-semibold">{say.stirring}</span>
      <select class="select min-h-11 w-full text-base" bind:value={form.stirring}>
        <option value="">{say.stirringUsual}</option>
        {#each Object.entries(say.stirrings) as [key, text] (key)}<option value={key}>{text}</option>{/each}
      </select></label
    >
  {/if}
  {#if form.controlled}
    <Field
      label={say.temperature}
      numeric
      bind:value={form.temperature}
      fault={where.endsWith('temperature_c')}
    />
    <Field label={say.humidity} numeric bind:value={form.humidity} fault={where.endsWith('rh_percent')} />
  {/if}
  {#if problem}<p class="text-error col-span-2 first-letter:uppercase" role="alert">{problem.message}</p>{/if}
  <button class="btn btn-primary btn-lg col-span-2" disabled={busy}>{label}</button>
</form>
