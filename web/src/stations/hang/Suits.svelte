<script lang="ts">
  // For which goods the place suits, by its own log.
  import type { Schema } from '../../api/client';
  import { percent } from '../../units/format';
  import { words } from '../../words';
  import { textOf } from '../../words/said';

  let { suits }: { suits: Schema['SuitsOut'][] } = $props();
  const say = words.rods;
  const good = $derived(suits.filter((one) => one.verdict !== 'unfit'));
  const bad = $derived(suits.filter((one) => one.verdict === 'unfit'));
</script>

{#if suits.length}
  <h3 class="mt-4 font-semibold">{say.suits}</h3>
  <ul>
    {#each good as one (one.family)}
      <li>
        <span class="mark {one.verdict}" aria-hidden="true"></span>
        <span class="name">{textOf(one.name)}</span>
        <span class="quiet"
          >{say.verdicts[one.verdict]}, {say.suitsShare(percent(one.share * 100, 0))}{#if one.mostly}; {say.suitsOff(
              percent(one.mostly_share * 100, 0),
              say.mostly[one.mostly],
            )}{/if}</span
        >
      </li>
    {/each}
  </ul>
  {#if bad.length}<p>
      {say.unfit(
        bad
          .map((one) => textOf(one.name).toLowerCase() + (one.mostly ? ` (${say.mostly[one.mostly]})` : ''))
          .join(', '),
      )}
    </p>{/if}
  <p class="quiet text-sm">{say.suitsHint}</p>
{/if}

{#if !suits.length}<p class="quiet mt-4">{words.placeFacts.suitsLater}</p>{/if}

<style>
  ul {
    columns: 2;
    column-gap: 2rem;
  }
  li {
    display: flex;
    align-items: baseline;
    gap: 0.5rem;
    break-inside: avoid;
    padding: 0.1rem 0;
  }
  .name {
    font-weight: 600;
  }
  .mark {
    width: 0.7rem;
    height: 0.7rem;
    flex: none;
    border: 2px solid var(--color-success);
    border-radius: 50%;
  }
  .fit {
    background: var(--color-success);
  }
  .with_care {
    border-color: var(--color-warning);
  }
  @media (max-width: 800px) {
    ul {
      columns: 1;
    }
  }
</style>
