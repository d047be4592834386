<script lang="ts">
  // Into an empty workshop: all that another one held.
  import { useQueryClient } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';
  import { door } from '../../shell/door.svelte';
  import { session } from '../../shell/session.svelte';
  import { words } from '../../words';

  const say = words.house;
  const client = useQueryClient();
  let busy = $state(false);

  async function bring(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    const file = event.currentTarget.files?.[0];
    if (!file) return;
    busy = true;
    try {
      const body = new FormData();
      body.append('file', file);
      const told = await take(
        // a file travels as a form, which the types of the interface do not describe
        api.POST('/api/archive', { body: body as unknown as { file: string }, bodySerializer: () => body }),
      );
      session.say(`${say.broughtIn(told.rows)} ${told.people ? say.people : ''}`);
      await door.look();
      await client.invalidateQueries();
    } catch (error) {
      session.complain(error);
    } finally {
      busy = false;
    }
  }
</script>

<section class="mt-8 border-t border-current/20 pt-4" aria-label={say.bringIn}>
  <h2 class="font-tag text-xl font-semibold">{say.bringIn}</h2>
  <p class="quiet">{say.bringInHint}</p>
  <input
    class="file-input mt-2 min-h-11"
    type="file"
    accept=".zip"
    aria-label={say.bringIn}
    disabled={busy}
    onchange={(event) => void bring(event)}
  />
  {#if busy}<p role="status">{words.loading}</p>{/if}
</section>
