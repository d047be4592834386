<script lang="ts">
  // Photos of a piece: taken with the device, kept small; a struck one stays, crossed out.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';
  import { Unsent } from '../../api/uid';
  import Reason from '../../forms/Reason.svelte';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime } from '../../units/format';
  import { words } from '../../words';

  let { piece }: { piece: number } = $props();
  const say = words.photos;
  const client = useQueryClient();
  const key = $derived(['photos', piece]);
  const found = createQuery(() => ({
    queryKey: key,
    queryFn: () => take(api.GET('/api/pieces/{piece_id}/photos', { params: { path: { piece_id: piece } } })),
  }));
  let striking = $state<number | null>(null);
  let busy = $state(false);
  const unsent = new Unsent();

  async function add(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    const input = event.currentTarget;
    const file = input.files?.[0];
    if (!file) return;
    const body = new FormData();
    body.set('file', file);
    body.set('uid', unsent.of([piece, file.name, file.size, file.lastModified]));
    body.set('by', session.who);
    busy = true;
    try {
      const told = await take(
        api.POST('/api/pieces/{piece_id}/photos', {
          params: { path: { piece_id: piece } },
          body: body as unknown as { file: string; uid: string; by: string },
          bodySerializer: (form) => form as unknown as FormData,
        }),
      );
      client.setQueryData(key, told);
      unsent.through();
    } catch (error) {
      session.complain(error);
    } finally {
      busy = false;
      input.value = '';
    }
  }
  async function strike(reason: string): Promise<void> {
    if (striking === null) return;
    try {
      const params = { path: { photo_id: striking } };
      const body = { reason, by: session.who };
      client.setQueryData(key, await take(api.POST('/api/photos/{photo_id}/strike', { params, body })));
    } catch (error) {
      session.complain(error);
    }
    striking = null;
  }
</script>

<div class="mt-2 flex flex-wrap items-center gap-2">
  <label class="btn btn-sm min-h-11" class:opacity-60={busy}>
    {say.add}
    <input
      class="sr-only"
      type="file"
      accept="image/*"
      capture="environment"
      aria-label={say.add}
      disabled={busy}
      onchange={(event) => void add(event)}
    />
  </label>
  {#each found.data ?? [] as photo (photo.id)}
    <span class="shot" class:struck={photo.struck_reason !== null}>
      <a href={`/api/photos/${photo.id}.jpg`} target="_blank" rel="noreferrer"
        ><img src={`/api/photos/${photo.id}.jpg`} alt={say.of(dayAndTime(photo.at))} loading="lazy" /></a
      >
      {#if photo.struck_reason === null}
        <button class="quiet min-h-8 text-sm underline" onclick={() => (striking = photo.id)}
          >{words.hook.strike}</button
        >
      {:else}<span class="quiet text-sm">{words.hook.struck(photo.struck_reason)}</span>{/if}
    </span>
  {:else}<span class="quiet text-sm">{say.none}</span>{/each}
</div>
{#if striking !== null}
  <Reason label={say.strikeWhy} button={words.hook.strike} onanswer={(reason) => void strike(reason)} />
{/if}

<style>
  .shot {
    display: flex;
    flex-direction: column;
    align-items: center;
  }
  img {
    width: 5.5rem;
    height: 5.5rem;
    object-fit: cover;
    border-radius: 3px;
  }
  .struck img {
    opacity: 0.35;
  }
</style>
