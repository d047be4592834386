<script lang="ts">
  // What is felt, smelled and tasted at the knife; what becomes of the piece, with which weight; good, held, thrown away.
  import type { Schema } from '../../api/client';
  import { onTheScale } from '../../api/standins';
  import Field from '../../forms/Field.svelte';
  import Instrument from '../../forms/Instrument.svelte';
  import When from '../../forms/When.svelte';
  import { session } from '../../shell/session.svelte';
  import { fieldText } from '../../units/quantity';
  import { words } from '../../words';
  import type { CutForm } from './cutform.svelte';
  import Taps from './Taps.svelte';

  interface Props {
    piece: Schema['UnderTheKnife'];
    form: CutForm;
    ondone: (answer: Schema['UnderTheKnife']) => void;
  }
  let { piece, form = $bindable(), ondone }: Props = $props();
  const say = words.cut;

  async function go(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const answer = await form.go();
    if (!answer) return;
    session.say(say.noted(piece.tag));
    ondone(answer);
  }
</script>

<form aria-label={say.open} onsubmit={go}>
  <div class="mt-2">
    <Taps name={say.rows.rim} taps={say.firm} bind:value={form.rim} />
    <Taps name={say.rows.core} taps={say.core} bind:value={form.core} />
    <Taps name={say.rows.smell} taps={say.smells} bind:value={form.smell} />
    {#if form.tasted}
      <Taps name={say.rows.salt} taps={say.salts} bind:value={form.salt} />
      <Taps name={say.rows.taste} taps={say.tastes} many={form.taste} onflip={(taste) => form.flip(taste)} />
      <p class="quiet text-sm">{say.doubt}</p>
    {:else}<p class="text-error">{say.notTasted}</p>{/if}
  </div>
  {#if form.open}
    <fieldset class="mt-3">
      <legend class="font-semibold">{say.ends}</legend>
      <div class="chips">
        {#each ['cut', 'goes_on'] as const as ends (ends)}
          <button
            type="button"
            class="chip"
            aria-pressed={form.ends === ends}
            onclick={() => (form.ends = ends)}>{say.endsOf[ends]}</button
          >
        {/each}
      </div>
      <div class="mt-1 flex flex-wrap items-end gap-2">
        {#if form.ends === 'cut'}
          <div class="w-36"><Field label={say.weight} numeric bind:value={form.weight} /></div>
          <Instrument
            kind="scale"
            simulate={() => onTheScale(piece.piece_id)}
            onvalue={(grams) => (form.weight = fieldText('mass', grams))}
          />
          <button
            type="button"
            class="chip"
            aria-pressed={form.notWeighed}
            onclick={() => {
              form.notWeighed = !form.notWeighed;
              form.weight = '';
            }}>{say.notWeighed}</button
          >
        {:else}
          <div class="w-32"><Field label={say.before} numeric bind:value={form.before} /></div>
          <div class="w-32"><Field label={say.after} numeric bind:value={form.after} /></div>
        {/if}
      </div>
    </fieldset>
  {/if}
  <div class="mt-3 flex flex-wrap items-end gap-2">
    {#each ['good', 'held', 'discarded'] as const as verdict (verdict)}
      <button
        type="button"
        class="chip"
        aria-pressed={form.verdict === verdict}
        onclick={() => (form.verdict = verdict)}>{say.verdicts[verdict]}</button
      >
    {/each}
    <div class="min-w-40 flex-1">
      <Field
        label={form.verdict === 'good' ? say.note : say.why}
        required={form.verdict !== 'good'}
        bind:value={form.note}
      />
    </div>
  </div>
  <When when={form.when} />
  {#if form.question}<p class="border-warning border-l-4 pl-3 first-letter:uppercase" role="alert">
      {form.question}
    </p>{/if}
  {#if form.problem}<p class="text-error first-letter:uppercase" role="alert">{form.problem}</p>{/if}
  <button class="btn btn-primary btn-lg mt-1 w-full" disabled={form.busy}
    >{form.question ? say.keepAnyway : say.keep}</button
  >
</form>

<style>
  .chips {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
    margin-top: 0.25rem;
  }
</style>
