<script lang="ts">
  // One batch in the warm stage: its curve, its fuse, the next reading, what may still be done.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { keys, ledgerQuery, warmBatchQuery } from '../../api/queries';
  import LedgerMarks from '../../goods/LedgerMarks.svelte';
  import AsTable from '../../charts/AsTable.svelte';
  import PhCurve from '../../charts/PhCurve.svelte';
  import { dayAndTime, timeOfDay } from '../../units/format';
  import { numberText } from '../../units/number';
  import { temperatureText } from '../../units/quantity';
  import { words } from '../../words';
  import { said, whole } from '../../words/said';
  import Fuse from './Fuse.svelte';
  import Meters from './Meters.svelte';
  import ReadPh from './ReadPh.svelte';
  import type { WarmDesk } from './warmdesk.svelte';
  import WarmNotes from './WarmNotes.svelte';

  interface Props {
    batch: number;
    desk: WarmDesk;
    now: number;
    meters: Schema['MeterOut'][];
  }
  let { batch, desk, now, meters }: Props = $props();
  const say = words.warm;
  const detail = createQuery(() => warmBatchQuery(batch));
  const card = $derived(detail.data?.card);
  // what was measured once by a meter nobody checked is not confirmed yet: the ledger says so
  const ledger = createQuery(() => ({ ...ledgerQuery(batch), retry: false }));
  const acid = $derived(ledger.data?.hurdles.find((h) => h.name === 'acid'));
  let box = $state<number | null>(null);
  const otherwise = createQuery(() => ({
    queryKey: keys.whatIf(batch, box),
    enabled: box !== null,
    queryFn: () =>
      take(
        api.POST('/api/warm/{batch_id}/what-if', {
          params: { path: { batch_id: batch } },
          body: { setpoint_c: box ?? 0 },
        }),
      ),
  }));
  const window = (when: Schema['WhenOut']): string =>
    when.p10 && when.p90 ? `${timeOfDay(when.p10)} – ${timeOfDay(when.p90)}` : '';
  // the ends of the window, and its middle
  const percentiles = $derived(
    detail.data ? [detail.data.curve.low, detail.data.curve.middle, detail.data.curve.high] : [],
  );
</script>

{#if detail.data && card}
  <article aria-label={card.batch}>
    <header class="flex flex-wrap items-baseline gap-x-4">
      <h2 class="font-tag text-2xl font-bold">{card.batch}</h2>
      <p>{card.product}</p>
      <p class="quiet">{say.place(card.place, card.pinch_place)}</p>
      <span class="ml-auto"><LedgerMarks {batch} /></span>
    </header>
    <p
      class="mt-1 text-xl leading-snug font-semibold"
      class:text-error={card.state === 'stalled' || card.state === 'over_allowance'}
    >
      {#if card.measured_at}{say.crossed(timeOfDay(card.measured_at))}
      {:else if card.crosses.p50}{say.crosses(timeOfDay(card.crosses.p50), window(card.crosses))}
      {:else}{say.never}{/if}{#if card.reaches_target.p50 && !card.ended_at}<span class="font-normal"
          >; {say.target(numberText(card.target_ph, 1), timeOfDay(card.reaches_target.p50))}</span
        >{/if}
    </p>
    {#if card.measure_next && !card.ended_at}<p class="text-lg">
        {say.measure(timeOfDay(card.measure_next))}
      </p>{/if}
    {#if card.measured_at && acid?.blocks && acid.why}<p class="text-warning text-lg">
        {whole(said(acid.why))}
        {acid.settles ? whole(said(acid.settles)) : ''}
      </p>{/if}
    {#if card.causes.length}
      <p class="mt-1"><strong>{say.causes}:</strong> {card.causes.map(said).join('; ')}</p>
    {/if}
    {#if card.possible.length && !card.ended_at}
      <p class="mt-1"><strong>{say.possible}:</strong> {card.possible.map(said).join('; ')}</p>
    {/if}
    {#if card.meters_differ !== null}
      <p class="text-warning mt-1">{say.metersDiffer(numberText(card.meters_differ, 2))}</p>
    {/if}
    <div class="mt-2"><PhCurve detail={detail.data} {now} otherwise={otherwise.data ?? null} /></div>
    <AsTable
      name={say.ph}
      head={[words.tables.when, ...words.tables.ph]}
      rows={detail.data.curve.at.map((at, i) => [
        dayAndTime(at),
        ...percentiles.map((values) => numberText(values[i] ?? 0, 2)),
      ])}
      file="/api/warm/{card.batch_id}/curve.csv"
    />
    <div class="below">
      <div>
        <Fuse {card} />
        {#if !card.ended_at}
          <section class="mt-4">
            <label class="block">
              <span class="font-semibold"
                >{say.whatIf} {temperatureText(box ?? card.setpoint_c ?? 24, 0)}</span
              >
              <input
                type="range"
                class="pull"
                min="5"
                max="38"
                step="1"
                value={box ?? card.setpoint_c ?? 24}
                oninput={(e) => (box = Number(e.currentTarget.value))}
              />
            </label>
            {#if otherwise.data && box !== null}
              <p aria-live="polite">
                {#if otherwise.data.crosses.p50}
                  {say.whatIfSays(timeOfDay(otherwise.data.crosses.p50))},
                  {otherwise.data.in_time === false ? say.whatIfLate : say.whatIfIn}
                {:else}{say.whatIfNever}{/if}
              </p>
            {/if}
          </section>
        {/if}
      </div>
      <div>
        {#if !card.ended_at}<ReadPh {desk} {meters} />{/if}
        <WarmNotes detail={detail.data} {desk} />
        <Meters {meters} />
      </div>
    </div>
  </article>
{:else if detail.isError}
  <p class="text-error" role="alert">{detail.error.message}</p>
{/if}

<style>
  .below {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 0 2.5rem;
  }
  @media (max-width: 1000px) {
    .below {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
