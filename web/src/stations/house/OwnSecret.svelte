<script lang="ts">
  // One's own passphrase and PIN, and going out.
  import { useQueryClient } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';

  import { keys } from '../../api/queries';
  import { door } from '../../shell/door.svelte';
  import { session } from '../../shell/session.svelte';
  import { words } from '../../words';

  const say = words.house;
  const client = useQueryClient();
  let what = $state<'pin' | 'passphrase'>('pin');
  let now = $state('');
  let wanted = $state('');

  async function change(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      const body = what === 'pin' ? { now, pin: wanted } : { now, passphrase: wanted };
      await take(api.PUT('/api/me/secret', { body }));
      session.say(what === 'pin' ? say.pinChanged : say.passphraseChanged);
      [now, wanted] = ['', ''];
      await door.look();
      void client.invalidateQueries({ queryKey: keys.people });
    } catch (error) {
      session.complain(error);
    }
  }
  async function leave(): Promise<void> {
    session.notice = null;
    await door.leave();
  }
</script>

<section aria-label={say.you}>
  <h2 class="font-tag text-xl font-semibold">{say.you}</h2>
  <p class="quiet">{say.youAre(door.me?.name ?? '', say.roles[door.me?.role ?? 'helper'].toLowerCase())}</p>
  <form class="mt-2 grid gap-3" onsubmit={change} aria-label={say.change}>
    <div class="flex gap-5" role="radiogroup" aria-label={say.change}>
      <label class="flex min-h-11 items-center gap-2"
        ><input type="radio" class="radio" bind:group={what} value="pin" />{door.me?.has_pin
          ? say.anotherPin
          : say.aPin}</label
      >
      <label class="flex min-h-11 items-center gap-2"
        ><input
          type="radio"
          class="radio"
          bind:group={what}
          value="passphrase"
        />{say.anotherPassphrase}</label
      >
    </div>
    <label class="block"
      ><span class="text-sm font-semibold">{say.passphraseNow}</span><input
        class="input min-h-11 w-full"
        type="password"
        autocomplete="current-password"
        required
        bind:value={now}
      /></label
    >
    <label class="block"
      ><span class="text-sm font-semibold">{what === 'pin' ? say.pinWanted : say.passphraseWanted}</span
      ><input
        class="input min-h-11 w-full"
        type="password"
        inputmode={what === 'pin' ? 'numeric' : undefined}
        autocomplete="new-password"
        required
        bind:value={wanted}
      /></label
    >
    <div class="flex flex-wrap gap-3">
      <button class="btn min-h-11">{say.change}</button>
      <button class="btn min-h-11" type="button" onclick={() => void leave()}>{say.signOut}</button>
    </div>
  </form>
</section>
