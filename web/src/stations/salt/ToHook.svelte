<script lang="ts">
  // Cased and tied: from which weight its loss counts, and what the scale will show at its target.
  import { untrack } from 'svelte';

  import { api, type Schema, take } from '../../api/client';

  import { head } from '../../api/entry';
  import Field from '../../forms/Field.svelte';
  import Pick from '../../forms/Pick.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { optionalAs, tareParts } from '../../forms/typed';
  import { navigate } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { tidyNumber, typedNumber } from '../../units/number';
  import { fieldText, typedAs, weightText } from '../../units/quantity';
  import { words } from '../../words';

  let { detail, ondone }: { detail: Schema['SaltDetail']; ondone: () => void } = $props();
  const say = words.salt.hook;
  const card = $derived(detail.card);
  let basis = $state<Schema['ToHookIn']['loss_basis']>(untrack(() => detail.loss_basis));
  let target = $state(untrack(() => tidyNumber(detail.target_loss_percent, 1)));
  const typed = $state({ gross: '', casing: '', net: '', string: '', coat: '', across: '', length: '' });
  const coat = untrack(() => detail.coat_g); // a start, not a rule
  if (coat !== null) typed.coat = fieldText('mass', coat);
  let doneBy = $state<'weight' | 'feel'>('weight');
  const byWeight = $derived(doneBy === 'weight');
  let fault = $state<string | null>(null);
  let busy = $state(false);
  let casing = $state(untrack(() => detail.casing));
  const moment = new Moment();

  const tare = $derived(
    (['casing', 'net', 'string', 'coat'] as const).reduce(
      (sum, key) => sum + (typedAs('mass', typed[key]) ?? 0),
      0,
    ),
  );
  const net = $derived((typedAs('mass', typed.gross) ?? 0) - tare);
  // what the scale will show, as a preview; the tag's figure comes from the server
  const shows = $derived(
    (['hung', 'cured', 'raw'] as const).map((key) => {
      const base = { hung: net > 0 ? net : null, cured: detail.bases.cured_g, raw: detail.bases.raw_g }[key];
      const loss = typedNumber(target);
      return { key, g: base === null || loss === null ? null : base * (1 - loss / 100) + tare };
    }),
  );

  async function tag(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const gross = typedAs('mass', typed.gross);
    const loss = typedNumber(target);
    const lacking = byWeight ? gross === null || loss === null : gross === null && typed.gross.trim() !== '';
    fault = lacking ? words.errors.noNumber : null;
    if (lacking || busy) return;
    busy = true;
    try {
      const answer = await take(
        api.POST('/api/salt/{piece_id}/hook', {
          params: { path: { piece_id: card.id } },
          body: {
            gross_g: gross,
            ...tareParts(typed),
            across_mm: optionalAs('length', typed.across),
            length_mm: optionalAs('length', typed.length),
            target_loss_percent: byWeight ? loss : null,
            loss_basis: basis,
            casing,
            ...head(moment),
          },
        }),
      );
      session.say(
        answer.target_gross_g === null
          ? words.done.tagged(answer.tag)
          : say.tagged(answer.tag, weightText(answer.target_gross_g)),
      );
      ondone();
      void navigate('/bench/batch/:id', { params: { id: String(answer.batch_id) } });
    } catch (error) {
      fault = error instanceof Error ? error.message : words.errors.unexpected(0);
    } finally {
      busy = false;
    }
  }
</script>

<form class="mt-4" aria-label={say.title} onsubmit={tag}>
  <h3 class="font-tag text-lg font-semibold">{say.title}</h3>
  {#if detail.next_steps.includes('coat')}<p class="text-info">{say.coatFirst}</p>{/if}
  <div class="grid grid-cols-3 gap-x-3 gap-y-2">
    <Field label={say.gross} numeric required={byWeight} bind:value={typed.gross} fault={fault !== null} />
    <Field
      label={card.geometry === 'slab' ? say.thick : say.across}
      numeric
      bind:value={typed.across}
      hint={fieldText('length', card.across_mm, 0)}
    />
    <Field label={say.length} numeric bind:value={typed.length} />
    <Field label={say.casing} numeric bind:value={typed.casing} />
    <Field label={say.net} numeric bind:value={typed.net} />
    <Field label={say.string} numeric bind:value={typed.string} />
    <Field label={say.coat} numeric bind:value={typed.coat} />
    {#if byWeight}<Field label={say.target} numeric bind:value={target} />{/if}
  </div>
  <div class="mt-2 grid grid-cols-2 gap-3">
    <Pick
      label={words.done.by}
      bind:value={doneBy}
      options={[
        ['weight', words.done.ways.weight],
        ['feel', words.done.feelOrDays],
      ]}
    />
    <Pick
      label={words.form.casing}
      bind:value={casing}
      options={Object.entries(words.casings) as [typeof casing, string][]}
    />
    <When when={moment} />
  </div>
  {#if !byWeight}<p class="quiet mt-1 text-sm">{words.done.means.feel}</p>{/if}
  <fieldset class="mt-2" hidden={!byWeight}>
    <legend class="text-sm font-semibold">{say.basis}</legend>
    {#each shows as one (one.key)}
      <label class="flex min-h-11 items-center gap-2">
        <input type="radio" class="radio radio-sm" value={one.key} bind:group={basis} />
        <span class="flex-1">{say.bases[one.key]}</span>
        <span class="quiet">{one.g === null ? '' : say.shows(weightText(one.g))}</span>
      </label>
    {/each}
  </fieldset>
  {#if fault}<p class="text-error first-letter:uppercase" role="alert">{fault}</p>{/if}
  <button class="btn btn-primary mt-1 min-h-11" disabled={busy}>{say.tag}</button>
</form>
