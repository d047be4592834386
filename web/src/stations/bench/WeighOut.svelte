<script lang="ts">
  // Weigh-out, for a tablet at arm's length and wet hands: one thing, its weight, the next.
  // Long, since two fifths are the style of a page read from across the bench; the rest is one pour from
  // its target to its answer.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';

  import { head } from '../../api/entry';
  import { keys, lineQuery } from '../../api/queries';
  import { navigate, p, route } from '../../shell/router';
  import Reason from '../../forms/Reason.svelte';
  import When from '../../forms/When.svelte';
  import { session } from '../../shell/session.svelte';
  import Instrument from '../../forms/Instrument.svelte';
  import { numberText } from '../../units/number';
  import { fieldText, recipeNumber, recipeWeight, typedAs } from '../../units/quantity';
  import { words } from '../../words';
  import { textOf } from '../../words/said';
  import { WeighOut } from './weighout.svelte';
  import WeighOutEnd from './WeighOutEnd.svelte';

  const say = words.bench.weigh;
  const client = useQueryClient();
  const flow = $derived(new WeighOut(Number((route.params as { id?: string }).id)));
  $effect(() => void flow.load());
  const line = createQuery(lineQuery);
  const lots = createQuery(() => ({ queryKey: keys.lots, queryFn: () => take(api.GET('/api/lots')) }));
  const now = $derived(flow.now);
  const done = $derived(flow.state !== null && now === null);
  const index = $derived(flow.things.findIndex((thing) => thing.key === now?.key));
  let box = $state<HTMLInputElement>();
  let degrees = $state('');
  $effect(() => {
    void now?.key;
    box?.focus();
  });

  async function submit(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    await flow.pour();
    box?.focus();
  }
  async function setDegrees(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const celsius = typedAs('temperature', degrees);
    if (celsius === null) flow.problem = words.errors.noNumber;
    else await flow.temperature(celsius);
  }
  let givingUp = $state(false);
  async function giveUp(reason: string): Promise<void> {
    try {
      await take(
        api.POST('/api/weigh-outs/{weigh_out_id}/give-up', {
          params: { path: { weigh_out_id: flow.id } },
          body: { reason, ...head() },
        }),
      );
      void client.invalidateQueries({ queryKey: keys.bench });
      await navigate('/bench');
    } catch (error) {
      session.complain(error);
    }
  }
  const asksTemperature = $derived(
    flow.state?.asks_temperature === true && flow.state.meat_temperature_c === null && index !== 0,
  );
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>

{#if flow.state}
  {@const state = flow.state}
  <div class="page">
    <header>
      <a class="min-h-11 content-center underline underline-offset-4" href={p('/bench')}>{say.back}</a>
      <h1 class="font-tag text-2xl font-bold">{state.product}</h1>
      {#if state.rescale !== 1}<span class="quiet">{say.rescaled(numberText(100 * state.rescale, 1))}</span
        >{/if}
      <button
        class="btn btn-ghost ml-auto min-h-11"
        aria-expanded={givingUp}
        onclick={() => (givingUp = !givingUp)}>{say.giveUp}</button
      >
    </header>
    {#if givingUp}
      <div class="px-5">
        <Reason label={say.giveUpWhy} button={say.giveUp} grave onanswer={(reason) => void giveUp(reason)} />
      </div>
    {/if}
    <div class="body">
      <ol class="list" aria-label={say.title}>
        {#each state.things as thing (thing.key)}
          <li>
            <button
              class="thing {thing.state}"
              class:here={thing.key === now?.key}
              aria-current={thing.key === now?.key}
              onclick={() => flow.pick(thing.key)}
            >
              <span class="mark" aria-hidden="true"
                >{thing.state === 'right' ? '✓' : thing.state === 'to_weigh' ? '' : '!'}</span
              >
              <span>{textOf(thing.name)}</span>
              <span class="ml-auto whitespace-nowrap">{recipeWeight(thing.weighed_g ?? thing.target_g)}</span>
            </button>
          </li>
        {/each}
      </ol>
      <main>
        {#if state.ended_at}
          <p class="text-2xl">{say.ended}</p>
        {:else if done}
          <WeighOutEnd {state} places={line.data?.places ?? []} />
        {:else if now}
          {#if asksTemperature}
            <form class="degrees" onsubmit={setDegrees}>
              <label>
                <span class="font-semibold">{say.temperature}</span>
                <input class="input min-h-11 w-28 text-lg" inputmode="decimal" bind:value={degrees} />
              </label>
              <button class="btn min-h-11">OK</button>
              <span class="quiet">{say.temperatureWhy}</span>
            </form>
          {:else if state.meat_temperature_c !== null && state.meat_temperature_c > 4}
            <p class="text-error font-semibold" role="alert">{say.warm}</p>
          {/if}
          <p class="quiet text-lg">{say.of(index + 1, state.things.length)}</p>
          <h2 class="name">{textOf(now.name)}</h2>
          <p class="target" data-testid="target">
            {now.weighed_g !== null && now.state === 'under'
              ? say.add(recipeWeight(now.missing_g))
              : recipeWeight(now.target_g)}
          </p>
          <p class="text-xl">
            {say.tolerance(recipeWeight(now.tolerance_g))} ·
            <strong>{say.scale(recipeWeight(now.scale_g))}</strong>
            <span class="quiet">{say.worst(numberText(now.worst_error_percent, 1))}</span>
          </p>
          {#if now.state === 'over'}
            <div class="off-mark" role="alert">
              <p class="text-2xl font-semibold">{say.over(recipeWeight(-now.missing_g))}</p>
              <div class="mt-2 flex flex-wrap gap-3">
                <button class="btn btn-lg" disabled={flow.busy} onclick={() => void flow.takeOut(now)}
                  >{say.tookOut(recipeWeight(-now.missing_g))}</button
                >
                <button class="btn btn-lg" disabled={flow.busy} onclick={() => void flow.rescale(now)}
                  >{say.rescale}</button
                >
              </div>
            </div>
          {:else}
            <form class="pour" onsubmit={submit}>
              <label class="grow">
                <span class="sr-only">{say.pour}</span>
                <input
                  bind:this={box}
                  class="big"
                  class:bad={flow.problem !== null}
                  inputmode="decimal"
                  autocomplete="off"
                  placeholder={recipeNumber(now.missing_g)}
                  bind:value={flow.typed}
                  oninput={() => {
                    flow.asked = null;
                    flow.problem = null;
                  }}
                />
              </label>
              <button class="btn btn-primary go">{say.ok}</button>
            </form>
            <div class="mt-2">
              <Instrument
                kind="scale"
                cable
                onvalue={(value) => {
                  flow.typed = fieldText('mass', value, 2);
                  flow.asked = flow.problem = null;
                  box?.focus();
                }}
              />
            </div>
            <label class="mt-2 inline-flex items-baseline gap-2">
              <span class="quiet">{say.lot}</span>
              <input class="input min-h-11 w-44 text-base" list="lots" bind:value={flow.lot} />
              <datalist id="lots">
                {#each (lots.data ?? []).filter((lot) => lot.kind === now.lot_kind) as lot (lot.id)}
                  <option value={lot.code}>{lot.what}</option>
                {/each}
              </datalist>
            </label>
            <When when={flow.when} />
            {#if flow.asked !== null}
              <div class="off-mark" role="alert">
                <p class="text-xl">{say.far}</p>
                <button class="btn mt-2 min-h-11" onclick={() => void flow.pour(true)}>{say.farKeep}</button>
              </div>
            {/if}
          {/if}
          {#if flow.problem}
            <p class="text-error mt-2 text-xl first-letter:uppercase" role="alert">{flow.problem}</p>
            {#if flow.unsent}<button class="btn btn-lg mt-2" onclick={() => void flow.send()}>{say.ok}</button
              >{/if}
          {/if}
          {#if state.entries.some((entry) => entry.key === now.key)}
            <ul class="mt-3">
              {#each state.entries.filter((entry) => entry.key === now.key) as entry (entry.id)}
                <li class="flex items-baseline gap-3" class:struck={entry.struck_reason}>
                  <span
                    >{entry.rescale === null
                      ? recipeWeight(entry.grams)
                      : `× ${numberText(entry.rescale, 3)}`}</span
                  >
                  <span class="quiet">{entry.by}{entry.lot ? `, ${say.lot} ${entry.lot}` : ''}</span>
                  {#if entry.struck_reason}<span class="quiet">{entry.struck_reason} · {entry.struck_by}</span
                    >
                  {:else}<button
                      class="min-h-11 underline underline-offset-4"
                      onclick={() => void flow.strike(entry.id)}>{say.strike}</button
                    >{/if}
                </li>
              {/each}
            </ul>
          {/if}
        {/if}
      </main>
    </div>
  </div>
{:else}
  <p class="p-6 text-lg first-letter:uppercase" class:text-error={flow.problem}>
    {flow.problem ?? words.loading}
  </p>
{/if}

<style>
  .page {
    display: flex;
    flex-direction: column;
    height: 100%;
  }
  header {
    display: flex;
    align-items: center;
    gap: 1.2rem;
    padding: 0.3rem 1.25rem;
    border-bottom: 1px solid var(--color-base-300);
  }
  .body {
    flex: 1;
    min-height: 0;
    display: flex;
  }
  .list {
    width: 19rem;
    flex: none;
    overflow-y: auto;
    padding: 0.6rem 0;
    background: color-mix(in oklab, var(--paper), var(--color-base-100) 45%);
  }
  .thing {
    display: flex;
    align-items: center;
    gap: 0.6rem;
    width: 100%;
    min-height: 48px;
    padding: 0 1rem;
    text-align: left;
    cursor: pointer;
  }
  .thing.right {
    color: var(--quiet);
  }
  .here {
    background: var(--color-primary);
    color: var(--color-primary-content) !important;
  }
  .mark {
    display: grid;
    place-items: center;
    width: 1.4rem;
    height: 1.4rem;
    flex: none;
    border: 1px solid currentColor;
    border-radius: 50%;
    font-size: 0.85rem;
  }
  .over .mark,
  .under .mark {
    background: var(--color-warning);
    color: var(--color-warning-content);
  }
  main {
    flex: 1;
    min-width: 0;
    overflow-y: auto;
    padding: 1.2rem 2.5rem 2rem;
  }
  .name {
    font-family: var(--font-tag);
    font-size: clamp(2rem, 5vw, 3.6rem);
    font-weight: 600;
    line-height: 1.05;
  }
  .target {
    font-family: var(--font-tag);
    font-size: clamp(4rem, 13vw, 9rem);
    font-weight: 700;
    line-height: 1.05;
    font-variant-numeric: lining-nums tabular-nums;
  }
  .pour {
    display: flex;
    gap: 0.8rem;
    margin-top: 0.9rem;
    max-width: 44rem;
  }
  .big {
    width: 100%;
    height: 5.2rem;
    padding: 0 1rem;
    font-size: 3rem;
    font-weight: 600;
    background: var(--paper);
    border: 2px solid var(--string);
    border-radius: 4px;
  }
  .big::placeholder {
    color: var(--quiet);
    opacity: 0.5;
  }
  .bad {
    border-color: var(--color-error);
  }
  .go {
    height: 5.2rem;
    min-width: 11rem;
    font-size: 1.4rem;
  }
  .off-mark {
    margin-top: 0.9rem;
    padding: 0.4rem 0 0.4rem 1rem;
    border-left: 6px solid var(--color-warning);
  }
  .degrees {
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    gap: 0.8rem;
    margin-bottom: 0.8rem;
    padding-bottom: 0.8rem;
    border-bottom: 1px solid var(--color-base-300);
  }
  .degrees label {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0.8rem;
  }
  .struck {
    text-decoration: line-through;
    color: var(--quiet);
  }
  @media (max-width: 700px) {
    .body {
      flex-direction: column-reverse;
    }
    .list {
      width: auto;
      flex: 1;
    }
    main {
      flex: none;
      max-height: 70%;
      padding: 0.6rem 1rem 1rem;
    }
    header {
      padding: 0.2rem 0.8rem;
      gap: 0.7rem;
    }
    header h1 {
      font-size: 1.1rem;
    }
    .pour {
      flex-direction: column;
    }
    .big,
    .go {
      height: 4rem;
      font-size: 2rem;
    }
  }
</style>
