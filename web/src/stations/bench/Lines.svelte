<script lang="ts">
  // Salt, curing salt and the other lines: share and grams, each moves the other.
  import Num from '../../forms/Num.svelte';
  import { cellsOf, pastedTable } from '../../forms/pasted';
  import { gramDigits, recipeWeight, unit } from '../../units/quantity';
  import { words } from '../../words';
  import { textOf } from '../../words/said';
  import type { Desk, Line } from './desk.svelte';
  import PastedLines from './PastedLines.svelte';

  let { desk }: { desk: Desk } = $props();
  let pasted = $state.raw<string[][] | null>(null);
  const say = words.bench;
  const lines = $derived(desk.sheet.lines ?? []);
  const curing = $derived(desk.sheet.curing);
  const salts = $derived(desk.reference.curing_salts);
  const fault = (where: string): string | undefined => desk.faults[where];
  const known = $derived(
    curing
      ? (salts.find(
          (salt) =>
            salt.name === textOf(curing.name) &&
            salt.nitrite_fraction === curing.nitrite_fraction &&
            salt.nitrate_fraction === curing.nitrate_fraction,
        )?.id ?? 'own')
      : 'none',
  );
  const basis = $derived(
    desk.reference.schools['salt_basis']?.find((school) => school.id === desk.sheet.salt_basis),
  );

  function pickCuring(id: string): void {
    const salt = salts.find((found) => found.id === id);
    const percent = curing?.percent ?? 0.25;
    if (id === 'none') desk.sheet.curing = null;
    else if (salt) {
      const { name, nitrite_fraction, nitrate_fraction } = salt;
      desk.sheet.curing = { name, percent, nitrite_fraction, nitrate_fraction, by_spoon: false };
    } else {
      desk.sheet.curing = {
        name: say.curing,
        percent,
        nitrite_fraction: curing?.nitrite_fraction ?? 0.05,
        nitrate_fraction: curing?.nitrate_fraction ?? 0,
        by_spoon: false,
      };
    }
    desk.changed();
  }
  function shareOf(line: Line, i: number): number {
    const inGrams = line.basis === 'absolute' || line.basis === 'fixed';
    return inGrams ? (desk.grams[`line-${i}`]?.percent_of_meat ?? 0) : line.amount;
  }
  const gramsOf = (key: string): number => desk.grams[key]?.grams ?? 0;
</script>

{#snippet curingPick()}
  <select
    class="pick"
    aria-label={say.curing}
    value={known}
    onchange={(e) => pickCuring(e.currentTarget.value)}
  >
    <option value="none">{say.curing}: {say.noCuring}</option>
    {#each salts as salt (salt.id)}<option value={salt.id}>{salt.name}</option>{/each}
    <option value="own">{say.ownCuring}</option>
  </select>
{/snippet}

<section
  aria-label={say.line}
  onpaste={async (event) => {
    const text = pastedTable(event);
    if (text) pasted = await cellsOf(text);
  }}
>
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
      <tr>
        <td class="name">{say.curing}</td>
        {#if curing}
          <td>
            <Num
              label={`${say.curing}, ${say.share}`}
              value={curing.percent}
              digits={4}
              unit="%"
              fault={fault('curing.percent')}
              onset={(n) => {
                curing.percent = n ?? 0;
                desk.changed();
              }}
            />
          </td>
          <td>
            <Num
              label={`${say.curing}, ${say.grams}`}
              value={gramsOf('curing')}
              digits={2}
              quantity="mass"
              unit={unit.mass}
              onset={(n) => n !== null && desk.setCuringGrams(n)}
            />
          </td>
          <td class="left" colspan="4">
            {@render curingPick()}
            {#if known === 'own'}
              <span class="inline-flex items-baseline gap-2">
                <Num
                  label={say.nitrite}
                  value={100 * curing.nitrite_fraction}
                  digits={3}
                  fault={fault('curing.nitrite_fraction')}
                  onset={(n) => {
                    curing.nitrite_fraction = (n ?? 0) / 100;
                    desk.changed();
                  }}
                /><span class="quiet">{say.nitrite}</span>
                <Num
                  label={say.nitrate}
                  value={100 * curing.nitrate_fraction}
                  digits={3}
                  fault={fault('curing.nitrate_fraction')}
                  onset={(n) => {
                    curing.nitrate_fraction = (n ?? 0) / 100;
                    desk.changed();
                  }}
                /><span class="quiet">{say.nitrate}</span>
              </span>
            {:else}
              <label class="quiet inline-flex min-h-11 items-center gap-2">
                <input
                  type="checkbox"
                  class="checkbox checkbox-sm"
                  bind:checked={curing.by_spoon}
                  onchange={() => desk.changed()}
                />{say.spoon}
              </label>
            {/if}
          </td>
        {:else}
          <td></td>
          <td></td>
          <td class="left" colspan="4">
            {@render curingPick()}
          </td>
        {/if}
      </tr>
      {#each lines as line, i (i)}
        <tr>
          <td class="name">
            <input
              class="word"
              aria-label={`${say.line} ${i + 1}`}
              bind:value={line.name}
              oninput={() => desk.changed()}
            />
          </td>
          <td>
            <Num
              label={`${line.name}, ${say.share}`}
              value={shareOf(line, i)}
              digits={4}
              quantity={line.basis === 'per_kg' ? 'dose' : undefined}
              unit={line.basis === 'per_kg' ? unit.dose : '%'}
              fault={fault(`lines.${i}.amount`)}
              onset={(n) => desk.setShare(i, n ?? 0)}
            />
          </td>
          <td>
            <Num
              label={`${line.name}, ${say.grams}`}
              value={gramsOf(`line-${i}`)}
              digits={gramDigits(gramsOf(`line-${i}`))}
              quantity="mass"
              unit={unit.mass}
              onset={(n) => n !== null && desk.setGrams(i, n)}
            />
          </td>
          <td class="left">
            <select
              class="pick"
              aria-label={`${line.name}: ${say.roles.other}`}
              bind:value={line.role}
              onchange={() => desk.changed()}
            >
              {#each Object.entries(say.roles) as [id, text] (id)}<option value={id}>{text}</option>{/each}
            </select>
            <select
              class="pick"
              aria-label={`${line.name}: ${say.share}`}
              value={line.basis}
              onchange={(e) => desk.setBasis(i, e.currentTarget.value as NonNullable<Line['basis']>)}
            >
              {#each Object.entries(say.bases) as [id, text] (id)}<option value={id}>{text}</option>{/each}
            </select>
            {#if line.role === 'salted' || line.salt_percent}
              <span class="mt-1 flex items-baseline gap-1"
                ><Num
                  label={`${line.name}, ${say.saltInIt}`}
                  value={line.salt_percent || null}
                  digits={0}
                  optional
                  fault={fault(`lines.${i}.salt_percent`)}
                  onset={(n) => {
                    line.salt_percent = n ?? 0;
                    desk.changed();
                  }}
                /><span class="quiet">{say.saltInIt}</span></span
              >
            {/if}
          </td>
          <td class="more">
            <Num
              label={`${line.name}, ${say.price}`}
              quantity="per_kg"
              value={line.price_per_kg ?? null}
              optional
              fault={fault(`lines.${i}.price_per_kg`)}
              onset={(n) => {
                line.price_per_kg = n;
                desk.changed();
              }}
            />
          </td>
          <td class="more left">
            <input
              class="word"
              aria-label={`${line.name}, ${say.note}`}
              title={line.note}
              bind:value={line.note}
              oninput={() => desk.changed()}
            />
          </td>
          <td>
            <button
              class="off"
              aria-label={say.remove(line.name)}
              title={say.remove(line.name)}
              onclick={() => {
                lines.splice(i, 1);
                desk.changed();
              }}>✕</button
            >
          </td>
        </tr>
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
