<script lang="ts">
  // One box, from anywhere by `/`: what is typed is found as it is typed; arrows choose, Enter opens.
  import { createQuery } from '@tanstack/svelte-query';

  import { findQuery } from '../api/queries';
  import { isForThePage } from '../keys/typing';
  import { fullDay } from '../units/format';
  import { words } from '../words';
  import { finding, leadsTo, stepped } from './finding.svelte';
  import { navigate } from './router';

  const say = words.book.find;
  let box = $state<HTMLDialogElement | null>(null);
  let typed = $state('');
  let asked = $state('');
  let at = $state(0);
  $effect(() => {
    const wanted = typed.trim();
    const timer = setTimeout(() => (asked = wanted), 80);
    return () => clearTimeout(timer);
  });
  const found = createQuery(() => ({
    ...findQuery(asked),
    placeholderData: <T,>(before: T | undefined): T | undefined => before,
  }));
  const rows = $derived(asked.length > 1 ? (found.data?.found ?? []) : []);
  $effect(() => {
    void asked;
    at = 0;
  });
  $effect(() => {
    if (!box) return;
    if (finding.open && !box.open) box.showModal();
    if (!finding.open && box.open) box.close();
  });

  function onkey(event: KeyboardEvent): void {
    if (event.key !== '/' || !isForThePage(event) || finding.open) return;
    event.preventDefault();
    [typed, finding.open] = ['', true];
  }
  async function open(i: number): Promise<void> {
    const row = rows[i];
    if (!row) return;
    finding.open = false;
    // the address is made of the router's own parts
    await navigate(leadsTo(row) as '/');
  }
  function steer(event: KeyboardEvent): void {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      at = stepped(at, event.key === 'ArrowDown' ? 1 : -1, rows.length);
      document.getElementById(`found-${at}`)?.scrollIntoView({ block: 'nearest' });
    } else if (event.key === 'Enter') {
      event.preventDefault();
      void open(at);
    }
  }
</script>

<svelte:window onkeydown={onkey} />

<dialog bind:this={box} class="over find" aria-label={say.open} onclose={() => (finding.open = false)}>
  {#if finding.open}
    <input
      type="search"
      placeholder={say.label}
      aria-label={say.label}
      aria-controls="found"
      aria-activedescendant={rows.length ? `found-${at}` : undefined}
      autocomplete="off"
      {@attach (field) => field.focus()}
      bind:value={typed}
      onkeydown={steer}
    />
    <ul id="found" role="listbox" aria-label={say.open}>
      {#each rows as row, i (i)}
        <li id="found-{i}" role="option" aria-selected={i === at}>
          <button
            type="button"
            class:at={i === at}
            onmouseenter={() => (at = i)}
            onclick={() => void open(i)}
          >
            <span class="kind">{say.kinds[row.kind]}</span>
            <span class="min-w-0 flex-1 truncate" class:line-through={row.struck}
              ><strong class:font-tag={row.kind !== 'note'}>{row.title}</strong> {row.detail}</span
            >
            <span class="quiet flex-none text-sm">{row.by ?? ''} {row.at ? fullDay(row.at) : ''}</span>
          </button>
        </li>
      {:else}
        {#if asked.length > 1 && found.data && !found.isPlaceholderData}<li class="px-4 py-3">
            {say.none}
          </li>{/if}
      {/each}
    </ul>
    <p class="quiet px-4 py-2 text-sm">{say.hint}</p>
  {/if}
</dialog>

<style>
  .find {
    width: min(44rem, 94vw);
    margin: 8vh auto 0;
  }
  input {
    width: 100%;
    padding: 0.9rem 1rem;
    font-size: 1.15rem;
    background: transparent;
    border-bottom: 2px solid var(--color-primary);
    outline: none;
  }
  ul {
    max-height: 55vh;
    overflow-y: auto;
  }
  li button {
    display: flex;
    align-items: baseline;
    gap: 0.8rem;
    width: 100%;
    min-height: 44px;
    padding: 0.5rem 1rem;
    text-align: left;
    cursor: pointer;
  }
  li button.at {
    background: color-mix(in oklab, var(--color-primary), transparent 84%);
  }
  .kind {
    flex: none;
    width: 4rem;
    color: var(--color-base-content);
    opacity: 0.75;
    font-size: 0.9rem;
  }
</style>
