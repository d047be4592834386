<script lang="ts">
  // For a target out of reach: which humidity would bring it there.
  import { createQuery } from '@tanstack/svelte-query';

  import { explainedQuery } from '../../api/queries';
  import { longDay } from '../../units/format';
  import { numberText } from '../../units/number';
  import { words } from '../../words';

  let { piece }: { piece: number } = $props();
  const say = words.grounds;
  const query = createQuery(() => explainedQuery(piece));
  const reach = $derived(query.data?.reaching);
</script>

<p class="min-h-6" data-testid="reach">
  {#if reach?.rh_percent && reach.ready_at}
    {say.reach(numberText(reach.rh_percent, 0), longDay(reach.ready_at))}
  {:else if reach}
    {say.outOfReach(numberText(reach.most_loss_percent, 0))}
  {/if}
</p>
