<script lang="ts">
  // Water activity, salt in the water, moisture to protein and keeping, from the bowl to past the target.
  import type { Schema } from '../../api/client';
  import { words } from '../../words';
  import { numberText } from '../../units/number';

  let { keeping, by }: { keeping: Schema['KeepingOut'][]; by: 'estimate' | 'laboratory' } = $props();
  const say = words.ledger;
</script>

<section class="mt-5" aria-label={say.keeping}>
  <h3 class="font-tag text-lg font-semibold">{say.keeping}</h3>
  <table class="rows">
    <thead>
      <tr>
        <th>{say.keepingHead.loss}</th><th>{say.keepingHead.aw}</th><th>{say.keepingHead.salt}</th><th
          >{say.keepingHead.keeps}</th
        >
      </tr>
    </thead>
    <tbody>
      {#each keeping as row, i (i)}
        <tr>
          <td>{numberText(row.loss_percent, 0)} %</td>
          <td>{numberText(row.water_activity, 2)} ±{numberText(row.water_activity_sd, 2)}</td>
          <td>{numberText(row.water_phase_salt_percent, 1)} %</td>
          <td>{say.keeps[row.keeps]}</td>
        </tr>
      {/each}
    </tbody>
  </table>
  <p class="quiet text-sm">{say.keepingBy[by]}</p>
</section>
