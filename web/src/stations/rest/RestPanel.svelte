<script lang="ts">
  // A bag closely: when it is even, its inside, what fingers say, its weight, and what happens to it next.
  // Long, since the order of what is told of a resting piece is its matter.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { head } from '../../api/entry';
  import { keys, pieceQuery, restPieceQuery } from '../../api/queries';
  import EveningCurve from '../../charts/EveningCurve.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import CrossSection from '../../goods/CrossSection.svelte';
  import { navigate, p } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime, dayRange, longDay, percent } from '../../units/format';
  import { numberText } from '../../units/number';
  import { weightAsTyped } from '../../units/quantity';
  import { words } from '../../words';
  import { said, whole } from '../../words/said';
  import AfterHook from '../hang/AfterHook.svelte';
  import WeighBox from '../hang/WeighBox.svelte';
  import Weights from '../hang/Weights.svelte';
  import Taps from './Taps.svelte';

  let { id, now, onclose }: { id: number; now: number; onclose: () => void } = $props();
  const say = words.rest;
  const client = useQueryClient();
  const rest = createQuery(() => restPieceQuery(id));
  const piece = createQuery(() => pieceQuery(id));
  const card = $derived(rest.data?.card);
  const inside = $derived(card?.inside);
  const moment = new Moment();
  const untapped = { firm_rim: null, firm_core: null };
  let taps = $state<Record<'firm_rim' | 'firm_core', string | null>>({ ...untapped });

  function refresh(answer: Schema['PieceOut'] | null = null): void {
    if (answer) client.setQueryData(keys.piece(id), answer);
    void client.invalidateQueries({ queryKey: keys.rest });
    void client.invalidateQueries({ queryKey: keys.today });
    void client.invalidateQueries({ queryKey: keys.line });
  }
  async function squeeze(): Promise<void> {
    const body: Schema['HangEventIn'] = {
      ...head(moment),
      pieces: [id],
      kind: 'inspect',
      note: '',
      found: { ...taps, sag: false, cracks: false, salt_spots: false } as Schema['Found'],
    };
    try {
      await take(api.POST('/api/hook-events', { body }));
      if (card) session.say(say.noted(card.tag));
      taps = { ...untapped };
      moment.clear();
      refresh();
    } catch (error) {
      session.complain(error);
    }
  }
</script>

{#if card && inside}
  <article aria-label={card.tag}>
    <div class="flex items-start justify-between gap-2">
      <p class="quiet">
        {card.product} · {card.place ?? say.shelf} ·
        <a
          class="underline underline-offset-4"
          href={p('/bench/batch/:id', { params: { id: String(card.batch_id) } })}>{card.batch}</a
        >
      </p>
      <button class="-mt-2 -mr-2 min-h-11 min-w-11 text-xl" aria-label={words.close} onclick={onclose}
        >✕</button
      >
    </div>
    <div class="flex items-baseline justify-between gap-3">
      <h2 class="font-tag text-3xl font-bold">{card.tag}</h2>
      <p class="text-right">
        {(card.weight_g ?? card.sealed_g)
          ? weightAsTyped(card.weight_g ?? card.sealed_g ?? 0)
          : words.done.notWeighed} · {say.since(
          Math.max(0, Math.floor((now - new Date(card.since).getTime()) / 86_400_000)),
          say.bags[card.bag],
        )}
      </p>
    </div>
    <div class="mt-2" aria-live="polite" data-testid="evens">
      {#if card.state === 'leaks'}
        <p class="font-tag text-error text-2xl font-semibold">{say.leaks}</p>
        <p>{say.leaksWhy(weightAsTyped(card.lost_g ?? 0))}</p>
      {:else if card.state === 'soft'}
        <p class="font-tag text-error text-2xl font-semibold">{say.soft}</p>
        <p>{say.softWhy}</p>
      {:else if card.state === 'even'}
        <p class="font-tag text-2xl font-semibold">{say.even}</p>
        <p class="quiet">{say.evenWhy}</p>
      {:else if card.state === 'likely'}
        <p class="font-tag text-2xl font-semibold">{say.likely}</p>
        <p class="quiet">{say.likelyWhy}</p>
      {:else if card.best && card.earliest && card.late}
        <p class="font-tag text-2xl font-semibold">{say.evenAbout(longDay(card.best))}</p>
        <p class="quiet">{whole(say.between(dayRange(card.earliest, card.late)))}</p>
      {:else}
        <p class="font-tag text-2xl font-semibold">{say.never}</p>
      {/if}
    </div>
    {#each card.cautions as caution (caution.code)}<p class="border-error text-error mt-2 border-l-4 pl-3">
        {whole(said(caution))}
      </p>{/each}
    {#if card.assumed.length}<p class="quiet mt-1 text-sm">
        {words.life.assumed.title}: {card.assumed.map(said).join('; ')}.
      </p>{/if}

    <div class="mt-3 flex items-center gap-5">
      <CrossSection {inside} slab={card.shape === 'slab'} size={150} />
      <dl class="grid grid-cols-[max-content_1fr] gap-x-3">
        <dt class="quiet">{say.rim}</dt>
        <dd>
          {words.inside.water(numberText(inside.rim_water_percent, 0))},
          <strong>{words.inside.feels[inside.rim_feels]}</strong>
        </dd>
        <dt class="quiet">{say.core}</dt>
        <dd>
          {words.inside.water(numberText(inside.core_water_percent, 0))},
          <strong>{words.inside.feels[inside.core_feels]}</strong>
        </dd>
        <dt class="quiet">{say.ring}</dt>
        <dd>{say.gone(percent(100 * card.gone_share, 0))}</dd>
      </dl>
    </div>
    {#if card.squeezed}<p class="quiet mt-1">
        {say.squeezed(
          card.squeezed.rim ?? '–',
          card.squeezed.core ?? '–',
          dayAndTime(card.squeezed.at),
          card.squeezed.by,
        )}
      </p>{/if}
    {#if rest.data}<div class="mt-3">
        <EveningCurve curve={rest.data.curve} {now} label={say.states[card.state]} />
      </div>{/if}

    <section class="mt-3" aria-label={say.squeeze}>
      <h3 class="font-tag text-lg font-semibold">{say.squeeze}</h3>
      <Taps name={say.rim} taps={words.cut.firm} bind:value={taps.firm_rim} />
      <Taps name={say.core} taps={words.cut.core} bind:value={taps.firm_core} />
      <When when={moment} />
      <button
        class="btn btn-primary mt-1 min-h-11"
        disabled={!taps.firm_rim || !taps.firm_core}
        title={say.tapBoth}
        onclick={squeeze}>{say.note}</button
      >
    </section>
    <a class="btn mt-3 min-h-11" href={p('/rest/cut/:id', { params: { id: String(id) } })}>{words.cut.open}</a
    >
    {#if piece.data}
      <WeighBox piece={piece.data} {refresh} early={null} />
      <AfterHook
        piece={piece.data}
        refresh={(answer) => refresh(answer)}
        moving={false}
        onhangagain={() =>
          void navigate('/hang/:place', {
            params: { place: String(piece.data?.place_id) },
            search: { piece: String(id) },
          })}
      />
      <Weights piece={piece.data} refresh={(answer) => refresh(answer)} />
    {/if}
    <p class="quiet mt-4 text-sm">{say.estimate} {say.caution}</p>
  </article>
{/if}
