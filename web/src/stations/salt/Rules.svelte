<script lang="ts">
  // The rules of thumb and diffusion beside each other; those that count set the day.
  import type { Schema } from '../../api/client';
  import { shortDay } from '../../units/format';
  import { tidyNumber } from '../../units/number';
  import { words } from '../../words';
  import { textOf } from '../../words/said';

  interface Props {
    rules: Schema['RuleOut'][];
    margin: number;
    free: boolean;
    onchoose: (rules: Pick<Schema['RulesIn'], 'rules' | 'margin_percent'>) => Promise<void>;
  }
  let { rules, margin, free, onchoose }: Props = $props();
  const say = words.salt;

  function toggle(name: Schema['RuleOut']['name']): void {
    const chosen = rules.filter((r) => (r.name === name ? !r.chosen : r.chosen)).map((r) => r.name);
    if (chosen.length) void onchoose({ rules: chosen, margin_percent: margin });
  }
</script>

<section class="mt-4" aria-label={say.rules}>
  <h3 class="font-tag text-lg font-semibold">{say.rules}</h3>
  <table class="rules">
    <tbody>
      {#each rules as rule (rule.name)}
        <tr class:quiet={!rule.chosen}>
          <td>
            {#if !free}
              <label class="grid min-h-8 min-w-8 place-items-center pointer-coarse:min-h-11"
                ><input
                  type="checkbox"
                  class="checkbox checkbox-sm"
                  checked={rule.chosen}
                  aria-label={`${say.counts}: ${textOf(rule.says)}`}
                  onchange={() => toggle(rule.name)}
                /></label
              >
            {/if}
          </td>
          <th scope="row">{textOf(rule.says)}</th>
          <td class="num">{rule.days === null ? say.never : say.ruleDays(tidyNumber(rule.days, 1))}</td>
          <td class="num">{rule.at ? shortDay(rule.at) : ''}</td>
        </tr>
      {/each}
    </tbody>
  </table>
  {#if !free}
    <label class="mt-1 flex items-center gap-2 text-sm"
      >{say.margin}
      <select
        class="pick"
        value={margin}
        onchange={(e) =>
          void onchoose({
            rules: rules.filter((r) => r.chosen).map((r) => r.name),
            margin_percent: Number(e.currentTarget.value),
          })}
      >
        {#each [0, 10, 20, 30] as value (value)}<option {value}>{value}</option>{/each}
      </select></label
    >
  {/if}
</section>

<style>
  .rules {
    width: 100%;
  }
  th {
    text-align: left;
    font-weight: 400;
    padding: 0.25rem 0.5rem;
    line-height: 1.2;
  }
  td {
    vertical-align: middle;
  }
  .num {
    text-align: right;
    white-space: nowrap;
    padding-left: 0.6rem;
  }
</style>
