<script lang="ts">
  // The meat block: what was bought and trimmed, how fat it is, and the whole of it.
  // Long, since one table; its cells are of six kinds and each is used once.
  import Num from '../../forms/Num.svelte';
  import { pasting } from '../../forms/pasted';
  import { words } from '../../words';
  import { namesOf } from '../../words/said';
  import type { Desk } from './desk.svelte';
  import PastedParts from './PastedParts.svelte';

  let { desk }: { desk: Desk } = $props();
  let pasted = $state.raw<string[][] | null>(null);
  const say = words.bench;
  const parts = $derived(desk.sheet.parts);
  const fault = (where: string): string | undefined => desk.faults[where];
</script>

<section aria-label={say.meat} onpaste={pasting((cells) => (pasted = cells))}>
  <h2 class="font-tag text-xl font-semibold">{say.meat}</h2>
  <table class="rows">
    <thead>
      <tr>
        <th scope="col" class="name">{say.part}</th>
        <th scope="col">{say.trimmed}</th>
        <th scope="col">{say.fatOf}</th>
        <th scope="col" class="left">{say.species}</th>
        <th scope="col" class="more">{say.bought}</th>
        <th scope="col" class="more">{say.price}</th>
        <th scope="col" class="more left">{say.lot}</th>
        <td></td>
      </tr>
    </thead>
    <tbody>
      {#each parts as part, i (i)}
        <tr>
          <td class="name">
            <input
              class="word"
              aria-label={`${say.part} ${i + 1}`}
              bind:value={part.name}
              oninput={() => desk.changed()}
            />
          </td>
          <td>
            <Num
              label={`${part.name}, ${say.trimmed}`}
              quantity="block"
              value={part.weight_g}
              digits={1}
              fault={fault(`parts.${i}.weight_g`)}
              onset={(n) => {
                part.weight_g = n ?? 0;
                desk.changed();
              }}
            />
          </td>
          <td>
            <Num
              label={`${part.name}, ${say.fatOf}`}
              value={part.fat_percent}
              digits={1}
              fault={fault(`parts.${i}.fat_percent`)}
              onset={(n) => {
                part.fat_percent = n ?? 0;
                desk.changed();
              }}
            />
          </td>
          <td class="left">
            <select
              class="pick"
              aria-label={`${part.name}, ${say.species}`}
              value={part.species ?? desk.sheet.plan.species}
              onchange={(e) => {
                part.species = e.currentTarget.value as NonNullable<typeof part.species>;
                desk.changed();
              }}
            >
              {#each namesOf('species') as [id, text] (id)}<option value={id}>{text}</option>{/each}
            </select>
          </td>
          <td class="more">
            <Num
              label={`${part.name}, ${say.bought}`}
              quantity="block"
              value={part.bought_g ?? null}
              digits={0}
              optional
              fault={fault(`parts.${i}.bought_g`)}
              onset={(n) => {
                part.bought_g = n;
                desk.changed();
              }}
            />
          </td>
          <td class="more">
            <Num
              label={`${part.name}, ${say.price}`}
              quantity="per_kg"
              value={part.price_per_kg ?? null}
              optional
              fault={fault(`parts.${i}.price_per_kg`)}
              onset={(n) => {
                part.price_per_kg = n;
                desk.changed();
              }}
            />
          </td>
          <td class="more">
            <input
              class="word lot"
              aria-label={`${part.name}, ${say.lot}`}
              bind:value={part.lot}
              oninput={() => desk.changed()}
            />
          </td>
          <td>
            {#if parts.length > 1}
              <button
                class="off"
                aria-label={say.remove(part.name)}
                title={say.remove(part.name)}
                onclick={() => {
                  parts.splice(i, 1);
                  desk.changed();
                }}>✕</button
              >
            {/if}
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
              parts.push({ name: `${say.part} ${parts.length + 1}`, weight_g: 0, fat_percent: 10, lot: '' });
              desk.changed();
            }}>{say.addPart}</button
          >
        </td>
        <td>
          <Num
            label={say.wholeMeat}
            quantity="block"
            value={desk.worked?.meat_g ?? 0}
            digits={0}
            onset={(n) => n !== null && n > 0 && void desk.scaleTo(n)}
          />
        </td>
        <td>
          <Num
            label={say.fatShare}
            value={desk.worked?.fat_percent ?? 0}
            digits={1}
            onset={(n) => n !== null && parts.length > 1 && void desk.blendTo(n)}
          />
        </td>
        <td class="more quiet hint" colspan="4">{parts.length > 1 ? say.blendHint : ''}</td>
      </tr>
    </tfoot>
  </table>
  {#if pasted}{#key pasted}<PastedParts {desk} cells={pasted} onclose={() => (pasted = null)} />{/key}{/if}
</section>
