<script lang="ts">
  // A piece beside the room: its date in words, its curve, its weights, what can be done with it.
  // Long, since the order of what is told of a piece is its matter; each part is a component of its own.
  import type { Schema } from '../../api/client';
  import LedgerMarks from '../../goods/LedgerMarks.svelte';
  import AsTable from '../../charts/AsTable.svelte';
  import AfterHook from './AfterHook.svelte';
  import Assumed from './Assumed.svelte';
  import AtTheHook from './AtTheHook.svelte';
  import Become from './Become.svelte';
  import DryingCurve from '../../charts/DryingCurve.svelte';
  import { p } from '../../shell/router';
  import { dayAndTime, dayRange, longDay, percent } from '../../units/format';
  import { numberText } from '../../units/number';
  import { weightAsTyped, weightText } from '../../units/quantity';
  import { words } from '../../words';
  import { said } from '../../words/said';
  import Declared from './Declared.svelte';
  import Grounds from './Grounds.svelte';
  import Inside from './Inside.svelte';
  import Mending from './Mending.svelte';
  import Reach from './Reach.svelte';
  import Slice from './Slice.svelte';
  import Told from './Told.svelte';
  import type { Refresh } from './weigh.svelte';
  import WeighBox from './WeighBox.svelte';
  import Weights from './Weights.svelte';
  import WhatIfPanel from './WhatIfPanel.svelte';

  interface Props {
    piece: Schema['PieceOut'];
    /** It lies on a shelf instead of hanging from a rod. */
    shelf: boolean;
    now: number;
    moving: boolean;
    refresh: Refresh;
    early: string | null;
    onmove: () => void;
    onhook: (hook: Schema['HookRef']) => void;
    ondown: (answer: Schema['PieceOut']) => void;
    onclose: () => void;
  }
  let { piece, shelf, now, moving, refresh, early, onmove, onhook, ondown, onclose }: Props = $props();
  const say = words.life.scale;

  const card = $derived(piece.card);
  const doubted = $derived(
    piece.hangs
      ? piece.weighings.filter((w) => w.struck_at === null && (w.doubt || (w.kept && !w.confirmed)))
      : [],
  );
  let doing = $state<'down' | 'slice' | null>(null);
  const chosen = $derived(card.id); // a newer date of the same piece closes no form
  $effect(() => {
    void chosen;
    doing = null;
  });
</script>

<article aria-label={card.tag}>
  <div class="flex items-start justify-between gap-2">
    <p class="quiet">
      {card.product} · {piece.hangs
        ? shelf
          ? words.hang.lies(card.rod)
          : words.hang.where(card.rod, card.hook)
        : words.life.kinds[card.life.kind]} ·
      <a
        class="underline underline-offset-4"
        href={p('/bench/batch/:id', { params: { id: String(piece.batch_id) } })}>{card.batch}</a
      >
    </p>
    <button class="-mt-2 -mr-2 min-h-11 min-w-11 text-xl" aria-label={words.close} onclick={onclose}>✕</button
    >
  </div>
  <div class="flex items-baseline justify-between gap-3">
    <h2 class="font-tag text-3xl font-bold">{card.tag}</h2>
    <p class="text-lg whitespace-nowrap">
      {card.tag_g !== null
        ? say.tag(weightText(card.tag_g))
        : card.done_days !== null
          ? words.done.afterDays(card.done_days)
          : words.done.tag.feel}
    </p>
  </div>
  <p class="mt-1 text-lg" data-testid="scale">
    {#if card.scale?.doubt}
      {say.doubted(weightAsTyped(card.scale.gross_g), dayAndTime(card.scale.at))}
    {:else if card.scale && card.scale.loss_percent !== null}
      {say.says(
        weightAsTyped(card.scale.gross_g),
        percent(card.scale.loss_percent),
        card.target_loss_percent === null ? null : percent(card.target_loss_percent, 0),
        dayAndTime(card.scale.at),
      )}{#if card.scale.confirmed}<span class="quiet">, {say.confirmed}</span>{/if}
    {:else if card.start_weight_g === null}{words.done.noScale}
    {:else}{say.never}{/if}
    {#if piece.hangs}<span class="quiet block text-base"
        >{card.model_weight_g === null || card.target_loss_percent === null
          ? words.done.model(
              percent(card.model_loss_percent, 0),
              percent(card.model_loss_low_percent, 0),
              percent(card.model_loss_high_percent, 0),
            )
          : say.model(weightText(card.model_weight_g), percent(card.model_loss_percent))}</span
      >{/if}
  </p>

  {#if !piece.hangs}
    {#key card.id}<AfterHook {piece} {refresh} {moving} onhangagain={onmove} />{/key}
  {:else}
    <div class="mt-2" aria-live="polite">
      {#if piece.dates_being_made}<p class="quiet" role="status">{say.making}</p>{/if}
      {#if card.state === 'stalled'}
        <p class="font-tag text-2xl font-semibold">{words.piece.stalled}</p>
        <Reach piece={card.id} />
      {:else if card.state === 'ready' || card.state === 'over'}
        <p class="font-tag text-2xl font-semibold">{say.ready}</p>
        <p class="quiet">
          {#if card.scale}{say.readyOn(weightAsTyped(card.scale.gross_g), longDay(card.scale.at))}{/if}
          {#if card.state === 'over'}<span class="text-error font-semibold"
              >{words.piece.overNow(numberText(card.loss_percent - card.aim_percent, 0))}.</span
            >{/if}
          {words.piece.confirmByFeel}
          {#if card.wants.includes('ring')}<span class="text-warning">{words.done.ringWhy}</span>{/if}
        </p>
      {:else if card.state === 'hold'}
        <p class="font-tag text-error text-2xl font-semibold">{words.done.held}</p>
        <p>{words.done.heldWhy(percent(card.loss_percent, 0))}</p>
      {:else if card.state === 'felt'}
        <p class="font-tag text-2xl font-semibold">{words.done.felt}</p>
        <p class="quiet">{words.done.feltWhy}</p>
      {:else if card.feel_from && card.feel_to}
        <p class="font-tag text-2xl font-semibold" data-testid="worth-feeling">
          {card.state === 'feel' ? words.done.worthNow : words.done.worthFrom(longDay(card.feel_from))}
        </p>
        <p class="quiet">
          {card.done_days === null ? words.done.worthWhy(percent(card.aim_percent, 0)) : words.done.daysWhy}
        </p>
      {:else if card.state === 'likely'}
        <p class="font-tag text-2xl font-semibold">{say.likely}</p>
        <p class="quiet">
          {#if card.ready.p10 && card.ready.p90}{dayRange(card.ready.p10, card.ready.p90)}.{/if}
          {say.likelyWhy}
        </p>
      {:else if card.ready.p50 && card.ready.p10 && card.ready.p90}
        <p class="font-tag text-2xl font-semibold" data-testid="ready">
          {words.piece.readyAbout(longDay(card.ready.p50))}
        </p>
        <p class="quiet" data-testid="window">
          {words.piece.between(dayRange(card.ready.p10, card.ready.p90))}.
          {#if card.wants.includes('weigh')}{words.piece.weighNote}{/if}
        </p>
      {/if}
    </div>
  {/if}

  {#if piece.hangs}
    <Assumed assumed={piece.assumed} reaches={piece.reaches} outside={piece.outside} />
    <Mending {piece} {now} {onhook} />
  {/if}
  {#if doubted.length}
    <div class="border-warning mt-3 border-l-4 py-1 pl-3">
      <p class="font-semibold">{words.piece.doubt}</p>
      {#each doubted as w (w.id)}<p>
          {words.piece.doubtText(weightText(w.gross_g), dayAndTime(w.at), w.doubt ? said(w.doubt) : say.kept)}
        </p>{/each}
    </div>
  {/if}

  <LedgerMarks batch={piece.batch_id} />
  <div class="mt-3"><DryingCurve {piece} {now} /></div>
  <AsTable
    name={words.piece.curveTable}
    head={[words.tables.when, ...words.tables.loss]}
    rows={piece.curve.at.map((at, i) => [
      dayAndTime(at),
      ...[piece.curve.low, piece.curve.middle, piece.curve.high].map((values) => percent(values[i] ?? 0)),
    ])}
    file="/api/pieces/{piece.card.id}/curve.csv"
  />

  {#if piece.hangs}
    <WeighBox {piece} {refresh} {early} />
  {/if}
  {#if piece.hangs && card.state !== 'ready' && card.state !== 'over'}<Grounds piece={card.id} />{/if}
  {#if piece.hangs}<Told {piece} {now} />{/if}
  <Inside {piece} {now} />
  {#if piece.hangs}
    <WhatIfPanel {piece} />
    <AtTheHook piece={card.id} />
  {/if}
  <Weights {piece} {refresh} />
  <Declared {piece} {refresh} />

  {#if piece.hangs}
    <div class="mt-4 flex flex-wrap items-center gap-2">
      <button class="btn min-h-11" class:btn-primary={moving} onclick={onmove} aria-pressed={moving}>
        {moving ? words.piece.moveHint : words.piece.move} <kbd class="opacity-60">m</kbd>
      </button>
      <button
        class="btn min-h-11"
        aria-expanded={doing === 'down'}
        onclick={() => (doing = doing === 'down' ? null : 'down')}>{words.piece.takeDown}</button
      >
      <button
        class="btn min-h-11"
        aria-expanded={doing === 'slice'}
        onclick={() => (doing = doing === 'slice' ? null : 'slice')}>{words.life.slice.title}</button
      >
    </div>
    {#key card.id}
      {#if doing === 'down'}<Become {card} hangs ondone={ondown} onclose={() => (doing = null)} />{/if}
      {#if doing === 'slice'}<Slice {card} {refresh} onclose={() => (doing = null)} />{/if}
    {/key}
  {/if}
  <p class="quiet mt-4 text-sm">{words.piece.caution}</p>
</article>
