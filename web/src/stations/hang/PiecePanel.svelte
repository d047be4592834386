<script lang="ts">
  // A piece beside the room: its date in words, its curve, its weights, what can be done with it.
  import type { Schema } from '../../api/client';
  import LedgerMarks from '../../goods/LedgerMarks.svelte';
  import AtTheHook from './AtTheHook.svelte';
  import DryingCurve from '../../charts/DryingCurve.svelte';
  import { dayAndTime, dayRange, grams, longDay, percent } from '../../units/format';
  import { words } from '../../words/en';
  import Declared from './Declared.svelte';
  import Grounds from './Grounds.svelte';
  import Inside from './Inside.svelte';
  import Mending from './Mending.svelte';
  import Reach from './Reach.svelte';
  import Told from './Told.svelte';
  import type { Refresh } from './weigh.svelte';
  import WeighBox from './WeighBox.svelte';
  import Weights from './Weights.svelte';
  import WhatIfPanel from './WhatIfPanel.svelte';

  interface Props {
    piece: Schema['PieceOut'];
    now: number;
    moving: boolean;
    refresh: Refresh;
    early: string | null;
    onmove: () => void;
    onhook: (hook: Schema['HookRef']) => void;
    ondown: (reason: string) => void;
    onclose: () => void;
  }
  let { piece, now, moving, refresh, early, onmove, onhook, ondown, onclose }: Props = $props();

  const card = $derived(piece.card);
  const doubted = $derived(piece.weighings.filter((w) => w.doubt));
  let takingDown = $state(false);
  $effect(() => {
    void card.id;
    takingDown = false;
  });
</script>

<article aria-label={card.tag}>
  <div class="flex items-start justify-between gap-2">
    <p class="quiet">
      {card.product} · {piece.hangs ? words.hang.where(card.rod, card.hook) : words.piece.tookDown}
    </p>
    <button class="-mt-2 -mr-2 min-h-11 min-w-11 text-xl" aria-label={words.close} onclick={onclose}>✕</button
    >
  </div>
  <div class="flex items-baseline justify-between gap-3">
    <h2 class="font-tag text-3xl font-bold">{card.tag}</h2>
    <p class="text-lg whitespace-nowrap">
      {grams(card.weight_now_g)} · <strong>{percent(card.loss_percent)}</strong>
      {words.piece.of}
      {percent(card.target_loss_percent, 0)}
    </p>
  </div>

  <div class="mt-2" aria-live="polite">
    {#if card.state === 'stalled'}
      <p class="font-tag text-2xl font-semibold">{words.piece.stalled}</p>
      <Reach piece={card.id} />
    {:else if card.state === 'ready' || card.state === 'over'}
      <p class="font-tag text-2xl font-semibold">{words.piece.readyNow}</p>
      <p class="quiet">
        {#if card.ready.p50}{words.piece.readySince(longDay(card.ready.p50))}.{/if}
        {#if card.state === 'over'}<span class="text-error font-semibold"
            >{words.piece.overNow((card.loss_percent - card.target_loss_percent).toFixed(0))}.</span
          >{/if}
        {words.piece.confirmByFeel}
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

  {#if piece.hangs}<Mending {piece} {onhook} />{/if}
  {#if doubted.length}
    <div class="border-warning mt-3 border-l-4 py-1 pl-3">
      <p class="font-semibold">{words.piece.doubt}</p>
      {#each doubted as w (w.id)}<p>
          {words.piece.doubtText(grams(w.gross_g), dayAndTime(w.at), w.doubt ?? '')}
        </p>{/each}
    </div>
  {/if}

  {#if piece.batch_id !== null}<LedgerMarks batch={piece.batch_id} />{/if}
  <div class="mt-3"><DryingCurve {piece} {now} /></div>

  {#if piece.hangs}
    <WeighBox {piece} {refresh} {early} />
  {/if}
  {#if card.state !== 'ready' && card.state !== 'over'}<Grounds piece={card.id} />{/if}
  <Told {piece} {now} />
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
      <button class="btn min-h-11" aria-expanded={takingDown} onclick={() => (takingDown = !takingDown)}
        >{words.piece.takeDown}</button
      >
      {#if takingDown}
        {#each words.piece.takeDownReasons as reason (reason)}
          <button class="btn btn-outline min-h-11" onclick={() => ondown(reason)}>{reason}</button>
        {/each}
      {/if}
    </div>
  {/if}
  <p class="quiet mt-4 text-sm">{words.piece.caution}</p>
</article>
