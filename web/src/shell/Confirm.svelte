<script lang="ts">
  // The passphrase or PIN once more, for what is signed.
  import { api, take } from '../api/client';
  import { words } from '../words';
  import { confirm } from './confirm.svelte';
  import { door } from './door.svelte';

  const say = words.house;
  let box = $state<HTMLDialogElement | null>(null);
  let secret = $state('');
  let fault = $state('');
  const byPin = $derived(door.me?.by_pin ?? false);
  $effect(() => {
    if (!box) return;
    if (confirm.open && !box.open) {
      [secret, fault] = ['', ''];
      box.showModal();
    }
    if (!confirm.open && box.open) box.close();
  });

  async function give(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      await take(api.POST('/api/me/confirm', { body: { secret } }));
      confirm.answer(true);
    } catch (error) {
      fault = error instanceof Error ? error.message : '';
      secret = '';
    }
  }
</script>

<dialog
  bind:this={box}
  class="over sheet"
  aria-label={say.confirm}
  onclose={() => confirm.open && confirm.answer(false)}
>
  {#if confirm.open}
    <form onsubmit={give}>
      <h2 class="font-tag text-2xl font-semibold">{say.confirm}</h2>
      <p class="quiet mt-1">{say.confirmHint(door.me?.name ?? '')}</p>
      <label class="mt-3 block"
        ><span class="text-sm font-semibold">{byPin ? say.pin : say.passphrase}</span>
        <input
          class="input min-h-11 w-full text-base"
          type="password"
          inputmode={byPin ? 'numeric' : undefined}
          autocomplete="current-password"
          required
          {@attach (field) => field.focus()}
          bind:value={secret}
        /></label
      >
      {#if fault}<p class="text-error mt-1" role="alert">{fault}</p>{/if}
      <div class="mt-4 flex gap-3">
        <button class="btn btn-primary min-h-11">{say.sign}</button>
        <button class="btn min-h-11" type="button" onclick={() => confirm.answer(false)}>{say.leave}</button>
      </div>
    </form>
  {/if}
</dialog>

<style>
  .sheet {
    width: min(26rem, 94vw);
    margin: 14vh auto 0;
    padding: 1.2rem 1.4rem;
  }
</style>
