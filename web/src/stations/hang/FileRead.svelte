<script lang="ts">
  // How a file was understood: in sentences, and its first rows beside what was read of them.
  import type { Schema } from '../../api/client';
  import { dayAndTime, fullDay } from '../../units/format';
  import { words } from '../../words';

  interface Props {
    shown: Schema['ImportPreview'];
    asking: boolean;
    onanew: () => void;
  }
  let { shown, asking, onanew }: Props = $props();
  const say = words.imports;
  /** While something is asked a few rows do: the question itself is to be seen. */
  const rows = $derived(shown.first_rows.slice(0, asking ? 3 : undefined));
</script>

<h3 class="font-tag mt-4 text-lg font-semibold">{say.kinds[shown.kind]} · {shown.file_name}</h3>
<p class="text-sm">
  {shown.understood.join('. ')}{shown.understood.length ? '.' : ''}
  {#if shown.first_at && shown.last_at}{say.span(fullDay(shown.first_at), fullDay(shown.last_at))}.{/if}
</p>
{#if shown.questions.length && shown.questions.every((q) => q.answer !== null)}
  <p class="text-sm">
    {#if shown.said_before}{say.saidBefore(shown.said_before.by, fullDay(shown.said_before.at))}{/if}
    <button class="min-h-11 underline underline-offset-4" onclick={onanew}>{say.change}</button>
  </p>
{/if}
{#if rows.length}
  <div class="mt-2 overflow-x-auto">
    <table class="w-full text-sm" aria-label={say.firstRows}>
      <thead class="quiet text-left"
        ><tr><td></td><th class="font-normal">{say.inFile}</th><th class="font-normal">{say.asRead}</th></tr
        ></thead
      >
      <tbody>
        {#each rows as row (row.line)}
          <tr class="border-base-300 border-t align-top">
            <td class="quiet py-1 pr-3 whitespace-nowrap">{say.line(row.line)}</td>
            <td class="py-1 pr-4 font-mono text-xs">
              <span class="flex flex-wrap gap-x-2">
                {#each row.cells as cell, i (i)}
                  <span class="max-w-full break-words">{i > 0 ? '| ' : ''}{cell}</span>
                {/each}
              </span>
            </td>
            <td class="py-1 whitespace-nowrap"
              >{#if row.at && row.values.length}{dayAndTime(row.at)}: {row.values.join(', ')}{:else}<span
                  class="text-warning">{say.faultyRow}</span
                >{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}
