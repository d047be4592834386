<script lang="ts">
  // What the last cuts taught of a recipe, shown where it is opened; struck when it was dealt with.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';
  import Reason from '../../forms/Reason.svelte';
  import { p } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { fullDay } from '../../units/format';
  import { words } from '../../words';
  import { said } from '../../words/said';

  let { recipe }: { recipe: number } = $props();
  const say = words.cut;
  const client = useQueryClient();
  const key = $derived(['recipes', recipe, 'next time']);
  const notes = createQuery(() => ({
    queryKey: key,
    queryFn: () =>
      take(api.GET('/api/recipes/{recipe_id}/next-time', { params: { path: { recipe_id: recipe } } })),
  }));
  let striking = $state<number | null>(null);

  async function strike(reason: string): Promise<void> {
    if (striking === null) return;
    const params = { path: { note_id: striking } };
    striking = null;
    try {
      await take(api.POST('/api/next-time/{note_id}/strike', { params, body: { reason, by: session.who } }));
      await client.invalidateQueries({ queryKey: key });
    } catch (error) {
      session.complain(error);
    }
  }
</script>

{#if notes.data?.length}
  <section class="next" aria-label={say.nextTimeTitle}>
    <h2 class="font-tag text-lg font-semibold">{say.nextTimeTitle}</h2>
    <ul>
      {#each notes.data as note (note.id)}
        <li>
          <span class="flex-1"
            ><strong class="inline-block font-semibold first-letter:uppercase">{said(note.says)}</strong>
            <a
              class="quiet underline underline-offset-4"
              href={p('/rest/cut/:id', { params: { id: String(note.piece_id) } })}
              >{say.from(note.tag, fullDay(note.at), note.by)}</a
            >
            {#if note.version !== null}<span class="quiet">· {say.made(note.version)}</span>{/if}</span
          >
          <button class="quiet min-h-11 underline" onclick={() => (striking = note.id)}
            >{say.dealtWith}</button
          >
        </li>
      {/each}
    </ul>
    {#if striking !== null}<Reason
        label={say.dealtWithWhy}
        button={say.dealtWith}
        onanswer={(why) => void strike(why)}
      />{/if}
  </section>
{/if}

<style>
  .next {
    margin-top: 0.5rem;
    padding: 0.3rem 0.8rem;
    border-left: 4px solid var(--color-warning);
    background: color-mix(in oklab, var(--paper), transparent 30%);
  }
  li {
    display: flex;
    align-items: baseline;
    gap: 0.8rem;
  }
</style>
