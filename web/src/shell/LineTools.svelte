<script lang="ts">
  // At the end of the line: find, a new place, who is here, the house, the light.
  import { words } from '../words';
  import { door } from './door.svelte';
  import { finding } from './finding.svelte';
  import { p } from './router';
  import { session } from './session.svelte';

  let naming = $state<string | null>(null);
  function rename(): void {
    if (naming?.trim()) session.rename(naming);
    naming = null;
  }
</script>

<div class="flex flex-none items-center gap-2 pr-3">
  <button
    class="grid min-h-11 min-w-8 place-items-center"
    title="{words.book.find.open} (/)"
    aria-label={words.book.find.open}
    onclick={() => (finding.open = true)}
    ><svg width="17" height="17" viewBox="0 0 17 17" aria-hidden="true"
      ><circle cx="7" cy="7" r="5" fill="none" stroke="currentColor" stroke-width="2" /><path
        d="M11 11l4.5 4.5"
        stroke="currentColor"
        stroke-width="2"
      /></svg
    ></button
  >
  <a
    class="grid min-h-11 min-w-8 place-items-center text-lg"
    href={p('/places/new')}
    title={words.place.title}
    aria-label={words.place.title}>+</a
  >
  {#if door.me}
    <a class="inline-flex min-h-11 items-center text-sm" href={p('/house/people')}>{door.me.name}</a>
  {:else if naming === null}
    <button class="min-h-11 min-w-8 text-sm" onclick={() => (naming = session.who)} title={words.who}
      >{session.who}</button
    >
  {:else}
    <form
      onsubmit={(event) => {
        event.preventDefault();
        rename();
      }}
    >
      <input
        class="word w-28"
        style="color: inherit"
        aria-label={words.who}
        autocomplete="off"
        {@attach (box) => box.focus()}
        bind:value={naming}
        onblur={rename}
        onkeydown={(event) => event.key === 'Escape' && (naming = null)}
      />
    </form>
  {/if}
  <a
    class="grid min-h-11 min-w-8 place-items-center"
    href={p('/house')}
    title={words.house.open}
    aria-label={words.house.open}
    ><svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true"
      ><path
        d="M2 8.5 9 2.5l7 6M4 8v7.5h10V8M7.5 15.5v-4h3v4"
        fill="none"
        stroke="currentColor"
        stroke-width="1.8"
      /></svg
    ></a
  >
  <button
    class="min-h-11 min-w-8"
    onclick={() => session.turnLight()}
    aria-label={words.theme}
    title={words.theme}
  >
    <svg width="18" height="18" viewBox="0 0 20 20" aria-hidden="true">
      <circle cx="10" cy="10" r="7" fill="none" stroke="currentColor" stroke-width="2" />
      <path d="M10 3a7 7 0 0 1 0 14z" fill="currentColor" />
    </svg>
  </button>
</div>
