<script lang="ts">
  // What a date rests on that nobody gave: said beside it, never in silence.
  import type { Schema } from '../../api/client';
  import { percent } from '../../units/format';
  import { words } from '../../words';
  import { said, whole } from '../../words/said';

  interface Props {
    assumed: Schema['SaidOut'][];
    /** null where there is no target. */
    reaches: number | null;
    outside?: boolean;
    /** Where room is short: the weightiest, and the others unfolded. */
    brief?: boolean;
  }
  let { assumed, reaches, outside = false, brief = false }: Props = $props();
  const say = words.life.assumed;
  const SHOWN = 2; // the air comes first, and moves a date most
  const told = $derived(assumed.map(said));
  let unfolded = $state(false);
  const shown = $derived(brief && !unfolded ? told.slice(0, SHOWN) : told);
  const more = $derived(told.length - shown.length);
</script>

{#if reaches !== null && reaches < 0.95 && reaches >= 0.5}<p class="text-warning mt-1">
    {whole(say.reaches(percent(100 * reaches, 0)))}
  </p>{/if}
{#if outside}<p class="text-warning mt-1">{say.outside}.</p>{/if}
{#if told.length}
  <p class="quiet mt-1 text-sm" data-testid="assumed">
    {say.title}: {shown.join('; ')}{#if more > 0};
      <button type="button" class="underline underline-offset-4" onclick={() => (unfolded = true)}
        >{say.more(more)}</button
      >{:else}.{/if}
  </p>
{/if}
