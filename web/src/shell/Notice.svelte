<script lang="ts">
  import { isForThePage } from '../keys/typing';
  import { words } from '../words';
  import { session } from './session.svelte';

  function key(event: KeyboardEvent): void {
    if (event.key !== 'u' || !session.notice?.undo || !isForThePage(event)) return;
    event.preventDefault();
    void session.undo();
  }
</script>

<svelte:window onkeydown={key} />

{#if session.notice}
  <div
    class="fixed bottom-4 left-1/2 z-40 flex max-w-[92vw] -translate-x-1/2 items-center gap-4 rounded-sm px-4 py-2 text-base shadow-lg"
    class:bg-neutral={!session.notice.problem}
    class:text-neutral-content={!session.notice.problem}
    class:bg-error={session.notice.problem}
    class:text-error-content={session.notice.problem}
    role={session.notice.problem ? 'alert' : 'status'}
  >
    <span>{session.notice.text}</span>
    {#if session.notice.undo}
      <button class="min-h-11 font-semibold underline underline-offset-4" onclick={() => session.undo()}>
        {words.undo} <kbd class="opacity-70">u</kbd>
      </button>
    {:else}
      <button class="min-h-11 font-semibold" aria-label={words.close} onclick={() => (session.notice = null)}
        >✕</button
      >
    {/if}
  </div>
{/if}
