<script lang="ts">
  // The line of the curing salt: which one, and how much; its nitrite and nitrate are those of what is picked.
  import Num from '../../forms/Num.svelte';
  import { unit } from '../../units/quantity';
  import { words } from '../../words';
  import { textOf } from '../../words/said';
  import type { Desk } from './desk.svelte';

  let { desk }: { desk: Desk } = $props();
  const say = words.bench;
  const curing = $derived(desk.sheet.curing);
  const salts = $derived(desk.reference.curing_salts);
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
  const fault = (where: string): string | undefined => desk.faults[where];
  const gramsOf = (key: string): number => desk.grams[key]?.grams ?? 0;

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
