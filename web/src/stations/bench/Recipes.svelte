<script lang="ts">
  // Keeping, opening and comparing recipes; a change says why.
  // Long, since open, keep, bring in and compare versions share one list and one question.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, ProblemError, type Schema, take } from '../../api/client';
  import { keys, recipesQuery } from '../../api/queries';

  import { head } from '../../api/entry';
  import { session } from '../../shell/session.svelte';
  import { fullDay } from '../../units/format';
  import { words } from '../../words';
  import { said } from '../../words/said';
  import type { Desk } from './desk.svelte';
  import NextTime from './NextTime.svelte';

  let { desk }: { desk: Desk } = $props();
  const say = words.bench;
  const client = useQueryClient();
  const query = createQuery(recipesQuery);
  const recipes = $derived(query.data ?? []);
  const current = $derived(recipes.find((recipe) => recipe.id === desk.recipe?.id));
  let reason = $state('');
  let differences = $state<Schema['DifferenceOut'][] | null>(null);
  $effect(() => {
    void desk.recipe;
    differences = null;
  });

  async function keep(): Promise<void> {
    const body = { sheet: desk.sheet, ...head() };
    try {
      const kept =
        current && desk.product === current.name
          ? await take(
              api.POST('/api/recipes/{recipe_id}/versions', {
                params: { path: { recipe_id: current.id } },
                body: { ...body, base: desk.recipe?.version ?? current.versions.length, reason },
              }),
            )
          : await take(api.POST('/api/recipes', { body: { ...body, name: desk.product, reason } }));
      await client.invalidateQueries({ queryKey: keys.recipes });
      desk.recipe = { id: kept.id, version: kept.versions.length };
      desk.changed();
      reason = '';
      session.say(say.kept(kept.name, kept.versions.length));
    } catch (error) {
      if (error instanceof ProblemError && error.code === 'changed_meanwhile') {
        await client.invalidateQueries({ queryKey: keys.recipes });
        theirs = current?.versions.at(-1)?.number ?? null; // shown beside what is on the sheet
      }
      session.complain(error);
    }
  }
  /** The version that somebody else saved meanwhile, shown beside what is on the sheet. */
  let theirs = $state<number | null>(null);
  async function saveAfter(version: number): Promise<void> {
    if (desk.recipe) desk.recipe = { ...desk.recipe, version };
    theirs = null;
    await keep();
  }
  async function compare(number: number): Promise<void> {
    if (!current) return;
    differences = await take(
      api.GET('/api/recipes/{recipe_id}/compare', {
        params: { path: { recipe_id: current.id }, query: { before: number - 1, after: number } },
      }),
    );
  }
  /** Another sheet comes in place of this one, which comes back in one step. */
  function instead(name: string, step: () => void): void {
    const back = desk.replaced(step);
    session.say(say.instead(name), async () => back());
  }
  async function read(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    const file = event.currentTarget.files?.[0];
    if (!file) return;
    const form = new FormData();
    form.append('file', file);
    try {
      const recipe = await take(
        api.POST('/api/recipes/read', { body: { file: '' }, bodySerializer: () => form }),
      );
      instead(recipe.name, () => {
        desk.sheet = recipe.sheet;
        desk.product = recipe.name;
        desk.recipe = null;
        desk.changed();
      });
    } catch (error) {
      session.complain(error);
    }
    event.currentTarget.value = '';
  }
  const newVersion = $derived(!!current && desk.product === current.name);
</script>

{#if current}<NextTime recipe={current.id} />{/if}
<div class="flex flex-wrap items-end gap-x-4 gap-y-1 print:hidden">
  <label class="text-sm">
    <span class="quiet block">{say.startFrom}</span>
    <select
      class="pick"
      value={desk.sheet.plan.family}
      onchange={(e) => {
        const family = desk.reference.families.find((one) => one.id === e.currentTarget.value);
        if (family) instead(family.name, () => desk.startFrom(family));
      }}
    >
      {#each desk.reference.families as family (family.id)}<option value={family.id}>{family.name}</option
        >{/each}
    </select>
  </label>
  <label class="text-sm">
    <span class="quiet block">{say.recipes}</span>
    <select
      class="pick"
      value={desk.recipe ? `${desk.recipe.id}/${desk.recipe.version}` : ''}
      onchange={(e) => {
        const [id, number] = e.currentTarget.value.split('/').map(Number);
        const recipe = recipes.find((found) => found.id === id);
        if (recipe && number) instead(recipe.name, () => desk.open(recipe, number));
      }}
    >
      <option value="">{recipes.length ? say.openRecipe : say.blank}</option>
      {#each recipes as recipe (recipe.id)}
        {#each [...recipe.versions].reverse() as version (version.number)}
          <option value={`${recipe.id}/${version.number}`}
            >{recipe.name}, {say.version(version.number)}</option
          >
        {/each}
      {/each}
    </select>
  </label>
  {#if newVersion}
    <label class="text-sm">
      <span class="quiet block">{say.why}</span>
      <input class="word" bind:value={reason} />
    </label>
  {/if}
  <button
    class="btn min-h-11"
    disabled={!desk.product.trim() || (newVersion && !reason.trim())}
    onclick={() => void keep()}>{newVersion ? say.saveVersion : say.save}</button
  >
  {#if theirs !== null}
    <p class="border-warning w-full border-l-4 pl-3" role="alert">
      {say.theirs(theirs)}
      <button class="btn btn-sm min-h-11" onclick={() => void compare(theirs ?? 0)}
        >{say.compareTheirs}</button
      >
      <button class="btn btn-sm min-h-11" onclick={() => void saveAfter(theirs ?? 0)}>{say.saveAfter}</button>
    </p>
  {/if}
  {#if current && desk.recipe}
    <a
      class="min-h-11 content-center underline underline-offset-4"
      href={`/api/recipes/${current.id}/file?version=${desk.recipe.version}`}
      download>{say.file}</a
    >
  {/if}
  <label class="min-h-11 cursor-pointer content-center underline underline-offset-4">
    {say.readFile}<input type="file" accept=".json,application/json" class="sr-only" onchange={read} />
  </label>
</div>
{#if current && current.versions.length > 1}
  <details class="mt-1">
    <summary class="quiet min-h-8 cursor-pointer">{say.versions}</summary>
    <ul>
      {#each [...current.versions].reverse() as version (version.number)}
        <li class="flex flex-wrap items-baseline gap-x-3">
          <strong>{say.version(version.number)}</strong>
          <span>{version.reason || say.firstVersion}</span>
          <span class="quiet">{version.by}, {fullDay(version.at)}</span>
          {#if version.number > 1}
            <button class="min-h-11 underline underline-offset-4" onclick={() => void compare(version.number)}
              >{say.compareWith}</button
            >
          {/if}
        </li>
      {/each}
    </ul>
    {#if differences}
      <table class="mt-1" aria-label={say.versions}>
        <tbody>
          {#each differences as row, i (i)}
            <tr>
              <th scope="row" class="pr-4 text-left">{said(row.what)}</th>
              <td class="quiet pr-4"><s>{row.was ? said(row.was) : ''}</s></td>
              <td>{row.now ? said(row.now) : '–'}</td>
            </tr>
          {:else}<tr><td>{say.nothingDiffers}</td></tr>{/each}
        </tbody>
      </table>
    {/if}
  </details>
{/if}
