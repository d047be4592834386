<script lang="ts">
  // The entry that settles a hurdle, where the hurdle stands.
  // Long, since one form for each kind of evidence, of which one is shown: a row or two each.
  import { createQuery } from '@tanstack/svelte-query';

  import type { Schema } from '../../api/client';
  import { lineQuery, warmQuery } from '../../api/queries';
  import Field from '../../forms/Field.svelte';
  import When from '../../forms/When.svelte';
  import { takesFocus } from '../../keys/focus';
  import { words } from '../../words';
  import { namesOf } from '../../words/said';
  import type { Settling } from './settling.svelte';

  let { settling, tags }: { settling: Settling; tags: string[] } = $props();
  const say = words.ledger;
  const typed = $derived(settling.typed);
  const meters = createQuery(() => ({ ...warmQuery(), enabled: settling.entry === 'measure_ph' }));
  const line = createQuery(() => ({ ...lineQuery(), enabled: settling.entry === 'meat' }));
  const mixed = $derived(settling.entry === 'meat' && settling.lay === 'mix');
  const animals = namesOf('species');
</script>

<form
  {@attach takesFocus}
  class="entry"
  onsubmit={(event) => {
    event.preventDefault();
    void settling.send();
  }}
>
  {#if settling.entry === 'sign'}
    <p class="quiet text-sm">{say.look} {say.namesUnchecked}</p>
    <Field label={say.why} required bind:value={typed.reason} />
  {:else if settling.entry === 'laboratory'}
    <div class="grid grid-cols-2 gap-3">
      <label class="block"
        ><span class="block text-sm font-semibold">{say.entries.laboratory}</span>
        <select
          class="select min-h-11 w-full text-base"
          value={settling.what}
          onchange={(e) => settling.pick(e.currentTarget.value as Schema['LabIn']['what'])}
        >
          {#each Object.keys(settling.units) as key (key)}<option value={key}>{say.labWhat[key]}</option
            >{/each}
        </select></label
      >
      {#if settling.isFound}
        <label class="block"
          ><span class="block text-sm font-semibold">{say.labFound}</span>
          <select class="select min-h-11 w-full text-base" required bind:value={typed.value}>
            <option value="" disabled>…</option>
            {#each Object.entries(say.found) as [key, name] (key)}<option value={key}>{name}</option>{/each}
          </select></label
        >
      {:else}
        <Field label={say.labValue} hint={settling.unit} numeric required bind:value={typed.value} />
      {/if}
      {#if (settling.units[settling.what]?.length ?? 0) > 1}
        <label class="block"
          ><span class="block text-sm font-semibold">{say.labUnit}</span>
          <select
            class="select min-h-11 w-full text-base"
            bind:value={settling.unit}
            onchange={() => (typed.value = '')}
          >
            {#each settling.units[settling.what] ?? [] as unit (unit)}<option value={unit}>{unit}</option
              >{/each}
          </select></label
        >
      {/if}
      <label class="block"
        ><span class="block text-sm font-semibold">{say.labOf}</span>
        <select class="select min-h-11 w-full text-base" bind:value={settling.of}>
          {#each Object.entries(say.labOfs) as [key, name] (key)}<option value={key}>{name}</option>{/each}
        </select></label
      >
      {#if settling.of === 'product' && tags.length}
        <label class="block"
          ><span class="block text-sm font-semibold">{say.labPiece}</span>
          <select class="select min-h-11 w-full text-base" bind:value={settling.tag}>
            <option value="">{say.labBatch}</option>
            {#each tags as tag (tag)}<option value={tag}>{tag}</option>{/each}
          </select></label
        >
      {/if}
      {#if settling.what === 'water_activity'}<Field
          label={say.labLoss}
          numeric
          bind:value={typed.loss}
        />{/if}
      <div class="col-span-2"><Field label={say.labNote} required bind:value={typed.note} /></div>
    </div>
  {:else if settling.entry === 'parasites'}
    <div class="grid grid-cols-2 gap-3">
      <label class="block"
        ><span class="block text-sm font-semibold">{say.animal}</span>
        <select class="select min-h-11 w-full text-base" bind:value={settling.species}>
          {#each animals as [key, name] (key)}<option value={key}>{name}</option>{/each}
        </select></label
      >
      <label class="block"
        ><span class="block text-sm font-semibold">{say.way}</span>
        <select class="select min-h-11 w-full text-base" bind:value={settling.way}>
          {#each namesOf('parasite_way') as [key, name] (key)}<option value={key}>{name}</option>{/each}
        </select></label
      >
      {#if settling.way === 'frozen'}
        <Field label={say.frozenAt} numeric required bind:value={typed.c} />
        <Field label={say.frozenDays} numeric required bind:value={typed.days} />
        <Field label={say.frozenThick} numeric bind:value={typed.thick} />
      {/if}
      <div class="col-span-2"><Field label={say.note} bind:value={typed.note} /></div>
    </div>
  {:else if settling.entry === 'went_in'}
    <div class="grid grid-cols-2 gap-3">
      <label class="block"
        ><span class="block text-sm font-semibold">{say.animal}</span>
        <select class="select min-h-11 w-full text-base" bind:value={settling.species}>
          <option value="">{say.notSaid}</option>
          {#each animals as [key, name] (key)}<option value={key}>{name}</option>{/each}
        </select></label
      >
      <Field label={say.fat} numeric bind:value={typed.fat} />
      <Field label={say.saltIn} numeric bind:value={typed.salt} />
      <label class="block"
        ><span class="block text-sm font-semibold">{say.curing}</span>
        <select class="select min-h-11 w-full text-base" bind:value={settling.curing}>
          {#each Object.entries(say.curings) as [key, name] (key)}<option value={key}>{name}</option>{/each}
        </select></label
      >
      {#if settling.curing === 'weighed'}
        <Field label={say.curingPercent} numeric required bind:value={typed.curing} />
        <Field label={say.nitrite} numeric required bind:value={typed.nitrite} />
        <Field label={say.nitrate} numeric bind:value={typed.nitrate} />
      {/if}
    </div>
  {:else if settling.entry === 'measure_ph'}
    <div class="grid grid-cols-2 gap-3">
      <Field label={say.ph} numeric required bind:value={typed.value} />
      <label class="block"
        ><span class="block text-sm font-semibold">{say.meter}</span>
        <select class="select min-h-11 w-full text-base" bind:value={settling.meter}>
          <option value={0}>{say.noMeter}</option>
          {#each meters.data?.meters ?? [] as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
        </select></label
      >
    </div>
  {:else if settling.entry === 'meat'}
    <div class="grid grid-cols-2 gap-3">
      <select
        class="select col-span-2 min-h-11 w-full text-base"
        aria-label={say.entries.meat}
        bind:value={settling.lay}
      >
        {#each Object.entries(say.meatKinds) as [key, name] (key)}<option value={key}>{name}</option>{/each}
      </select>
      {#if mixed}
        <Field label={say.meatTemperature} numeric required bind:value={typed.c} />
      {:else}
        <label class="block"
          ><span class="block text-sm font-semibold">{say.meatWhere}</span>
          <select class="select min-h-11 w-full text-base" required bind:value={settling.place}>
            {#each line.data?.places ?? [] as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
          </select></label
        >
      {/if}
      <Field label={say.note} bind:value={typed.note} />
    </div>
  {:else if settling.entry === 'step'}
    <div class="grid grid-cols-2 gap-3">
      <label class="block"
        ><span class="block text-sm font-semibold">{say.step}</span>
        <select class="select min-h-11 w-full text-base" bind:value={settling.step}>
          {#each Object.entries(say.steps) as [key, name] (key)}<option value={key}>{name}</option>{/each}
        </select></label
      >
      <Field label={say.note} bind:value={typed.note} />
    </div>
  {:else if settling.entry === 'choices'}
    <div class="flex flex-wrap gap-x-6 gap-y-1">
      {#each Object.entries(say.uses) as [key, name] (key)}
        <label class="flex min-h-11 items-center gap-2"
          ><input type="radio" class="radio radio-sm" value={key} bind:group={settling.use} />{name}</label
        >
      {/each}
    </div>
    <div class="flex flex-wrap gap-x-6 gap-y-1">
      {#each Object.entries(say.doneBys) as [key, name] (key)}
        <label class="flex min-h-11 items-center gap-2"
          ><input type="radio" class="radio radio-sm" value={key} bind:group={settling.doneBy} />{name}</label
        >
      {/each}
    </div>
  {/if}
  {#if settling.entry === 'meat' && !mixed}
    <When when={settling.when} label={say.meatFrom} />
    <When when={settling.until} label={say.meatUntil} unset={say.meatOpen} />
  {:else}
    <When when={settling.when} />
  {/if}
  {#if settling.fault}<p class="text-error first-letter:uppercase" role="alert">{settling.fault}</p>{/if}
  <div class="mt-1 flex gap-3">
    {#if settling.asked}<button
        type="button"
        class="btn min-h-11"
        onclick={() => {
          void settling.send(true);
        }}>{words.piece.keep}</button
      >{/if}
    <button class="btn btn-primary min-h-11" disabled={settling.busy}
      >{settling.entry === 'sign' ? say.sign : say.enter}</button
    >
    <button
      type="button"
      class="min-h-11 underline underline-offset-4"
      onclick={() => {
        settling.close();
      }}>{words.close}</button
    >
  </div>
</form>

<style>
  .entry {
    margin: 0.4rem 0 0.6rem;
    padding: 0.6rem 0 0.2rem 0.9rem;
    border-left: 3px solid var(--color-base-300);
  }
</style>
