<script lang="ts">
  // A figure on a string, its limit a knot in it; opens to its formula, inputs and source.
  import type { Schema } from '../../api/client';
  import { tidyNumber } from '../../units/number';
  import { words } from '../../words';
  import { said } from '../../words/said';

  interface Props {
    name: string;
    gauge: Schema['GaugeOut'];
    digits?: number;
    /** The limit is the least there must be, not the most. */
    least?: boolean;
  }
  let { name, gauge, digits = 0, least = false }: Props = $props();
  const say = words.bench;
  const end = $derived(Math.max(gauge.limit * (least ? 2.25 : 1.25), gauge.figure.value * 1.06, 1e-9));
  const share = $derived((100 * gauge.figure.value) / end);
  const knot = $derived((100 * gauge.limit) / end);
</script>

<details class="gauge {gauge.standing}">
  <summary>
    <span class="flex items-baseline justify-between gap-3">
      <span>{name} <span class="verdict">{said(gauge.says)}</span></span>
      <span class="whitespace-nowrap"
        ><strong class="text-lg">{tidyNumber(gauge.figure.value, digits)}</strong>
        <span class="quiet text-sm">{said(gauge.figure.unit)}</span></span
      >
    </span>
    <span class="string" aria-hidden="true">
      <span class="fill" style:width="{share}%"></span>
      {#if gauge.limit > 0}<span class="knot" style:left="{knot}%"></span>{/if}
    </span>
    <span class="quiet flex justify-between text-sm">
      <span>{say.standing[gauge.standing]}</span>
      <span>{least ? say.least : say.limit} {tidyNumber(gauge.limit, digits)}</span>
    </span>
  </summary>
  <div class="whence">
    <p>{said(gauge.figure.formula)}</p>
    <p>{said(gauge.figure.inputs)}</p>
    <p>{say.source}: {said(gauge.figure.source)}</p>
  </div>
</details>

<style>
  .gauge {
    padding: 0.2rem 0;
  }
  summary {
    cursor: pointer;
    list-style: none;
    display: block;
  }
  summary::-webkit-details-marker {
    display: none;
  }
  .string,
  .string * {
    forced-color-adjust: none; /* the figure on its string, in the reader's colours by their names */
  }
  .string {
    position: relative;
    display: block;
    height: 12px;
    background: linear-gradient(var(--string), var(--string)) center / 100% 1px no-repeat;
  }
  .fill {
    position: absolute;
    inset: 4px auto 4px 0;
    background: var(--color-primary);
    border-radius: 2px;
  }
  .knot {
    position: absolute;
    top: 0;
    width: 3px;
    height: 12px;
    margin-left: -1.5px;
    background: var(--color-base-content);
    border-radius: 1px;
  }
  .verdict {
    color: var(--quiet);
    font-size: 0.92rem;
  }
  .caution .verdict,
  .caution strong {
    color: var(--color-warning);
    font-weight: 600;
  }
  .caution .fill {
    background: var(--color-warning);
  }
  .fail .verdict,
  .fail strong {
    color: var(--color-error);
    font-weight: 600;
  }
  .fail .fill {
    background: var(--color-error);
  }
  .whence {
    padding: 0.2rem 0 0.4rem 0.8rem;
    border-left: 2px solid var(--string);
    font-size: 0.92rem;
    color: var(--quiet);
  }
</style>
