<script lang="ts">
  // The door: a name and its passphrase; on a trusted tablet one's tag and a few digits, with gloves on.
  import { api, take } from '../api/client';
  import { words } from '../words';
  import { door } from './door.svelte';
  import Mark from './Mark.svelte';
  import { session } from './session.svelte';

  const say = words.house;
  let name = $state(session.who === 'maker' ? '' : session.who);
  let secret = $state('');
  let fault = $state('');
  let busy = $state(false);
  let chosen = $state<boolean | null>(null);
  const usesPin = $derived(chosen ?? (door.tablet !== null && door.byPin.length > 0));
  const digits = ['1', '2', '3', '4', '5', '6', '7', '8', '9'];

  async function enter(event?: SubmitEvent): Promise<void> {
    event?.preventDefault();
    if (busy) return;
    busy = true;
    try {
      const body = usesPin ? { name, pin: secret } : { name, passphrase: secret };
      door.take(await take(api.POST('/api/sign-in', { body })));
    } catch (error) {
      fault = error instanceof Error ? error.message : '';
    } finally {
      [secret, busy] = ['', false];
    }
  }
</script>

<svelte:head><title>{say.signIn} · Zymon</title></svelte:head>

<main class="mx-auto flex max-w-md flex-col px-5 py-10 max-md:py-6">
  <Mark size={52} />
  <h1 class="font-tag mt-3 text-4xl font-bold">{say.signIn}</h1>
  <p class="quiet mt-1 text-lg">{door.tablet ? say.onTablet(door.tablet) : say.signInHint}</p>
  {#if usesPin}
    <div class="mt-4 flex flex-wrap gap-2" role="group" aria-label={say.name}>
      {#each door.byPin as one (one)}
        <button class="tag" class:on={name === one} aria-pressed={name === one} onclick={() => (name = one)}
          >{one}</button
        >
      {/each}
    </div>
    <form class="mt-4" onsubmit={enter} aria-label={say.pin}>
      <input
        class="input font-tag min-h-14 w-full text-center text-3xl tracking-[0.4em]"
        type="password"
        inputmode="numeric"
        autocomplete="off"
        aria-label={say.pin}
        bind:value={secret}
      />
      <div class="pad mt-3">
        {#each digits as digit (digit)}
          <button type="button" class="key" onclick={() => (secret += digit)}>{digit}</button>
        {/each}
        <button
          type="button"
          class="key"
          aria-label={say.oneBack}
          onclick={() => (secret = secret.slice(0, -1))}>←</button
        >
        <button type="button" class="key" onclick={() => (secret += '0')}>0</button>
        <button class="key go" disabled={busy || !name || secret.length < 4}>{say.in}</button>
      </div>
    </form>
  {:else}
    <form class="mt-4 grid gap-3" onsubmit={enter} aria-label={say.signIn}>
      <label class="block"
        ><span class="text-sm font-semibold">{say.name}</span><input
          class="input min-h-12 w-full text-lg"
          autocomplete="username"
          required
          bind:value={name}
        /></label
      >
      <label class="block"
        ><span class="text-sm font-semibold">{say.passphrase}</span><input
          class="input min-h-12 w-full text-lg"
          type="password"
          autocomplete="current-password"
          required
          bind:value={secret}
        /></label
      >
      <button class="btn btn-primary min-h-12 text-lg" disabled={busy}>{say.signIn}</button>
    </form>
  {/if}
  {#if fault}<p class="text-error mt-3 text-lg" role="alert">{fault}</p>{/if}
  {#if door.tablet && door.byPin.length}
    <button class="mt-4 min-h-11 self-start underline underline-offset-4" onclick={() => (chosen = !usesPin)}
      >{usesPin ? say.byPassphrase : say.byPin}</button
    >
  {/if}
  <p class="quiet mt-6 text-sm">{say.forgot}</p>
</main>

<style>
  .tag {
    min-height: 56px;
    padding: 0 1.1rem;
    border: 1px solid var(--color-base-300);
    border-radius: 3px;
    background: var(--paper);
    font-family: var(--font-tag);
    font-size: 1.25rem;
    font-weight: 600;
    cursor: pointer;
  }
  .tag.on {
    border-color: var(--color-primary);
    box-shadow: inset 0 -4px 0 0 var(--color-primary);
  }
  .pad {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 0.5rem;
  }
  .key {
    min-height: 64px;
    border-radius: 3px;
    background: var(--color-base-200);
    font-size: 1.6rem;
    font-variant-numeric: tabular-nums;
    cursor: pointer;
  }
  .key.go {
    background: var(--color-primary);
    color: var(--color-primary-content);
  }
  .key.go:disabled {
    opacity: 0.5;
  }
</style>
