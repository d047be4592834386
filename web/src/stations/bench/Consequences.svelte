<script lang="ts">
  // Beside the sheet: what it will mean, at every keystroke.
  // Long, since one answer of the server told from top to bottom, and the style of its table.
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';

  import Assumed from '../hang/Assumed.svelte';
  import { api, type Schema, take } from '../../api/client';
  import { p } from '../../shell/router';
  import { numberText, tidyNumber } from '../../units/number';
  import { farLengthText, muchWeight, priceText } from '../../units/quantity';
  import { words } from '../../words';
  import { said } from '../../words/said';
  import type { Desk } from './desk.svelte';
  import Gauge from './Gauge.svelte';

  let { desk, places }: { desk: Desk; places: Schema['PlaceOut'][] } = $props();
  const say = words.bench;
  const found = $derived(desk.worked?.consequences ?? null);
  const chambers = $derived(places.filter((place) => place.kind === 'chamber'));
  const profile = $derived(desk.reference.profiles.find((one) => one.id === desk.profile));
  let chosen = $state(0);
  const placeId = $derived(chambers.some((place) => place.id === chosen) ? chosen : (chambers[0]?.id ?? 0));

  // the forecast is asked when the typing has paused; everything else at every keystroke
  let settled = $state('');
  $effect(() => {
    const now = JSON.stringify(desk.sheet);
    const timer = setTimeout(() => (settled = now), 500);
    return () => clearTimeout(timer);
  });
  const weeks = createQuery(() => ({
    queryKey: ['weeks', placeId, settled],
    enabled: !!settled && placeId > 0 && found !== null,
    placeholderData: keepPreviousData,
    queryFn: () =>
      take(
        api.POST('/api/bench/weeks', {
          body: { sheet: JSON.parse(settled) as Desk['sheet'], place_id: placeId },
        }),
      ),
  }));
  const money = (value: number): string => numberText(value, 2);
</script>

<div class="flex items-baseline justify-between gap-3">
  <h2 class="font-tag text-xl font-semibold">{say.follows}</h2>
  <label class="quiet text-sm">
    {say.limits}
    <select class="pick" bind:value={desk.profile} onchange={() => desk.changed()}>
      {#each desk.reference.profiles as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
    </select>
  </label>
</div>

{#if desk.problem}
  <p class="text-error" role="alert">{desk.problem.message}</p>
{/if}
{#if !found}
  <p class="quiet mt-2">{say.waits}</p>
{:else}
  {#if found.cautions.length}
    <section class="cautions" aria-label={say.cautions}>
      {#each found.cautions as caution (caution.says.code)}
        <p class:hold={caution.hold}>
          {said(caution.says)} <span class="quiet">{said(caution.source)}</span>
        </p>
      {/each}
      {#if found.cautions.some((caution) => caution.hold)}<p class="quiet">{say.hold}</p>{/if}
    </section>
  {/if}
  <div class="mt-1">
    <Gauge name={say.gauge.salt} gauge={found.salt} digits={2} least />
    <Gauge name={say.gauge.nitrite} gauge={found.nitrite} />
    <Gauge name={say.gauge.nitrate} gauge={found.nitrate} />
    {#if profile}<p class="quiet text-sm">
        {profile.check}
        <a class="underline underline-offset-4" href={p('/bench/limits')}>{words.bench.limitsPage.link}</a>
      </p>{/if}
  </div>
  {#if found.acid}
    <details class="mt-2">
      <summary class="flex cursor-pointer justify-between">
        <span>{say.acid} <span class="quiet text-sm">{say.acidSays}</span></span>
        {#if !found.acid.instead}<strong class="text-lg">{numberText(found.acid.figure.value, 1)}</strong
          >{/if}
      </summary>
      <p class="quiet text-sm">
        {said(found.acid.figure.formula)}. {said(found.acid.figure.inputs)}. {said(found.acid.figure.source)}
      </p>
    </details>
    {#if found.acid.instead}<p class="text-warning first-letter:uppercase">
        {said(found.acid.instead)}.
      </p>{/if}
    {#each found.acid.notes as note (note.values.name)}<p class="quiet text-sm">{said(note)}</p>{/each}
  {/if}

  <table class="dried mt-3">
    <thead>
      <tr>
        <th scope="col">{say.lossCol}</th>
        <th scope="col">{say.feels}</th>
        <th scope="col">{say.aw}</th>
        <th scope="col">{say.mp}</th>
        <th scope="col">{say.keeps}</th>
      </tr>
    </thead>
    <tbody>
      {#each found.outlooks as out (out.loss_percent)}
        <tr class:target={out.loss_percent === desk.sheet.plan.target_loss_percent}>
          <th scope="row">{tidyNumber(out.loss_percent, 1)} %</th>
          <td>{words.inside.feels[out.firmness]}</td>
          <td
            ><strong>{numberText(out.water_activity, 2)}</strong>
            <span class="quiet">± {numberText(1.28 * out.water_activity_sd, 2)}</span></td
          >
          <td>{numberText(out.moisture_protein_ratio, 1)}</td>
          <td>{say.keep[out.keeps]}</td>
        </tr>
      {/each}
    </tbody>
  </table>
  <details class="text-sm">
    <summary class="quiet min-h-8 cursor-pointer">{say.estimate}</summary>
    {#each say.driedWhence as line (line)}<p class="quiet mt-1">{line}</p>{/each}
    <p class="quiet mt-1">{say.casingWhence}</p>
    <p class="quiet mt-1">{say.costWhence}</p>
  </details>

  <dl class="mt-3 grid grid-cols-[max-content_1fr] gap-x-4 gap-y-1.5">
    <dt class="quiet">{say.hooks}</dt>
    <dd>
      <strong>{say.piecesHooks(found.pieces)}</strong>
      {#if found.casing_mm !== null}<br />{say.casingLength(farLengthText(found.casing_mm))}{/if}
    </dd>
    <dt class="quiet">{say.weeks}</dt>
    <dd aria-live="polite">
      {#if weeks.data}
        <strong data-testid="weeks">
          {weeks.data.low && weeks.data.middle && weeks.data.high
            ? say.weeksTold(
                numberText(weeks.data.low, 0),
                numberText(weeks.data.middle, 0),
                numberText(weeks.data.high, 0),
              )
            : say.weeksNever}
        </strong><br />
        {#if weeks.data.low}<Assumed assumed={weeks.data.assumed} reaches={weeks.data.reaches} brief />{/if}
      {/if}
      {#if chambers.length}
        <span class="quiet">{say.weeksIn}</span>
        <select
          class="pick"
          aria-label={say.weeks}
          value={placeId}
          onchange={(e) => (chosen = Number(e.currentTarget.value))}
        >
          {#each chambers as place (place.id)}<option value={place.id}>{place.name}</option>{/each}
        </select>
        {#if weeks.data}<span class="quiet">{say.hooksFree(weeks.data.hooks_free)}</span>{/if}
      {/if}
    </dd>
    <dt class="quiet">{say.cost}</dt>
    <dd>
      {found.cost !== null && found.cost_per_finished_kg !== null
        ? say.costTold(money(found.cost), priceText(found.cost_per_finished_kg), muchWeight(found.finished_g))
        : say.noCost}
    </dd>
  </dl>
{/if}

<style>
  .cautions {
    margin: 0.4rem 0;
    padding: 0.2rem 0 0.2rem 0.8rem;
    border-left: 4px solid var(--color-warning);
  }
  .cautions:has(.hold) {
    border-color: var(--color-error);
  }
  .hold {
    color: var(--color-error);
    font-weight: 600;
  }
  .dried {
    width: 100%;
    border-collapse: collapse;
  }
  .dried th,
  .dried td {
    white-space: nowrap;
    padding: 0.22rem 0.5rem 0.22rem 0;
    text-align: left;
    font-weight: 400;
  }
  .dried thead th {
    color: var(--quiet);
    font-size: 0.86rem;
    white-space: normal;
    vertical-align: bottom;
    line-height: 1.1;
  }
  .dried tbody tr {
    border-top: 1px solid var(--color-base-300);
  }
  .dried tbody th {
    font-family: var(--font-tag);
    font-weight: 600;
    white-space: nowrap;
  }
  .target {
    background: color-mix(in oklab, var(--band) 45%, transparent);
  }
  .target th {
    padding-left: 0.3rem;
  }
</style>
