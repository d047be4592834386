<script lang="ts">
  // A person: a tag with the name, what they may do in words, and what an owner may change about it.
  import { api, type Schema } from '../../api/client';
  import PaperTag from '../../goods/PaperTag.svelte';
  import { takesFocus } from '../../keys/focus';
  import { door } from '../../shell/door.svelte';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime, fullDay } from '../../units/format';
  import { words } from '../../words';

  interface Props {
    person: Schema['PersonOut'];
    keeps: boolean;
    done: (call: Promise<{ data?: unknown; error?: unknown; response: Response }>) => Promise<void>;
  }
  let { person, keeps, done }: Props = $props();
  const say = words.house;
  const roles = Object.keys(say.roles) as Schema['PersonOut']['role'][];
  let changing = $state(false);
  let passphrase = $state('');
  const path = $derived({ path: { person_id: person.id } });

  async function give(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    await done(
      api.PUT('/api/people/{person_id}/passphrase', { params: path, body: { passphrase, by: session.who } }),
    );
    [passphrase, changing] = ['', false];
  }
</script>

<div class="person">
  <PaperTag top={say.roles[person.role]} main={person.name} />
  <div class="min-w-0">
    <p>{say.may[person.role]}</p>
    <p class="quiet text-sm">
      {say.since(fullDay(person.made_at), person.made_by)}{person.has_pin ? `, ${say.hasPin}` : ''}
      {#if !person.has_passphrase}<strong class="text-warning">{say.noPassphrase}</strong>{/if}
      {#if person.waits_until}<strong class="text-warning">{say.waits(dayAndTime(person.waits_until))}</strong
        >{/if}
    </p>
  </div>
  {#if keeps && door.me}
    <div class="acts">
      <select
        class="select min-h-11 w-32"
        aria-label={say.roleOf(person.name)}
        value={person.role}
        onchange={(event) =>
          void done(
            api.PUT('/api/people/{person_id}/role', {
              params: path,
              body: { role: event.currentTarget.value as Schema['RoleIn']['role'], by: session.who },
            }),
          )}
      >
        {#each roles as role (role)}<option value={role}>{say.roles[role]}</option>{/each}
      </select>
      <button class="min-h-11 underline underline-offset-4" onclick={() => (changing = !changing)}
        >{say.newPassphrase}</button
      >
      {#if person.id !== door.me.id}
        <button
          class="min-h-11 underline underline-offset-4"
          onclick={() =>
            void done(api.POST('/api/people/{person_id}/end', { params: path, body: { by: session.who } }))}
          >{say.worksNoMore}</button
        >
      {/if}
    </div>
  {/if}
  {#if changing}
    <form
      class="col-span-full flex flex-wrap items-end gap-3"
      onsubmit={give}
      {@attach takesFocus}
      aria-label={say.newPassphrase}
    >
      <label class="block"
        ><span class="block text-sm font-semibold">{say.passphraseFor(person.name)}</span><input
          class="input min-h-11 w-72"
          type="text"
          autocomplete="off"
          required
          bind:value={passphrase}
        /></label
      >
      <button class="btn min-h-11">{say.give}</button>
      <p class="quiet w-full text-sm">{say.giveHint}</p>
    </form>
  {/if}
</div>

<style>
  .person {
    display: grid;
    grid-template-columns: 11rem minmax(0, 1fr) 26rem;
    gap: 0.3rem 1.4rem;
    align-items: center;
    padding: 0.6rem 0;
    border-bottom: 1px solid var(--color-base-300);
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1rem;
    align-items: center;
  }
  @media (max-width: 900px) {
    .person {
      grid-template-columns: 9rem minmax(0, 1fr);
    }
    .acts {
      grid-column: 1 / -1;
    }
  }
</style>
