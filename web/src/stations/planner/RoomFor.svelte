<script lang="ts">
  // How many pieces go into a place without hooks: asked once, where it is shown.
  import { api, type Schema, take } from '../../api/client';
  import { head } from '../../api/entry';
  import { session } from '../../shell/session.svelte';
  import { typedNumber } from '../../units/number';
  import { words } from '../../words';

  let { strip, onchanged }: { strip: Schema['StripOut']; onchanged: () => void } = $props();
  const say = words.plan;
  let typed = $state<string | null>(null);

  async function keep(event: Event): Promise<void> {
    event.preventDefault();
    try {
      const params = { path: { place_id: strip.place_id } };
      const body = { room: typedNumber(typed ?? ''), ...head() };
      await take(api.POST('/api/places/{place_id}/room-for', { params, body }));
      typed = null;
      onchanged();
    } catch (error) {
      session.complain(error);
    }
  }
</script>

{#if typed === null}
  <button class="min-h-11 underline underline-offset-4" onclick={() => (typed = String(strip.room ?? ''))}
    >{strip.room === null ? say.roomUnknown : say.roomFor(strip.room)}</button
  >
{:else}
  <form class="flex gap-2" onsubmit={keep}>
    <input class="input min-h-11 w-20" inputmode="numeric" aria-label={say.roomUnknown} bind:value={typed} />
    <button class="btn min-h-11">{say.setRoom}</button>
  </form>
{/if}
