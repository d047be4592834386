<script lang="ts">
  // What a date rests on that nobody gave: said beside it, never in silence.
  import type { Schema } from '../../api/client';
  import { percent } from '../../units/format';
  import { words } from '../../words/en';
  import { said, whole } from '../../words/said';

  interface Props {
    assumed: Schema['SaidOut'][];
    reaches: number;
    outside?: boolean;
  }
  let { assumed, reaches, outside = false }: Props = $props();
  const say = words.life.assumed;
</script>

{#if reaches < 0.95 && reaches >= 0.5}<p class="text-warning mt-1">
    {whole(say.reaches(percent(100 * reaches, 0)))}
  </p>{/if}
{#if outside}<p class="text-warning mt-1">{say.outside}.</p>{/if}
{#if assumed.length}
  <p class="quiet mt-1 text-sm" data-testid="assumed">{say.title}: {assumed.map(said).join('; ')}.</p>
{/if}
