<script lang="ts">
  // What is wished: how many of what, how heavy at the table, by when; beneath, on demand, where it hangs and rests.
  // Long, since one row of fields; each change is one question to the server.
  import { createQuery } from '@tanstack/svelte-query';

  import type { Schema } from '../../api/client';
  import { recipesQuery } from '../../api/queries';
  import Num from '../../forms/Num.svelte';
  import { timeZone } from '../../units/format';
  import { dayOf, noonOf } from '../../units/days';
  import { unit } from '../../units/quantity';
  import { words } from '../../words';
  import { usualSheet } from '../bench/desk.svelte';
  import { atTheTable, type Hand } from './hand.svelte';
  import MoreWishes from './MoreWishes.svelte';

  let { hand, reference }: { hand: Hand; reference: Schema['ReferenceOut'] | null } = $props();
  const say = words.plan;
  const recipes = createQuery(recipesQuery);
  let more = $state(false);

  const wish = $derived(hand.wish!);
  const plan = $derived(wish.sheet.plan);
  const begun = $derived(hand.kept !== null && hand.kept.state !== 'planned');
  const chosen = $derived(wish.recipe_id ? `r${wish.recipe_id}` : `f${plan.family}`);

  function choose(key: string): void {
    const id = key.slice(1);
    if (key.startsWith('r')) {
      const recipe = recipes.data?.find((one) => String(one.id) === id);
      const version = recipe?.versions.at(-1);
      if (!recipe || !version) return;
      hand.set({
        product: recipe.name, sheet: version.sheet, recipe_id: recipe.id, version: version.number,
        ...fresh(version.sheet),
      }); // prettier-ignore
      return;
    }
    const family = reference?.families.find((one) => one.id === id);
    if (!family || !reference) return;
    const sheet = usualSheet(family, reference.curing_salts);
    hand.set({ product: family.name, sheet, recipe_id: null, version: null, ...fresh(sheet) });
  }
  /** Of other goods the usual weight; where and when is looked for anew. */
  function fresh(sheet: Schema['SheetModel']): Partial<Schema['Wish']> {
    return { table_g: atTheTable(sheet), place_id: null, start: null, wait_days: 0 };
  }
  function wanted(day: string): void {
    const noon = noonOf(day, timeZone());
    if (noon) hand.set({ wanted: noon.toISOString(), start: begun ? wish.start : null });
  }
  const known = (set: (value: number) => void) => (value: number | null) => {
    if (value !== null) set(value);
  };
</script>

<div class="wish">
  <span class="many"
    ><Num
      label={say.fields.pieces}
      value={wish.pieces}
      digits={0}
      onset={known((pieces) => hand.set({ pieces: Math.round(pieces) }))}
    /></span
  >
  <select
    class="select goods min-h-11 text-base"
    aria-label={say.fields.goods}
    disabled={begun}
    value={chosen}
    onchange={(event) => choose(event.currentTarget.value)}
  >
    {#if recipes.data?.length}
      <optgroup label={say.fields.recipes}>
        {#each recipes.data as recipe (recipe.id)}<option value="r{recipe.id}">{recipe.name}</option>{/each}
      </optgroup>
    {/if}
    <optgroup label={say.fields.families}>
      {#each reference?.families ?? [] as family (family.id)}<option value="f{family.id}"
          >{family.name}</option
        >{/each}
    </optgroup>
  </select>
  <span class="cell"
    ><Num
      label={say.fields.table}
      value={wish.table_g}
      digits={0}
      quantity="mass"
      unit={unit.mass}
      onset={known((table_g) => hand.set({ table_g }))}
    /><span class="quiet">{say.fields.table}</span></span
  >
  <span class="cell"
    ><Num
      label={say.fields.across}
      value={plan.across_mm}
      digits={0}
      quantity="length"
      unit={unit.length}
      onset={known((across_mm) => hand.setGoods({ across_mm }))}
    /><span class="quiet">{say.fields.across}</span></span
  >
  <span class="cell"
    ><Num
      label={say.fields.target}
      value={plan.target_loss_percent}
      digits={1}
      unit="%"
      onset={known((target_loss_percent) => hand.setGoods({ target_loss_percent }))}
    /><span class="quiet">{say.fields.target}</span></span
  >
  <label class="cell"
    ><span class="quiet">{say.fields.wanted}</span>
    <input
      class="input min-h-11 w-40 text-base"
      type="date"
      value={dayOf(wish.wanted, timeZone())}
      onchange={(event) => wanted(event.currentTarget.value)}
    /></label
  >
  <button class="min-h-11 underline underline-offset-4" aria-expanded={more} onclick={() => (more = !more)}
    >{more ? say.less : say.more}</button
  >
</div>
{#if more}<MoreWishes {hand} {begun} />{/if}

<style>
  .wish {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0.3rem 1.1rem;
  }
  .many {
    font-family: var(--font-tag);
    font-size: 1.3rem;
    font-weight: 700;
  }
  .goods {
    width: 13.5rem;
  }
  .cell {
    display: inline-flex;
    align-items: baseline;
    gap: 0.4rem;
    white-space: nowrap;
  }
  @media (max-width: 700px) {
    .wish {
      display: grid;
      grid-template-columns: repeat(3, minmax(0, 1fr));
      gap: 0.5rem 1rem;
    }
    .goods {
      grid-column: 2 / 4;
      width: 100%;
    }
    .cell {
      display: flex;
      flex-direction: column-reverse;
      align-items: stretch;
    }
    label.cell {
      grid-column: 1 / 3;
      flex-direction: column;
    }
    label.cell input {
      width: 100%;
    }
  }
</style>
