<script lang="ts">
  // The limits a batch can be judged by, with their sources; one of the maker's own is begun from one that is there.
  // Long, since a table of limits and the form for own ones, which fill each other.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import type { Schema } from '../../api/client';
  import { keys, limitsQuery, lineQuery } from '../../api/queries';
  import Field from '../../forms/Field.svelte';
  import { takesFocus } from '../../keys/focus';
  import Line from '../../shell/Line.svelte';
  import { tidyNumber } from '../../units/number';
  import { words } from '../../words';
  import { GOODS, LimitsForm } from './limitsform.svelte';

  const say = words.bench.limitsPage;
  const client = useQueryClient();
  const line = createQuery(lineQuery);
  const limits = createQuery(() => limitsQuery());
  const form = new LimitsForm();
  let begun = $state(false);
  let sheet = $state<HTMLElement>();
  $effect(() => sheet?.scrollIntoView({ block: 'nearest' }));

  function begin(profile: Schema['LimitProfileIn']): void {
    form.like(profile);
    begun = true;
  }
  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!(await form.add())) return;
    begun = false;
    for (const key of [keys.limits, ['reference']]) void client.invalidateQueries({ queryKey: key });
  }
  const allowance = (of: Schema['DegreeHoursIn']): string =>
    of.steps
      .map((step) =>
        step.below != null
          ? say.below(tidyNumber(step.limit, 0), tidyNumber(step.below, 0), of.unit)
          : step.up_to != null
            ? say.upTo(tidyNumber(step.limit, 0), tidyNumber(step.up_to, 0), of.unit)
            : say.above(tidyNumber(step.limit, 0)),
      )
      .join(', ');
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="bench" />{/if}
  <main class="overflow-y-auto px-5 pt-3 pb-12">
    <h1 class="font-tag text-3xl font-bold">{say.title}</h1>
    <p class="quiet max-w-2xl">{say.hint}</p>
    {#if limits.isError}<p class="text-error" role="alert">{limits.error.message}</p>{/if}
    <div class="profiles">
      {#each limits.data ?? [] as one (one.id)}
        <section aria-label={one.name}>
          <h2 class="font-tag text-xl font-semibold">
            {one.name} <span class="quiet font-sans text-sm font-normal">{one.as_of}</span>
          </h2>
          <p class="quiet text-sm">{one.source}</p>
          <table class="mt-1">
            <caption class="quiet text-left text-sm">{say.counted[one.counted_as]}</caption>
            <thead>
              <tr><td></td><th scope="col">{say.nitrite}</th><th scope="col">{say.nitrate}</th></tr>
            </thead>
            <tbody>
              {#each GOODS as goods (goods)}
                <tr>
                  <th scope="row">{say.goods[goods]}</th>
                  <td>{tidyNumber(one[goods].nitrite_mg_per_kg, 1)}</td>
                  <td>{tidyNumber(one[goods].nitrate_mg_per_kg, 1)}</td>
                </tr>
              {/each}
            </tbody>
          </table>
          <p class="mt-1">
            {say.over(tidyNumber(one.degree_hours.threshold, 1), one.degree_hours.unit)}
            {allowance(one.degree_hours)}
          </p>
          <p class="text-sm">
            {say.left(one.residual_nitrite_mg_per_kg ?? null, one.residual_as)} · {say.listeria(
              one.listeria_zero,
            )}
          </p>
          {#if one.unchilled}<p class="text-sm">{one.unchilled}</p>{/if}
          {#if Object.keys(one.sources).length}
            <details class="text-sm">
              <summary class="min-h-8 cursor-pointer py-1">{say.sources}</summary>
              <ul>
                {#each Object.entries(one.sources) as [key, text] (key)}<li>
                    <span class="quiet">{say.sourceOf[key] ?? key}:</span>
                    {text}
                  </li>{/each}
              </ul>
            </details>
          {/if}
          {#if one.does_not_know.length}<p class="text-sm">
              {words.ledger.doesNotKnow}
              {one.does_not_know.join(' ')}
            </p>{/if}
          <p class="text-warning text-sm">{one.check}</p>
          <button class="min-h-11 underline underline-offset-4" onclick={() => begin(one)}>{say.from}</button>
        </section>
      {/each}
    </div>
    {#if begun}
      <form class="mt-6 max-w-3xl" bind:this={sheet} onsubmit={add} aria-label={say.own} {@attach takesFocus}>
        <h2 class="font-tag text-xl font-semibold">{say.own}</h2>
        <div class="grid grid-cols-3 gap-3 max-md:grid-cols-1">
          <Field label={say.name} required bind:value={form.name} />
          <Field label={say.source} required bind:value={form.source} />
          <Field label={say.asOf} required bind:value={form.asOf} />
        </div>
        <label class="mt-3 block"
          ><span class="block text-sm font-semibold">{say.countedAs}</span>
          <select class="select min-h-11" bind:value={form.countedAs}>
            {#each Object.entries(say.counted) as [key, text] (key)}<option value={key}>{text}</option>{/each}
          </select></label
        >
        <div class="mt-3 grid grid-cols-3 gap-3 max-md:grid-cols-1">
          {#each GOODS as goods (goods)}
            <fieldset class="grid grid-cols-2 gap-2">
              <legend class="font-tag font-semibold">{say.goods[goods]}</legend>
              <Field label={say.nitrite} numeric required bind:value={form.amounts[goods].nitrite} />
              <Field label={say.nitrate} numeric required bind:value={form.amounts[goods].nitrate} />
            </fieldset>
          {/each}
        </div>
        <fieldset class="mt-3">
          <legend class="font-tag font-semibold">{say.degreeHours}</legend>
          <div class="flex flex-wrap items-end gap-3">
            <label class="block"
              ><span class="block text-sm font-semibold">{say.unit}</span>
              <select class="select min-h-11 w-20" bind:value={form.unit}
                ><option value="F">°F</option><option value="C">°C</option></select
              ></label
            >
            <div class="w-36">
              <Field label={say.threshold} numeric required bind:value={form.threshold} />
            </div>
          </div>
          {#each form.steps as step, i (step)}
            {@const last = i === form.steps.length - 1}
            <div class="mt-2 flex flex-wrap items-end gap-3">
              <div class="w-36"><Field label={say.limit} numeric required bind:value={step.limit} /></div>
              {#if last}
                <span class="quiet flex min-h-11 items-center">{say.hotter}</span>
              {:else}
                <label class="block"
                  ><span class="block text-sm font-semibold">{say.highest}</span>
                  <select class="select min-h-11" bind:value={step.bound}
                    >{#each Object.entries(say.bounds) as [key, text] (key)}<option value={key}>{text}</option
                      >{/each}</select
                  ></label
                >
                <div class="w-28">
                  <Field label={`°${form.unit}`} numeric required bind:value={step.to} />
                </div>
                <button
                  type="button"
                  class="min-h-11 underline underline-offset-4"
                  onclick={() => form.dropStep(i)}>{say.drop}</button
                >
              {/if}
            </div>
          {/each}
          <button type="button" class="min-h-11 underline underline-offset-4" onclick={() => form.addStep()}
            >{say.more}</button
          >
        </fieldset>
        {#if form.fault}<p class="text-error first-letter:uppercase" role="alert">{form.fault}</p>{/if}
        <button class="btn btn-primary mt-2 min-h-11" disabled={form.busy}>{say.add}</button>
        <p class="quiet mt-1 text-sm">{say.kept}</p>
      </form>
    {/if}
  </main>
</div>

<style>
  .profiles {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(21rem, 1fr));
    gap: 1.5rem 2.5rem;
    margin-top: 1rem;
  }
  @media (max-width: 500px) {
    .profiles {
      grid-template-columns: minmax(0, 1fr);
    }
  }
  th,
  td {
    padding: 0.1rem 1rem 0.1rem 0;
    text-align: left;
    font-weight: 400;
  }
  td {
    text-align: right;
  }
  thead th {
    font-size: 0.85rem;
    color: var(--quiet);
  }
</style>
