<script lang="ts">
  // A plan whose batch was made without it: which one is it? The latest batches are offered.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';
  import { head } from '../../api/entry';
  import { batchesQuery } from '../../api/queries';
  import { session } from '../../shell/session.svelte';
  import { fullDay } from '../../units/format';
  import { words } from '../../words';
  import type { Planned } from './hand.svelte';

  let { plan, ondone }: { plan: Planned; ondone: () => void } = $props();
  const say = words.plan.became;
  const LATEST = 20;
  let open = $state(false);
  const book = createQuery(() => ({
    ...batchesQuery('', 'going', LATEST),
    enabled: open,
  }));

  async function choose(batch: number, code: string): Promise<void> {
    try {
      const params = { path: { plan_id: plan.id ?? 0 } };
      await take(api.POST('/api/plans/{plan_id}/became', { params, body: { batch_id: batch, ...head() } }));
      session.say(say.done(code));
      ondone();
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<details class="text-sm" bind:open>
  <summary class="min-h-11 cursor-pointer content-center underline underline-offset-4">{say.ask}</summary>
  <select
    class="select min-h-11 w-full text-base"
    aria-label={say.which}
    value=""
    onchange={(event) => {
      const found = book.data?.batches.find((one) => String(one.id) === event.currentTarget.value);
      if (found) void choose(found.id, found.code);
    }}
  >
    <option value="" disabled>{say.which}</option>
    {#each book.data?.batches ?? [] as batch (batch.id)}
      <option value={String(batch.id)}>{batch.code} {batch.product}, {fullDay(batch.made_at)}</option>
    {/each}
  </select>
</details>
