<script lang="ts">
  // Into the salt: trimmed weight and thickness of each, how, how much, where.
  // Long, since one form; its fields depend on the way that is picked first.
  import { createQuery } from '@tanstack/svelte-query';

  import type { Schema } from '../../api/client';
  import { referenceQuery } from '../../api/queries';
  import Field from '../../forms/Field.svelte';
  import Instrument from '../../forms/Instrument.svelte';
  import When from '../../forms/When.svelte';
  import { takesFocus } from '../../keys/focus';
  import { recipeWeight } from '../../units/quantity';
  import { words } from '../../words';
  import { namesOf } from '../../words/said';
  import { IntoSaltForm } from './intosalt.svelte';

  interface Props {
    salt: Schema['SaltOut'];
    places: Schema['PlaceOut'][];
    onput: (answer: Schema['SaltOut'], tags: string[]) => void;
    onclose: () => void;
  }
  let { salt, places, onput, onclose }: Props = $props();
  const say = words.salt.put;
  const reference = createQuery(referenceQuery);
  const families = $derived((reference.data?.families ?? []).filter((f) => !f.minced));
  const form = $derived(
    families.length
      ? new IntoSaltForm(
          salt.waiting,
          families,
          places,
          salt.next_code,
          salt.ways,
          reference.data?.curing_salts,
        )
      : null,
  );

  async function put(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!form) return;
    const before = new Set(salt.pieces.map((one) => one.id));
    const answer = await form.put();
    if (answer)
      onput(
        answer,
        answer.pieces.filter((one) => !before.has(one.id)).map((one) => one.tag),
      );
  }
</script>

{#if form}
  <form onsubmit={put} aria-label={say.title} {@attach takesFocus}>
    <div class="flex items-baseline justify-between">
      <h2 class="font-tag text-2xl font-bold">{say.title}</h2>
      <button type="button" class="min-h-11 underline underline-offset-4" onclick={onclose}
        >{words.close}</button
      >
    </div>
    <label class="block">
      <span class="block text-sm font-semibold">{say.batch}</span>
      <select
        class="select min-h-11 w-full text-base"
        value={form.batch}
        onchange={(e) => form.pickBatch(Number(e.currentTarget.value))}
      >
        {#each salt.waiting as one (one.id)}<option value={one.id}
            >{one.begun ? say.more(one.code, one.product) : `${one.code} · ${one.product}`}</option
          >{/each}
        <option value={0}>{say.quick}</option>
      </select>
    </label>
    {#if form.batch === 0}
      <div class="mt-2 grid grid-cols-2 gap-3">
        <label class="block">
          <span class="block text-sm font-semibold">{say.family}</span>
          <select
            class="select min-h-11 w-full text-base"
            value={form.family}
            onchange={(e) => form.pickFamily(e.currentTarget.value)}
          >
            {#each families as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
          </select>
        </label>
        <Field label={say.code} bind:value={form.code} required />
        <Field label={say.product} bind:value={form.product} required />
        <label class="block">
          <span class="block text-sm font-semibold">{words.bench.species}</span>
          <select class="select min-h-11 w-full text-base" bind:value={form.species}>
            {#each namesOf('species') as [id, text] (id)}<option value={id}>{text}</option>{/each}
          </select>
        </label>
        <label class="block">
          <span class="block text-sm font-semibold">{say.curing}</span>
          <select class="select min-h-11 w-full text-base" required bind:value={form.curing}>
            <option value="" disabled>{say.curingSay}</option>
            <option value="none">{say.curingNone}</option>
            {#each form.salts as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
            <option value="unknown">{say.curingUnknown}</option>
          </select>
        </label>
        {#if form.salts.some((one) => one.id === form.curing)}
          <Field
            label={say.curingPercent}
            hint={say.curingBeside}
            numeric
            required
            bind:value={form.curingPercent}
          />
        {/if}
      </div>
    {/if}
    <div class="mt-2 grid grid-cols-2 gap-3">
      <label class="block">
        <span class="block text-sm font-semibold">{say.way}</span>
        <select class="select min-h-11 w-full text-base" bind:value={form.way}>
          {#each salt.ways as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
        </select>
      </label>
      <Field
        label={form.openSalt ? say.percent.aim : say.percent.dose}
        numeric
        required
        bind:value={form.percent}
      />
    </div>
    {#each salt.ways.filter((one) => one.id === form.way) as one (one.id)}
      <p class="quiet mt-1 text-sm">
        {one.says}; {one.clock}. <span class="first-letter:uppercase">{one.waits}.</span>
      </p>
    {/each}
    {#if form.batch === 0 && !form.openSalt}
      <label class="flex min-h-11 items-center gap-2"
        ><input
          type="checkbox"
          class="checkbox checkbox-sm"
          bind:checked={form.weighed}
        />{say.weighed}</label
      >
    {/if}
    <label class="flex min-h-11 items-center gap-2"
      ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={form.pierced} />{say.pierced}</label
    >
    {#if form.chosenWay?.may_be_free}
      <label class="flex min-h-11 items-center gap-2"
        ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={form.free} />{say.free}</label
      >
    {/if}
    <fieldset class="mt-2">
      <legend class="text-sm font-semibold">{say.muscles}</legend>
      {#each form.muscles as muscle, i (i)}
        <div class="mt-1 grid grid-cols-2 gap-3">
          <input
            class="input min-h-11 w-full text-base font-semibold"
            inputmode="decimal"
            autocomplete="off"
            placeholder={say.raw}
            aria-label={`${say.raw} ${i + 1}`}
            bind:value={muscle.raw}
          />
          <input
            class="input min-h-11 w-full text-base"
            inputmode="decimal"
            autocomplete="off"
            placeholder={say.across[form.geometry]}
            aria-label={`${say.across[form.geometry]} ${i + 1}`}
            bind:value={muscle.across}
          />
        </div>
      {/each}
      <button
        type="button"
        class="min-h-11 underline underline-offset-4"
        onclick={() => form.muscles.push({ raw: '', across: form.muscles.at(-1)?.across ?? '' })}
        >{say.another}</button
      >
      <Instrument kind="scale" cable onvalue={(value) => form.putOn(value)} />
    </fieldset>
    <div class="grid grid-cols-2 gap-3">
      <label class="block">
        <span class="block text-sm font-semibold">{say.geometry}</span>
        <select class="select min-h-11 w-full text-base" bind:value={form.geometry}>
          {#each ['cylinder', 'slab', 'sphere'] as const as one (one)}<option value={one}
              >{say.geometries[one]}</option
            >{/each}
        </select>
      </label>
      <Field label={say.skin} numeric bind:value={form.skin} />
      <label class="block">
        <span class="block text-sm font-semibold">{say.place}</span>
        <select class="select min-h-11 w-full text-base" bind:value={form.place}>
          {#each places as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
        </select>
      </label>
      <Field label={say.container} bind:value={form.container} />
    </div>
    <When when={form.when} />
    {#if form.dose !== null}<p class="mt-3 text-lg font-semibold">
        {say.salt(recipeWeight(form.dose))}
      </p>{/if}
    {#if form.fault}<p class="text-error mt-2 first-letter:uppercase" role="alert">{form.fault}</p>{/if}
    <button class="btn btn-primary mt-3 min-h-11" disabled={form.busy}>{say.put}</button>
    <p class="quiet mt-2 text-sm">{words.salt.caution}</p>
  </form>
{/if}
