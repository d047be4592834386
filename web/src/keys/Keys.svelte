<script lang="ts">
  // The keys there are, in a dialog, and whether those of one letter work.
  import { words } from '../words';
  import OneLetter from './OneLetter.svelte';

  let { onclose }: { onclose: () => void } = $props();
  let box = $state<HTMLDialogElement>();
</script>

<dialog
  bind:this={box}
  class="over m-auto"
  aria-label={words.keys.title}
  {onclose}
  onclick={(event) => event.target === box && box?.close()}
  {@attach (dialog) => dialog.showModal()}
>
  <div class="p-6">
    <h2 class="font-tag text-2xl font-bold">{words.keys.title}</h2>
    <dl class="mt-3 grid grid-cols-[max-content_1fr] gap-x-6 gap-y-1.5">
      {#each words.keys.rows as [name, what] (name)}<dt class="font-tag font-semibold">{name}</dt>
        <dd>{what}</dd>{/each}
    </dl>
    <div class="mt-3"><OneLetter /></div>
    <button class="btn mt-3 min-h-11" onclick={() => box?.close()}>{words.close}</button>
  </div>
</dialog>
