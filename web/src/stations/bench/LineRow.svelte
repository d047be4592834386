<script lang="ts">
  // A line of the sheet: share and grams, each moves the other.
  import Num from '../../forms/Num.svelte';
  import { gramDigits, unit } from '../../units/quantity';
  import { words } from '../../words';
  import type { Desk, Line } from './desk.svelte';

  let { desk, line, i }: { desk: Desk; line: Line; i: number } = $props();
  const say = words.bench;
  const fault = (where: string): string | undefined => desk.faults[where];
  const gramsOf = (key: string): number => desk.grams[key]?.grams ?? 0;

  function shareOf(): number {
    const inGrams = line.basis === 'absolute' || line.basis === 'fixed';
    return inGrams ? (desk.grams[`line-${i}`]?.percent_of_meat ?? 0) : line.amount;
  }
</script>

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
      value={shareOf()}
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
        desk.sheet.lines?.splice(i, 1);
        desk.changed();
      }}>✕</button
    >
  </td>
</tr>
