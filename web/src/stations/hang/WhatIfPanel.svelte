<script lang="ts">
  // Sliders for humidity, temperature, air and target; the date that would come of them.
  import { createQuery } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';

  import type { Schema } from '../../api/client';
  import { roomQuery } from '../../api/queries';
  import { dayRange, longDay } from '../../units/format';
  import { tidyNumber } from '../../units/number';
  import { temperatureText, weightText } from '../../units/quantity';
  import { words } from '../../words';
  import { WhatIf } from './whatif.svelte';

  let { piece }: { piece: Schema['PieceOut'] } = $props();
  const say = words.whatIf;
  const flow = new WhatIf(() => piece);
  const chosen = $derived(piece.card.id); // a newer date of the same piece leaves the question as it is
  $effect(() => {
    void chosen;
    untrack(() => flow.reset());
  });
  const room = createQuery(() => roomQuery(piece.place_id));
  const freeHooks = $derived(
    (room.data?.rods ?? []).flatMap((rod) =>
      Array.from({ length: rod.hooks }, (_, i) => i + 1)
        .filter((hook) => !room.data?.pieces.some((c) => c.rod === rod.number && c.hook === hook))
        .map((hook) => {
          const air = room.data?.hooks.find((one) => one.rod_id === rod.id && one.hook === hook);
          return {
            key: `${rod.id}/${hook}`,
            text: words.hang.where(rod.number, hook),
            air: air?.air ?? null,
          };
        }),
    ),
  );
  const later = $derived(flow.answer?.days_later ?? null);
</script>

{#snippet slider(
  label: string,
  shown: string,
  min: number,
  max: number,
  step: number,
  key: 'humidity' | 'temperature' | 'air' | 'target',
)}
  <label class="block">
    <span class="flex justify-between"><span class="quiet">{label}</span><strong>{shown}</strong></span>
    <input
      type="range"
      class="pull"
      {min}
      {max}
      {step}
      bind:value={flow[key]}
      oninput={() => flow.moved()}
      aria-label={label}
      aria-valuetext={shown}
    />
  </label>
{/snippet}

<section class="mt-5" aria-label={say.title}>
  <div class="flex items-baseline justify-between">
    <h3 class="font-tag text-lg font-semibold">{say.title}</h3>
    {#if flow.answer}<button class="min-h-11 underline underline-offset-4" onclick={() => flow.reset()}
        >{say.reset}</button
      >{/if}
  </div>
  <div class="mt-1 grid grid-cols-2 gap-x-6 gap-y-2">
    {@render slider(words.piece.humidity, `${flow.humidity} %`, 40, 95, 1, 'humidity')}
    {@render slider(words.piece.temperature, temperatureText(flow.temperature), 2, 22, 0.1, 'temperature')}
    {@render slider(say.air, say.airs[flow.air + 2] ?? '', -2, 2, 1, 'air')}
    {@render slider(words.piece.target, `${tidyNumber(flow.target, 1)} %`, 15, 50, 1, 'target')}
  </div>
  <div class="mt-2 flex flex-wrap gap-x-6">
    <label class="flex items-baseline gap-2"
      ><span class="quiet">{say.wrap}</span>
      <select class="pick" bind:value={flow.casing} onchange={() => flow.moved()}>
        <option value="">{say.asItIs}</option>
        {#each Object.entries(words.casings) as [key, name] (key)}<option value={key}>{name}</option>{/each}
      </select></label
    >
    <label class="flex items-baseline gap-2"
      ><span class="quiet">{say.hook}</span>
      <select class="pick" bind:value={flow.hook} onchange={() => flow.moved()}>
        <option value="">{say.whereItIs}</option>
        {#each freeHooks as one (one.key)}
          <option value={one.key}>{one.text}{one.air === null ? '' : ` ${words.hang.airTag(one.air)}`}</option
          >
        {/each}
      </select></label
    >
  </div>
  <div class="mt-2 min-h-12" aria-live="polite">
    {#if flow.problem}
      <p class="text-error" role="alert">{flow.problem}</p>
    {:else if flow.answer?.state === 'stalled'}
      <p class="text-warning font-semibold">{words.piece.stalled}</p>
    {:else if flow.answer?.state === 'ready' || flow.answer?.state === 'over'}
      <p class="font-semibold">{words.piece.readyNow}</p>
    {:else if flow.answer?.ready.p50 && flow.answer.ready.p10 && flow.answer.ready.p90}
      <p class="font-tag text-xl font-semibold">{longDay(flow.answer.ready.p50)}</p>
      <p class="quiet">
        {later === null ? '' : `${say.shift(later)} · `}{dayRange(
          flow.answer.ready.p10,
          flow.answer.ready.p90,
        )}{flow.answer.target_weight_g === null ? '' : ` · ${weightText(flow.answer.target_weight_g)}`}
      </p>
    {:else}
      <p class="quiet">{say.hint}</p>
    {/if}
  </div>
</section>
