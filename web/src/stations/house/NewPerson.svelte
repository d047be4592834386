<script lang="ts">
  // Somebody new; the first is an owner, and with them signing in begins.
  import { api, type Schema } from '../../api/client';
  import { head } from '../../api/entry';
  import { session } from '../../shell/session.svelte';
  import { words } from '../../words';

  interface Props {
    first: boolean;
    done: (call: Promise<{ data?: unknown; error?: unknown; response: Response }>) => Promise<void>;
  }
  let { first, done }: Props = $props();
  const say = words.house;
  const roles = Object.keys(say.roles) as Schema['PersonIn']['role'][];
  let open = $state(false);
  let name = $state('');
  let role = $state<Schema['PersonIn']['role']>('maker');
  let passphrase = $state('');
  $effect(() => {
    if (first && open && !name) name = session.who === 'maker' ? '' : session.who;
  });

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const body = { name, role: first ? ('owner' as const) : role, passphrase, ...head() };
    await done(
      api.POST('/api/people', { body }).then((answer) => {
        if (answer.data) [name, passphrase, open] = ['', '', false];
        return answer;
      }),
    );
  }
</script>

{#if open}
  <form class="mt-4 grid max-w-2xl grid-cols-2 gap-4 max-md:grid-cols-1" onsubmit={add} aria-label={say.add}>
    <label class="block"
      ><span class="text-sm font-semibold">{say.name}</span><input
        class="input min-h-11 w-full"
        autocomplete="off"
        required
        bind:value={name}
      /></label
    >
    {#if first}
      <p class="self-end pb-2">{say.firstIsOwner}</p>
    {:else}
      <label class="block"
        ><span class="text-sm font-semibold">{say.role}</span>
        <select class="select min-h-11 w-full" bind:value={role}>
          {#each roles as one (one)}<option value={one}>{say.roles[one]}: {say.may[one]}</option>{/each}
        </select></label
      >
    {/if}
    <label class="block"
      ><span class="text-sm font-semibold">{say.passphrase}</span><input
        class="input min-h-11 w-full"
        type={first ? 'password' : 'text'}
        autocomplete="new-password"
        required
        bind:value={passphrase}
      /></label
    >
    <p class="quiet self-end text-sm">{say.passphraseHint}</p>
    <div class="col-span-full flex gap-3">
      <button class="btn btn-primary min-h-11">{first ? say.addFirst : say.add}</button>
      <button class="btn min-h-11" type="button" onclick={() => (open = false)}>{say.leave}</button>
    </div>
  </form>
{:else}
  <button class="btn mt-4 min-h-11" class:btn-primary={first} onclick={() => (open = true)}
    >{first ? say.addFirst : say.add}</button
  >
{/if}
