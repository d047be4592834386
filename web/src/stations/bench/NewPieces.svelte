<script lang="ts">
  // Make pieces: weigh and measure, Enter, the next one. Tare and measures stay for the next of the batch.
  import { api, type Schema, take } from '../../api/client';
  import { head } from '../../api/entry';
  import { untrack } from 'svelte';

  import Field from '../../forms/Field.svelte';
  import Pick from '../../forms/Pick.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { optionalAs, tareParts } from '../../forms/typed';
  import { session } from '../../shell/session.svelte';
  import { fieldText, typedAs, weightText } from '../../units/quantity';
  import { words } from '../../words';

  let { batch, took }: { batch: Schema['BatchOut']; took: (answer: Schema['BatchOut']) => void } = $props();
  const say = words.bench.batch;
  // only a batch with a sheet is tagged here
  const plan = $derived(batch.sheet?.plan as NonNullable<Schema['BatchOut']['sheet']>['plan']);
  const byWeight = $derived((plan.done_by ?? 'weight') === 'weight');
  const whole = $derived(plan.goods !== 'minced');

  let gross = $state('');
  let tag = $state('');
  let across = $state('');
  let length = $state('');
  let raw = $state('');
  let cured = $state('');
  let mix = $state(0); // 0: of the first
  let casing = $state(untrack(() => batch.casing)); // another one for some of its pieces
  const tare = $state({ casing: '', net: '', string: '', coat: '' });
  let problem = $state<string | null>(null);
  let where = $state<string | null>(null);
  let busy = $state(false);
  const when = new Moment();

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (busy) return; // Enter struck twice is one piece
    const weight = typedAs('mass', gross);
    if (weight === null && (byWeight || gross.trim() !== '')) {
      [problem, where] = [words.errors.noNumber, 'gross_g'];
      return;
    }
    const flat = plan.shape === 'slab';
    const typed = { gross, tag, raw, cured };
    const label = tag.trim() || null;
    gross = tag = raw = cured = '';
    busy = true;
    try {
      const size = optionalAs('length', across, 'across');
      const answer = await take(
        api.POST('/api/batches/{batch_id}/pieces', {
          params: { path: { batch_id: batch.id } },
          body: {
            ...head(when),
            pieces: [
              {
                tag: label,
                mix_id: mix || null,
                gross_g: weight,
                ...tareParts(tare),
                raw_g: optionalAs('mass', typed.raw),
                cured_g: optionalAs('mass', typed.cured),
                diameter_mm: flat ? null : size,
                thickness_mm: flat ? size : null,
                length_mm: optionalAs('length', length),
                casing,
                target_loss_percent: byWeight ? plan.target_loss_percent : null,
                loss_basis: plan.loss_basis ?? 'hung',
              },
            ],
          },
        }),
      );
      took(answer);
      const made = answer.pieces.at(-1);
      if (made)
        session.say(
          made.tag_g === null ? words.done.tagged(made.tag) : say.tagged(made.tag, weightText(made.tag_g)),
        );
      problem = where = null;
      document.getElementById('gross')?.focus();
    } catch (error) {
      problem = error instanceof Error ? error.message : words.errors.unexpected(0);
      where = problem;
      ({ gross, tag, raw, cured } = typed);
    } finally {
      busy = false;
    }
  }
</script>

<form class="pieces" onsubmit={add} aria-label={say.pieces}>
  {#if batch.mixes.length}
    <label class="mb-2 block max-w-sm">
      <span class="block text-sm font-semibold">{say.mixOf}</span>
      <select class="select min-h-11 w-full text-base" bind:value={mix}>
        <option value={0}>{say.firstMix}</option>
        {#each batch.mixes as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
      </select>
    </label>
  {/if}
  <h2 class="font-tag text-xl font-semibold">{say.pieces}</h2>
  <p class="quiet">{say.pieceHint}</p>
  <div class="fields">
    <label class="block">
      <span class="flex text-sm font-semibold">{say.gross}</span>
      <input
        id="gross"
        class="input min-h-11 w-full text-base font-semibold"
        class:input-error={where !== null}
        inputmode="decimal"
        autocomplete="off"
        required={byWeight}
        bind:value={gross}
      />
    </label>
    <Field label={say.tag} bind:value={tag} hint={batch.next_tag} />
    <Field
      label={plan.shape === 'slab' ? words.bench.across.flat : words.bench.across.round}
      numeric
      bind:value={across}
      hint={fieldText('length', plan.across_mm)}
    />
    <Field label={say.length} numeric bind:value={length} />
    <Pick
      label={words.form.casing}
      bind:value={casing}
      options={Object.entries(words.casings) as [typeof casing, string][]}
    />
    {#if whole}
      <Field label={say.raw} numeric bind:value={raw} />
      <Field label={say.cured} numeric bind:value={cured} />
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
  {#if problem}<p class="text-error mt-2 first-letter:uppercase" role="alert">{problem}</p>{/if}
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
