<script lang="ts">
  // Make pieces: weigh and measure, Enter, the next one. Tare and measures stay for the next of the batch.
  import { untrack } from 'svelte';

  import type { Schema } from '../../api/client';
  import Field from '../../forms/Field.svelte';
  import { pasting, understand } from '../../forms/pasted';
  import Pasted from '../../forms/Pasted.svelte';
  import Pick from '../../forms/Pick.svelte';
  import When from '../../forms/When.svelte';
  import { session } from '../../shell/session.svelte';
  import { fieldText, weightText } from '../../units/quantity';
  import { words } from '../../words';
  import { NewPieces, type PieceTyped } from './newpieces.svelte';

  let { batch, took }: { batch: Schema['BatchOut']; took: (answer: Schema['BatchOut']) => void } = $props();
  const say = words.bench.batch;
  const making = new NewPieces(
    () => batch,
    untrack(() => batch.casing),
  );
  const { one, tare, when } = making;
  const plan = $derived(making.plan);
  const whole = $derived(plan.goods !== 'minced');
  const across = $derived(plan.shape === 'slab' ? words.bench.across.flat : words.bench.across.round);
  let pasted = $state.raw<string[][] | null>(null);
  const columns = $derived({
    tag: { name: say.tag, also: ['tag', 'piece', 'no', 'cartellino', 'pezzo'], numeric: false },
    gross: { name: say.gross, also: ['weight', 'gross', 'grams', 'g', 'peso', 'lordo'], numeric: true },
    across: {
      name: across,
      also: ['diameter', 'thickness', 'across', 'diametro', 'spessore'],
      numeric: true,
    },
    length: { name: say.length, also: ['length', 'lunghezza'], numeric: true },
    ...(whole && {
      raw: { name: say.raw, also: ['raw', 'crudo'], numeric: true },
      cured: { name: say.cured, also: ['cured', 'salato'], numeric: true },
    }),
  });

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const answer = await making.add();
    if (!answer) return;
    took(answer);
    const made = answer.pieces.at(-1);
    if (made)
      session.say(
        made.tag_g === null ? words.done.tagged(made.tag) : say.tagged(made.tag, weightText(made.tag_g)),
      );
    document.getElementById('gross')?.focus();
  }
  async function addPasted(rows: PieceTyped[]): Promise<void> {
    const answer = await making.addAll(rows);
    if (!answer) return;
    took(answer);
    pasted = null;
    session.say(words.bench.pasted.pieces(rows.length));
  }
</script>

<form class="pieces" onsubmit={add} onpaste={pasting((cells) => (pasted = cells))} aria-label={say.pieces}>
  {#if batch.mixes.length}
    <label class="mb-2 block max-w-sm">
      <span class="block text-sm font-semibold">{say.mixOf}</span>
      <select class="select min-h-11 w-full text-base" bind:value={making.mix}>
        <option value={0}>{say.firstMix}</option>
        {#each batch.mixes as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
      </select>
    </label>
  {/if}
  <h2 class="font-tag text-xl font-semibold">{say.pieces}</h2>
  <p class="quiet">{say.pieceHint} {words.bench.pasted.way}</p>
  {#if pasted}{#key pasted}<Pasted
        found={understand(pasted, columns)}
        {columns}
        fault={(row) => making.fault(row)}
        ontake={addPasted}
        onleave={() => (pasted = null)}
      />{/key}{/if}
  <div class="fields">
    <label class="block">
      <span class="flex text-sm font-semibold">{say.gross}</span>
      <input
        id="gross"
        class="input min-h-11 w-full text-base font-semibold"
        class:input-error={making.problem !== null}
        inputmode="decimal"
        autocomplete="off"
        required={making.byWeight}
        bind:value={one.gross}
      />
    </label>
    <Field label={say.tag} bind:value={one.tag} hint={batch.next_tag} />
    <Field label={across} numeric bind:value={one.across} hint={fieldText('length', plan.across_mm)} />
    <Field label={say.length} numeric bind:value={one.length} />
    <Pick
      label={words.form.casing}
      bind:value={making.casing}
      options={Object.entries(words.casings) as [typeof making.casing, string][]}
    />
    {#if whole}
      <Field label={say.raw} numeric bind:value={one.raw} />
      <Field label={say.cured} numeric bind:value={one.cured} />
    {/if}
  </div>
  <p class="mt-2 text-sm font-semibold">{say.tare}</p>
  <div class="fields">
    <Field label={say.casing} numeric bind:value={tare.casing} />
    <Field label={say.net} numeric bind:value={tare.net} />
    <Field label={say.string} numeric bind:value={tare.string} />
    <Field label={say.coat} numeric bind:value={tare.coat} />
  </div>
  <When {when} />
  {#if making.problem}<p class="text-error mt-2 first-letter:uppercase" role="alert">{making.problem}</p>{/if}
  <button class="btn btn-primary btn-lg mt-3">{say.add}</button>
</form>

<style>
  .pieces {
    margin-top: 1rem;
    max-width: 46rem;
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(4, 1fr);
    gap: 0.6rem 1rem;
    margin-top: 0.3rem;
  }
  @media (max-width: 700px) {
    .fields {
      grid-template-columns: repeat(2, 1fr);
    }
  }
</style>
