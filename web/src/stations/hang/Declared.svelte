<script lang="ts">
  // What was declared of a piece when it was hung; a wrong value is corrected on record.
  import { api, type Schema, take } from '../../api/client';
  import { head } from '../../api/entry';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { dayAndTime, fullDay, typedNumber } from '../../units/format';
  import { words } from '../../words/en';
  import type { Refresh } from './weigh.svelte';

  let { piece, refresh }: { piece: Schema['PieceOut']; refresh: Refresh } = $props();
  const say = words.declared;
  type Field = Schema['CorrectionIn']['field'];

  const values = $derived<Record<Field, number | Schema['PieceOut']['casing'] | null>>({
    start_weight_g: piece.card.start_weight_g,
    tare_g: piece.card.tare_g,
    target_loss_percent: piece.card.target_loss_percent,
    diameter_mm: piece.diameter_mm,
    thickness_mm: piece.thickness_mm,
    length_mm: piece.declared_length_mm,
    casing: piece.casing,
  });
  const shownValue = (field: Field): string =>
    field === 'casing' ? words.casings[piece.casing] : (values[field]?.toString() ?? '–');
  const shown = $derived(
    (Object.keys(values) as Field[]).filter(
      (field) => field !== (piece.card.shape === 'slab' ? 'diameter_mm' : 'thickness_mm'),
    ),
  );
  let correcting = $state<Field | null>(null);
  let value = $state('');
  let reason = $state('');
  let problem = $state<string | null>(null);
  const when = new Moment();

  function begin(field: Field): void {
    correcting = correcting === field ? null : field;
    value = values[field]?.toString() ?? '';
    reason = '';
    problem = null;
  }
  async function correct(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const number = typedNumber(value);
    if (!correcting || (correcting !== 'casing' && number === null && value.trim() !== '')) {
      problem = words.errors.noNumber;
      return;
    }
    try {
      refresh(
        await take(
          api.POST('/api/pieces/{piece_id}/correct', {
            params: { path: { piece_id: piece.card.id } },
            body: {
              field: correcting,
              value: correcting === 'casing' ? (value as Schema['PieceOut']['casing']) : number,
              reason,
              ...head(when),
            },
          }),
        ),
      );
      correcting = null;
      when.clear();
    } catch (error) {
      problem = error instanceof Error ? error.message : words.errors.unexpected(0);
    }
  }
</script>

<details class="mt-4">
  <summary class="font-tag min-h-11 cursor-pointer text-lg font-semibold">{say.title}</summary>
  <p class="quiet">{say.hung(fullDay(piece.card.hung_at))}</p>
  <ul>
    {#each shown as field (field)}
      <li class="border-base-300 border-b">
        <span class="flex min-h-11 items-center justify-between gap-3">
          <span class="quiet flex-1">{say.fields[field]}</span>
          <strong>{shownValue(field)}</strong>
          <button
            class="btn btn-ghost btn-sm min-h-9"
            aria-expanded={correcting === field}
            onclick={() => begin(field)}>{say.correct}</button
          >
        </span>
        {#each piece.corrections.filter((c) => c.field === field) as c (c.at + c.now)}
          <span class="quiet block pb-1 text-sm"
            ><s>{c.was ?? '–'}</s> {c.reason} · {c.by}, {dayAndTime(c.at)}</span
          >
        {/each}
        {#if correcting === field}
          <form onsubmit={correct} class="flex flex-wrap gap-2 pb-2">
            {#if field === 'casing'}
              <select class="select min-h-11 w-40" bind:value aria-label={say.fields[field]}>
                {#each Object.entries(words.casings) as [key, name] (key)}<option value={key}>{name}</option
                  >{/each}
              </select>
            {:else}
              <input
                class="input min-h-11 w-28"
                inputmode="decimal"
                bind:value
                aria-label={say.fields[field]}
              />
            {/if}
            <input
              class="input min-h-11 min-w-32 flex-1"
              bind:value={reason}
              maxlength="200"
              placeholder={say.why}
              aria-label={say.why}
              required
            />
            <button class="btn btn-primary min-h-11">OK</button>
            <div class="w-full"><When {when} /></div>
            {#if problem}<p class="text-error w-full first-letter:uppercase" role="alert">{problem}</p>{/if}
          </form>
        {/if}
      </li>
    {/each}
  </ul>
</details>
