<script lang="ts" generics="Role extends string">
  // A pasted table before it is taken: what each column holds, what each row brings, and what cannot be read in it.
  import { untrack, type Snippet } from 'svelte';

  import { takesFocus } from '../keys/focus';
  import { words } from '../words';
  import type { Column, Understood } from './pasted';

  interface Props {
    /** The table as it was understood; what its columns hold can still be said otherwise. */
    found: Understood<Role>;
    columns: Partial<Record<Role, Column>>;
    /** What is wrong with a row, or null. */
    fault: (row: Partial<Record<Role, string>>) => string | null;
    ontake: (rows: Partial<Record<Role, string>>[]) => void;
    onleave: () => void;
    /** What else has to be said of the table. */
    asked?: Snippet<[(Role | null)[]]>;
  }
  let { found, columns, fault, ontake, onleave, asked }: Props = $props();
  const say = words.pasted;
  const roles = $state(untrack(() => [...found.roles]));
  const taken = $state(untrack(() => found.rows.map(() => true)));
  const names = $derived(Object.entries(columns) as [Role, Column][]);

  const rowOf = (row: string[]): Partial<Record<Role, string>> =>
    Object.fromEntries(roles.flatMap((role, i) => (role ? [[role, row[i] ?? '']] : []))) as Partial<
      Record<Role, string>
    >;
  const rows = $derived(found.rows.map(rowOf));
  const faults = $derived(rows.map((row, i) => (taken[i] ? fault(row) : null)));
  const chosen = $derived(rows.filter((_, i) => taken[i]));
</script>

<section class="pasted" aria-label={say.title} {@attach takesFocus}>
  <h3 class="font-tag text-lg font-semibold">{say.title}</h3>
  <p class="quiet text-sm">{say.hint}</p>
  <div class="overflow-x-auto">
    <table>
      <thead>
        <tr>
          <td></td>
          {#each roles as role, i (i)}
            <th scope="col"
              ><select
                class="pick"
                aria-label={say.column(i + 1)}
                value={role ?? ''}
                onchange={(event) => (roles[i] = (event.currentTarget.value || null) as Role | null)}
              >
                <option value="">{say.leftOut}</option>
                {#each names as [name, column] (name)}<option value={name}>{column.name}</option>{/each}
              </select></th
            >
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each found.rows as row, i (i)}
          <tr class:out={!taken[i]}>
            <td
              ><label class="grid min-h-11 min-w-11 place-items-center"
                ><input
                  type="checkbox"
                  class="checkbox checkbox-sm"
                  aria-label={say.row(i + 1)}
                  bind:checked={taken[i]}
                /></label
              ></td
            >
            {#each roles as role, k (k)}<td class:quiet={role === null}>{row[k] ?? ''}</td>{/each}
          </tr>
          {#if faults[i]}<tr><td></td><td class="fault text-error" colspan={roles.length}>{faults[i]}</td></tr
            >{/if}
        {/each}
      </tbody>
    </table>
  </div>
  {@render asked?.(roles)}
  <div class="mt-2 flex flex-wrap items-center gap-3">
    <button
      type="button"
      class="btn btn-primary min-h-11"
      disabled={chosen.length === 0 || faults.some((one) => one !== null)}
      onclick={() => ontake(chosen)}>{say.take(chosen.length)}</button
    >
    <button type="button" class="btn btn-ghost min-h-11" onclick={onleave}>{say.leave}</button>
    {#if faults.some((one) => one !== null)}<p class="text-error">{say.faulty}</p>{/if}
  </div>
</section>

<style>
  .pasted {
    margin: 0.6rem 0;
    padding: 0.6rem 0.9rem;
    border: 1px dashed var(--string);
    background: var(--paper);
  }
  td,
  th {
    padding: 0 0.9rem 0 0;
    text-align: left;
    white-space: nowrap;
  }
  .fault {
    max-width: 18rem;
    padding-bottom: 0.5rem;
    white-space: normal;
  }
  .out td {
    text-decoration: line-through;
    color: var(--quiet);
  }
</style>
