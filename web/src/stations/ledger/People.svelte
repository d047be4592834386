<script lang="ts">
  // How many people work here: alone one releases one's own corrections, else somebody else does.
  import { useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { keys } from '../../api/queries';
  import { session } from '../../shell/session.svelte';
  import { words } from '../../words';

  let { workshop, batch }: { workshop: Schema['WorkshopOut']; batch: number } = $props();
  const say = words.ledger;
  const client = useQueryClient();
  const chosen = $derived(workshop.people == null ? '' : workshop.people === 1 ? '1' : '2');

  async function set(value: string): Promise<void> {
    const body = { ...workshop, people: value === '' ? null : Number(value), by: session.who };
    try {
      await take(api.PUT('/api/workshop', { body }));
      await client.invalidateQueries({ queryKey: keys.line });
      await client.invalidateQueries({ queryKey: keys.ledger(batch) });
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<label class="mt-4 block">
  <span class="block text-sm font-semibold">{say.people}</span>
  <select class="select min-h-11 w-full" value={chosen} onchange={(e) => void set(e.currentTarget.value)}>
    {#each Object.entries(say.peoples) as [key, name] (key)}<option value={key}>{name}</option>{/each}
  </select>
  <span class="quiet text-sm">{say.peopleHint}</span>
</label>
