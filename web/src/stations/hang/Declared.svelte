<script lang="ts">
  // What was declared of a piece when it was hung, and where it hung; a wrong value is corrected on record.
  import type { Schema } from '../../api/client';
  import When from '../../forms/When.svelte';
  import { takesFocus } from '../../keys/focus';
  import { dayAndTime, weekdayAndYear } from '../../units/format';
  import { words } from '../../words';
  import { chosen, Correcting, declared, declaredText, type Field } from './correcting.svelte';
  import Stays from './Stays.svelte';
  import type { Refresh } from './weigh.svelte';

  let { piece, refresh }: { piece: Schema['PieceOut']; refresh: Refresh } = $props();
  const say = words.declared;
  const form = new Correcting(
    () => piece,
    (answer) => refresh(answer),
  );
  const values = $derived(declared(piece));
  const notShown = $derived(piece.card.shape === 'slab' ? 'diameter_mm' : 'thickness_mm');
  const fields = $derived((Object.keys(values) as Field[]).filter((field) => field !== notShown));
  const told = (field: Field, value: string | null): string =>
    value !== null && field === 'hung_at'
      ? dayAndTime(value)
      : (chosen[field]?.[value ?? ''] ?? declaredText(field, value) ?? '–');
  const shown = (field: Field): string =>
    chosen[field]
      ? (chosen[field][values[field]?.toString() ?? 'unknown'] ?? '–')
      : field === 'hung_at'
        ? weekdayAndYear(new Date(piece.card.hung_at))
        : (declaredText(field, values[field]) ?? '–');
</script>

<details class="mt-4">
  <summary class="font-tag min-h-11 cursor-pointer text-lg font-semibold">{say.title}</summary>
  <ul>
    {#each fields as field (field)}
      <li class="border-base-300 border-b">
        <span class="flex min-h-11 items-center justify-between gap-3">
          <span class="quiet flex-1">{say.fields[field]}</span>
          <strong class="text-right">{shown(field)}</strong>
          <button
            class="btn btn-ghost btn-sm min-h-9"
            aria-expanded={form.field === field}
            onclick={() => form.begin(field)}>{say.correct}</button
          >
        </span>
        {#each piece.corrections.filter((c) => c.field === field) as c (c.at + c.now)}
          <span class="quiet block pb-1 text-sm"
            ><s>{told(field, c.was)}</s> {c.reason} · {c.by}, {dayAndTime(c.at)}</span
          >
        {/each}
        {#if form.field === field}
          <form
            onsubmit={(event) => {
              event.preventDefault();
              void form.send();
            }}
            class="flex flex-wrap gap-2 pb-2"
            {@attach takesFocus}
          >
            {#if chosen[field]}
              <select class="select min-h-11 w-40" bind:value={form.text} aria-label={say.fields[field]}>
                {#each Object.entries(chosen[field]) as [key, name] (key)}<option value={key}>{name}</option
                  >{/each}
              </select>
            {:else if field === 'hung_at'}
              <div class="w-full"><When when={form.hung} label={say.whenHung} unset="–" /></div>
            {:else}
              <input
                class="input min-h-11 w-28"
                inputmode="decimal"
                bind:value={form.text}
                aria-label={say.fields[field]}
              />
            {/if}
            <input
              class="input min-h-11 min-w-32 flex-1"
              bind:value={form.reason}
              maxlength="200"
              placeholder={say.why}
              aria-label={say.why}
              required
            />
            <button class="btn btn-primary min-h-11">OK</button>
            {#if form.question}
              <p class="text-warning w-full first-letter:uppercase" role="alert">{form.question}</p>
              <button type="button" class="btn min-h-11" onclick={() => void form.send(true)}>{say.so}</button
              >
            {/if}
            {#if form.problem}<p class="text-error w-full first-letter:uppercase" role="alert">
                {form.problem}
              </p>{/if}
          </form>
        {/if}
      </li>
    {/each}
  </ul>
  {#if piece.hangings.length > 1}<Stays {piece} {refresh} />{/if}
</details>
