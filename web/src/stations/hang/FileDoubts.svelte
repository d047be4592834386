<script lang="ts">
  // The rows of a file that would be asked about at the scale: each counts or is left out.
  import { dayAndTime } from '../../units/format';
  import { words } from '../../words';
  import type { Importing } from './importing.svelte';

  interface Props {
    flow: Importing;
  }
  let { flow }: Props = $props();
  const say = words.imports;
  const rows = $derived(flow.preview?.doubtful ?? []);
</script>

<section class="border-warning mt-3 border-l-4 pl-3" aria-label={say.doubtful(rows.length)}>
  <p class="font-semibold">{say.doubtful(rows.length)}</p>
  <p class="quiet text-sm">{say.doubtText}</p>
  <ul class="max-h-96 overflow-y-auto">
    {#each rows as row (row.line)}
      <li class="border-base-300 border-b py-1">
        <span class="quiet text-sm">{say.line(row.line)}, {dayAndTime(row.at)}</span>
        <strong class="font-tag">{row.shown}</strong>
        <span>{row.question}</span>
        <span class="flex gap-x-5">
          {#each [true, false] as counts (counts)}
            <label class="flex min-h-11 items-center gap-2"
              ><input
                type="radio"
                class="radio"
                name="line-{row.line}"
                value={counts}
                bind:group={flow.counts[row.line]}
              />{counts ? say.count : say.leave}</label
            >
          {/each}
        </span>
      </li>
    {/each}
  </ul>
  {#if rows.length > 1}<button type="button" class="btn btn-sm mt-1 min-h-11" onclick={() => flow.leaveAll()}
      >{say.leaveAll}</button
    >{/if}
</section>
