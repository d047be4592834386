<script lang="ts">
  // One field for the weight on the scale; Enter stores it, a doubtful one is asked about first.
  import { untrack } from 'svelte';

  import type { Schema } from '../../api/client';
  import { onTheScale } from '../../api/standins';
  import Instrument from '../../forms/Instrument.svelte';
  import When from '../../forms/When.svelte';
  import { standOn } from '../../keys/focus';
  import { fieldText, unit, weightText } from '../../units/quantity';
  import { words } from '../../words';
  import { type Refresh, WeighEntry } from './weigh.svelte';

  interface Props {
    piece: Schema['PieceOut'];
    refresh: Refresh;
    /** What was typed before the piece was on screen; null when nothing was begun. */
    early: string | null;
  }
  let { piece, refresh, early }: Props = $props();

  let box = $state<HTMLInputElement | null>(null);
  const entry = new WeighEntry(
    () => piece.card,
    (answer) => refresh(answer),
  );
  const chosen = $derived(piece.card.id); // the same piece with a newer date leaves what is being typed alone
  $effect(() => {
    void chosen;
    entry.leave(untrack(() => early) ?? '');
    if (untrack(() => early) !== null) box?.focus();
  });

  async function submit(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const stored = await entry.store(entry.question !== null);
    const panel = box?.closest('article');
    if (stored && panel) standOn(panel); // what the scale says now, and the new date, are read from its top
  }
</script>

<form onsubmit={submit} class="mt-3">
  <label class="flex items-center gap-3">
    <span class="font-tag text-lg font-semibold">{words.piece.weigh} <kbd class="quiet text-sm">w</kbd></span>
    <span class="relative flex-1">
      <input
        id="weigh"
        bind:this={box}
        class="input input-lg w-full pr-8 text-2xl font-semibold"
        inputmode="decimal"
        autocomplete="off"
        placeholder={piece.expected_low_g === null || piece.expected_high_g === null
          ? ''
          : `${fieldText('mass', piece.expected_low_g, 0)}–${fieldText('mass', piece.expected_high_g, 0)}`}
        aria-label={words.piece.weighing}
        bind:value={entry.text}
        oninput={() => entry.retype()}
      />
      <span class="quiet pointer-events-none absolute top-1/2 right-3 -translate-y-1/2">{unit.mass}</span>
    </span>
    <button class="btn btn-primary btn-lg" disabled={entry.busy || entry.text.trim() === ''}>OK</button>
  </label>
  <div class="mt-1">
    <Instrument
      kind="scale"
      cable
      simulate={() => onTheScale(piece.card.id)}
      onvalue={(weight) => {
        entry.text = fieldText('mass', weight);
        entry.retype();
        box?.focus();
      }}
    />
  </div>
  <When when={entry.when} />
  {#if entry.first !== null}<p class="quiet">
      {words.life.scale.first(weightText(entry.first))}. {words.life.scale.second}
    </p>{/if}
  {#if entry.problem}<p class="text-error mt-1" role="alert">{entry.problem}</p>{/if}
  {#if entry.question}
    <div class="border-warning mt-2 border-l-4 py-1 pl-3" role="alert">
      <p class="font-semibold">{words.piece.asked(weightText(entry.grams ?? 0))}</p>
      <p class="first-letter:uppercase">{entry.question}</p>
      <div class="mt-1 flex gap-2">
        <button
          type="button"
          class="btn btn-primary min-h-11"
          onclick={() => {
            entry.again();
            document.getElementById('weigh')?.focus();
          }}>{words.piece.again}</button
        >
        <button class="btn btn-ghost min-h-11">{words.piece.keep}</button>
      </div>
    </div>
  {/if}
</form>
