<script lang="ts">
  // A chart's figures as a table, and as a file: a line a day or an hour, as the chart has them.
  import { words } from '../words';

  interface Props {
    name: string;
    head: string[];
    rows: string[][];
    file: string;
  }
  let { name, head, rows, file }: Props = $props();
  let open = $state(false);
  const MOST = 60;
  const every = $derived(Math.max(1, Math.ceil(rows.length / MOST)));
  const shown = $derived(rows.filter((_, i) => i % every === 0 || i === rows.length - 1));
</script>

<details class="mt-1 text-sm" bind:open>
  <summary class="inline-flex min-h-11 cursor-pointer items-center underline underline-offset-4"
    >{words.asTable}</summary
  >
  {#if open}
    <div class="max-h-72 overflow-auto">
      <table class="tabular-nums" aria-label={name}>
        <thead
          ><tr
            >{#each head as one, i (i)}<th class="pr-5 text-left font-semibold" scope="col">{one}</th
              >{/each}</tr
          ></thead
        >
        <tbody
          >{#each shown as row, i (i)}<tr
              >{#each row as cell, k (k)}<td class="pr-5 whitespace-nowrap">{cell}</td>{/each}</tr
            >{/each}</tbody
        >
      </table>
    </div>
    <a download class="inline-flex min-h-11 items-center underline underline-offset-4" href={file}>CSV</a>
  {/if}
</details>
