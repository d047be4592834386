<script lang="ts">
  // The allowance of degree-hours as a fuse: what is burnt, what is left, and when the flame gets to the end.
  import type { Schema } from '../../api/client';
  import { timeOfDay } from '../../units/format';
  import { numberText } from '../../units/number';
  import { temperatureText } from '../../units/quantity';
  import { words } from '../../words';
  import { textOf } from '../../words/said';

  let { card }: { card: Schema['WarmCard'] } = $props();
  const say = words.warm;
  const allowance = $derived(card.allowance);
  const share = $derived(Math.min(1, allowance.share ?? 0));
  const over = $derived(card.state === 'over_allowance');
  let width = $state(400);
  const flame = $derived(8 + share * (width - 30));
</script>

<section aria-label={say.fuse} class="mt-3">
  <h3 class="font-tag text-lg font-semibold">{say.fuse}</h3>
  {#if allowance.used === null}
    <p class="text-warning">{say.fuseNoLog}</p>
  {:else}
    <div bind:clientWidth={width}>
      <svg {width} height="34" aria-hidden="true">
        <path d={`M8 18H${flame}`} stroke="var(--steel-light)" stroke-width="3" stroke-dasharray="2 4" />
        <path d={`M${flame} 18H${width - 22}`} stroke="var(--string)" stroke-width="5" />
        <rect
          x={width - 22}
          y="6"
          width="16"
          height="24"
          rx="2"
          fill={over ? 'var(--color-error)' : 'var(--meat-dry)'}
        />
        {#if !card.measured_at}
          <path d={`M${flame} 8c5 5 6 8 6 12a6 6 0 0 1-12 0c0-4 4-6 6-12z`} fill="var(--color-warning)" />
        {:else}
          <path d={`M${flame} 8v20`} stroke="var(--color-success)" stroke-width="4" />
        {/if}
      </svg>
    </div>
    <p>
      {say.fuseUsed(
        numberText(allowance.used, 0),
        numberText(allowance.limit, 0),
        allowance.unit,
        textOf(allowance.profile),
      )}.
      {#if over}
        <strong class="text-error block">{say.fuseOver}</strong>
      {:else if card.measured_at}
        <strong>{say.fuseStopped}</strong>
      {:else if allowance.runs_out && allowance.at_c !== null && !card.ended_at}
        <strong>{say.fuseOut(timeOfDay(allowance.runs_out), temperatureText(allowance.at_c, 0))}</strong>.
      {:else if allowance.at_c !== null && !allowance.runs_out}{say.fuseCold(
          temperatureText(allowance.at_c, 0),
        )}{/if}
    </p>
    {#if allowance.gaps}<p class="text-warning">{say.fuseGaps(allowance.gaps)}</p>{/if}
  {/if}
  <p class="quiet text-sm">{say.counted}</p>
</section>
