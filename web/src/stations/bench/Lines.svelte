<script lang="ts">
  // Salt, curing salt and the other lines: share and grams, each moves the other.
  import Num from '../../forms/Num.svelte';
  import { pasting } from '../../forms/pasted';
  import { gramDigits, recipeWeight, unit } from '../../units/quantity';
  import { words } from '../../words';
  import CuringLine from './CuringLine.svelte';
  import type { Desk } from './desk.svelte';
  import LineRow from './LineRow.svelte';
  import PastedLines from './PastedLines.svelte';

  let { desk }: { desk: Desk } = $props();
  let pasted = $state.raw<string[][] | null>(null);
  const say = words.bench;
  const lines = $derived(desk.sheet.lines ?? []);
  const fault = (where: string): string | undefined => desk.faults[where];
  const basis = $derived(
    desk.reference.schools['salt_basis']?.find((school) => school.id === desk.sheet.salt_basis),
  );

  const gramsOf = (key: string): number => desk.grams[key]?.grams ?? 0;
</script>

<section aria-label={say.line} onpaste={pasting((cells) => (pasted = cells))}>
  <table class="rows">
    <thead>
      <tr>
        <th scope="col" class="name">{say.line}</th>
        <th scope="col">{say.share}</th>
        <th scope="col">{say.grams}</th>
        <td></td>
        <th scope="col" class="more">{say.price}</th>
        <th scope="col" class="more left">{say.note}</th>
        <td></td>
      </tr>
    </thead>
    <tbody>
      <tr>
        <td class="name">{say.salt}</td>
        <td>
          <Num
            label={`${say.salt}, ${say.share}`}
            value={desk.sheet.salt_percent}
            digits={3}
            unit="%"
            fault={fault('salt_percent')}
            onset={(n) => {
              desk.sheet.salt_percent = n ?? 0;
              desk.changed();
            }}
          />
        </td>
        <td>
          <Num
            label={`${say.salt}, ${say.grams}`}
            value={gramsOf('salt')}
            digits={gramDigits(gramsOf('salt'))}
            quantity="mass"
            unit={unit.mass}
            onset={(n) => n !== null && desk.setSaltGrams(n)}
          />
        </td>
        <td class="left quiet" colspan="4">{basis?.name ?? ''} </td>
      </tr>
      <CuringLine {desk} />
      {#each lines as line, i (i)}
        <LineRow {desk} {line} {i} />
      {/each}
    </tbody>
    <tfoot>
      <tr>
        <td class="name">
          <button
            class="min-h-11 underline underline-offset-4"
            onclick={() => {
              desk.sheet.lines = [
                ...lines,
                { name: 'Spice', role: 'spice', basis: 'percent', amount: 0.1, note: '', salt_percent: 0 },
              ];
              desk.changed();
            }}>{say.addLine}</button
          >
        </td>
        <td class="quiet text-right">{say.total}</td>
        <td class="pr-4 text-right font-semibold whitespace-nowrap"
          >{recipeWeight(desk.worked?.total_g ?? 0)}</td
        >
        <td colspan="4"></td>
      </tr>
    </tfoot>
  </table>
  <p class="quiet text-sm print:hidden">{say.pasted.way}</p>
  {#if pasted}{#key pasted}<PastedLines {desk} cells={pasted} onclose={() => (pasted = null)} />{/key}{/if}
</section>
