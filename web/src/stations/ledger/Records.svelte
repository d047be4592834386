<script lang="ts">
  // What was entered for the ledger of a batch: laboratory, parasites, what was done; struck where it was wrong.
  import { api, type Schema, take } from '../../api/client';
  import Reason from '../../forms/Reason.svelte';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime, fullDay } from '../../units/format';
  import { tidyNumber } from '../../units/number';
  import { temperatureText } from '../../units/quantity';
  import { words } from '../../words';
  import { nameOf } from '../../words/said';

  let { ledger, took }: { ledger: Schema['LedgerOut']; took: (answer: Schema['LedgerOut']) => void } =
    $props();
  const say = words.ledger;
  type Path =
    | '/api/laboratory/{result_id}/strike'
    | '/api/parasites/{step_id}/strike'
    | '/api/meat/{note_id}/strike'
    | '/api/steps/{step_id}/strike';
  interface Row {
    key: string;
    id: number;
    path: Path;
    text: string;
    said: string;
    /** Why it does not count; null where it does. */
    struck: string | null;
  }
  const rows = $derived<Row[]>([
    ...ledger.laboratory.map((one) => ({
      key: `lab-${one.id}`,
      id: one.id,
      path: '/api/laboratory/{result_id}/strike' as const,
      text: `${say.labWhat[one.what] ?? one.what} ${tidyNumber(one.value, 3)}${one.unit && ` ${one.unit}`}${one.tag ? `, ${one.tag}` : ''}`,
      said: `${one.note} · ${fullDay(one.at)}, ${one.by}`,
      struck: one.struck_reason,
    })),
    ...ledger.parasites.map((one) => ({
      key: `parasite-${one.id}`,
      id: one.id,
      path: '/api/parasites/{step_id}/strike' as const,
      text: `${nameOf('species', one.species)}: ${nameOf('parasite_way', one.way)}${one.temperature_c === null ? '' : `, ${temperatureText(one.temperature_c)}, ${one.days ?? '?'} ${words.dayUnit}`}`,
      said: `${one.note} ${one.by}`,
      struck: one.struck_reason,
    })),
    ...ledger.meat.map((one) => ({
      key: `meat-${one.id}`,
      id: one.id,
      path: '/api/meat/{note_id}/strike' as const,
      text: [
        say.meatKinds[one.kind],
        one.place,
        one.temperature_c === null ? null : temperatureText(one.temperature_c),
      ]
        .filter(Boolean)
        .join(', '),
      said: `${one.note} · ${dayAndTime(one.at)}${one.to_at ? ` – ${dayAndTime(one.to_at)}` : ''}, ${one.by}`,
      struck: one.struck_reason,
    })),
    ...ledger.steps.map((one) => ({
      key: `step-${one.id}`,
      id: one.id,
      path: '/api/steps/{step_id}/strike' as const,
      text: `${say.names[one.hurdle] ?? one.hurdle}: ${say.steps[one.step] ?? one.step}`,
      said: `${one.note} · ${fullDay(one.at)}, ${one.by}`,
      struck: one.struck_reason,
    })),
  ]);
  let striking = $state<string | null>(null);

  async function strike(row: Row, reason: string): Promise<void> {
    striking = null;
    const body = { reason, by: session.who };
    try {
      if (row.path === '/api/laboratory/{result_id}/strike')
        took(await take(api.POST(row.path, { params: { path: { result_id: row.id } }, body })));
      else if (row.path === '/api/meat/{note_id}/strike')
        took(await take(api.POST(row.path, { params: { path: { note_id: row.id } }, body })));
      else took(await take(api.POST(row.path, { params: { path: { step_id: row.id } }, body })));
    } catch (error) {
      session.complain(error);
    }
  }
</script>

{#if rows.length}
  <section class="mt-5" aria-label={say.recorded}>
    <h2 class="font-tag text-xl font-semibold">{say.recorded}</h2>
    <ul class="text-sm">
      {#each rows as row (row.key)}
        <li class="flex items-baseline gap-2 py-1">
          <span class="flex-1"
            ><span class:line-through={row.struck !== null}
              ><strong class="first-letter:uppercase">{row.text}</strong>
              <span class="quiet">{row.said}</span></span
            >{#if row.struck !== null}<span class="quiet block">{words.hook.struck(row.struck)}</span
              >{/if}</span
          >
          {#if row.struck === null}<button
              type="button"
              class="quiet min-h-8 underline"
              onclick={() => (striking = row.key)}>{say.strike}</button
            >{/if}
        </li>
        {#if striking === row.key}
          <li>
            <Reason
              label={say.strikeWhy}
              button={say.strike}
              onanswer={(reason) => void strike(row, reason)}
            />
          </li>
        {/if}
      {/each}
    </ul>
  </section>
{/if}
