<script lang="ts">
  // Off the hook: the weight it comes down with, what stands against it, and what happens to it next.
  // Long, since one form; what it asks next depends on what becomes of the piece.
  import { untrack } from 'svelte';

  import { createQuery } from '@tanstack/svelte-query';

  import type { Schema } from '../../api/client';
  import { lineQuery } from '../../api/queries';
  import { onTheScale } from '../../api/standins';
  import Field from '../../forms/Field.svelte';
  import Instrument from '../../forms/Instrument.svelte';
  import When from '../../forms/When.svelte';
  import { takesFocus } from '../../keys/focus';
  import { dayAndTime } from '../../units/format';
  import { fieldText, weightAsTyped } from '../../units/quantity';
  import { words } from '../../words';
  import { said } from '../../words/said';
  import { Becoming, HOW, type Kind } from './becoming.svelte';

  interface Props {
    card: Schema['PieceCard'];
    hangs: boolean;
    ondone: (answer: Schema['PieceOut']) => void;
    onclose: () => void;
  }
  let { card, hangs, ondone, onclose }: Props = $props();
  const say = words.life.takeDown;
  const form = untrack(() => new Becoming(card, hangs)); // made anew for each piece by its key
  const line = createQuery(lineQuery);
  const kinds: Kind[] = ['resting', 'cut', 'kept', 'gone', 'down'];
  const last = $derived(card.scale);

  async function go(sure: boolean): Promise<void> {
    const answer = await form.go(sure);
    if (answer) ondone(answer);
  }
</script>

<form
  class="become"
  {@attach takesFocus}
  aria-label={hangs ? say.title(card.tag) : words.life.next}
  onsubmit={(event) => {
    event.preventDefault();
    void go(form.question !== null);
  }}
>
  <div class="flex items-start justify-between">
    <h3 class="font-tag text-xl font-semibold">{hangs ? say.title(card.tag) : words.life.next}</h3>
    <button type="button" class="-mt-2 min-h-11 min-w-11 text-xl" aria-label={words.close} onclick={onclose}
      >✕</button
    >
  </div>
  {#if hangs}
    <div class="flex flex-wrap items-end gap-2">
      <div class="w-44">
        <Field
          label={say.weight}
          numeric
          bind:value={form.weight}
          hint={form.notWeighed ? say.notWeighed : ''}
          onchange={() => form.typed()}
        />
      </div>
      <Instrument
        kind="scale"
        simulate={() => onTheScale(card.id)}
        onvalue={(grams) => {
          form.weight = fieldText('mass', grams);
          form.typed();
        }}
      />
      <button
        type="button"
        class="btn min-h-11"
        class:btn-primary={form.notWeighed}
        aria-pressed={form.notWeighed}
        onclick={() => {
          form.weight = '';
          form.notWeighed = !form.notWeighed;
          void form.look();
        }}>{say.notWeighed}</button
      >
    </div>
    <p class="quiet text-sm">
      {last ? say.last(weightAsTyped(last.gross_g), dayAndTime(last.at)) : say.neverWeighed}
      {#if form.firstShown}· {form.firstShown}. {words.life.scale.second}{/if}
    </p>
    {#if form.question}
      <div class="border-warning mt-2 border-l-4 py-1 pl-3" role="alert">
        <p class="first-letter:uppercase">{form.question}</p>
        <div class="mt-1 flex gap-2">
          <button type="button" class="btn btn-primary min-h-11" onclick={() => form.again()}
            >{words.piece.again}</button
          >
          <button class="btn btn-ghost min-h-11">{words.piece.keep}</button>
        </div>
      </div>
    {/if}
    {#if form.against}
      {#if form.against.against.length}
        <div class="border-warning mt-2 border-l-4 py-1 pl-3">
          <p class="font-semibold">{say.against}</p>
          <ul>
            {#each form.against.against as one, i (i)}<li class="first-letter:uppercase">
                {said(one)}
              </li>{/each}
          </ul>
        </div>
      {:else}<p class="text-success mt-1">{say.nothingAgainst}</p>{/if}
    {/if}
  {/if}
  <fieldset class="mt-2">
    {#if hangs}<legend class="font-semibold">{say.then}</legend>{/if}
    <div class="flex flex-wrap gap-1.5">
      {#each kinds.filter((kind) => hangs || kind !== 'down') as kind (kind)}
        <button
          type="button"
          class="btn min-h-11"
          class:btn-primary={form.kind === kind}
          aria-pressed={form.kind === kind}
          onclick={() => form.pick(kind)}>{say.options[kind]}</button
        >
      {/each}
    </div>
  </fieldset>
  {#if HOW[form.kind].length > 1}
    <div
      class="mt-2 flex flex-wrap gap-1.5"
      role="group"
      aria-label={say.how[form.kind as 'resting' | 'gone']}
    >
      {#each HOW[form.kind] as how (how)}
        <button
          type="button"
          class="btn btn-sm min-h-11"
          class:btn-primary={form.how === how}
          aria-pressed={form.how === how}
          onclick={() => (form.how = how)}>{words.life.ways[how]}</button
        >
      {/each}
    </div>
  {/if}
  <div class="mt-2 grid grid-cols-2 items-end gap-3">
    {#if form.kind !== 'gone'}
      <label class="block">
        <span class="text-sm font-semibold">{say.place}</span>
        <select class="select min-h-11 w-full text-base" bind:value={form.place}>
          <option value={0}>{say.noPlace}</option>
          {#each line.data?.places ?? [] as place (place.id)}<option value={place.id}>{place.name}</option
            >{/each}
        </select>
      </label>
    {/if}
    <Field
      label={form.how === 'discarded' ? say.why : say.note}
      required={form.how === 'discarded'}
      bind:value={form.note}
    />
  </div>
  <When when={form.when} />
  {#if form.problem}<p class="text-error first-letter:uppercase" role="alert">{form.problem}</p>{/if}
  <button class="btn btn-primary mt-1 min-h-11" disabled={form.busy}
    >{hangs ? say.go : words.hook.note}</button
  >
</form>

<style>
  .become {
    margin-top: 0.8rem;
    padding-top: 0.6rem;
    border-top: 2px solid var(--steel-light);
  }
</style>
