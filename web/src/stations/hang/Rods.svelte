<script lang="ts">
  // The rods of a place: hooks, and how far apart; a hook in use is not taken away.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';

  import { head } from '../../api/entry';
  import { keys, roomQuery } from '../../api/queries';
  import Field from '../../forms/Field.svelte';
  import { optionalAs, optionalNumber } from '../../forms/typed';
  import { session } from '../../shell/session.svelte';
  import { fieldText } from '../../units/quantity';
  import { words } from '../../words';

  let { place }: { place: number } = $props();
  const say = words.rods;
  const client = useQueryClient();
  const room = createQuery(() => roomQuery(place));
  let typed = $state<Record<number, { hooks: string; spacing: string }>>({});
  const shown = $derived(
    (room.data?.rods ?? []).map((rod) => ({
      rod,
      fields: typed[rod.id] ?? {
        hooks: String(rod.hooks),
        spacing: rod.hook_spacing_mm === null ? '' : fieldText('length', rod.hook_spacing_mm, 0),
      },
    })),
  );

  async function told(call: Promise<Schema['Room']>): Promise<void> {
    try {
      const answer = await call;
      typed = {};
      client.setQueryData(roomQuery(place).queryKey, answer);
      void client.invalidateQueries({ queryKey: keys.line });
    } catch (error) {
      session.complain(error);
    }
  }
  function keep(rod: Schema['RodOut'], fields: { hooks: string; spacing: string }): void {
    try {
      const hooks = optionalNumber(fields.hooks);
      if (hooks === null) throw new Error(words.errors.noNumber);
      const body = { hooks, hook_spacing_mm: optionalAs('length', fields.spacing), ...head() };
      void told(take(api.PUT('/api/rods/{rod_id}', { params: { path: { rod_id: rod.id } }, body })));
    } catch (error) {
      session.complain(error);
    }
  }
  function add(): void {
    const last = room.data?.rods.at(-1);
    const body = { hooks: last?.hooks ?? 6, hook_spacing_mm: last?.hook_spacing_mm ?? null, ...head() };
    void told(take(api.POST('/api/places/{place_id}/rods', { params: { path: { place_id: place } }, body })));
  }
</script>

<details class="mt-6 max-w-3xl">
  <summary class="font-tag min-h-11 cursor-pointer py-2 text-xl font-semibold">{say.title}</summary>
  {#each shown as { rod, fields } (rod.id)}
    <form
      class="mt-2 flex flex-wrap items-end gap-3"
      aria-label={say.rod(rod.number)}
      onsubmit={(event) => {
        event.preventDefault();
        keep(rod, fields);
      }}
    >
      <strong class="font-tag flex min-h-11 w-16 items-center">{say.rod(rod.number)}</strong>
      <div class="w-24">
        <Field
          label={say.hooks}
          numeric
          required
          bind:value={() => fields.hooks, (hooks) => (typed = { ...typed, [rod.id]: { ...fields, hooks } })}
        />
      </div>
      <div class="w-36">
        <Field
          label={say.spacing}
          numeric
          bind:value={
            () => fields.spacing, (spacing) => (typed = { ...typed, [rod.id]: { ...fields, spacing } })
          }
        />
      </div>
      {#if typed[rod.id]}<button class="btn min-h-11">{say.keep}</button>{/if}
    </form>
  {/each}
  <button class="min-h-11 underline underline-offset-4" onclick={add}>{say.add}</button>
</details>
