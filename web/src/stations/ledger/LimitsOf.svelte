<script lang="ts">
  // By which limits a batch is judged, what they do not know, and what others would change.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { limitsQuery } from '../../api/queries';
  import { p } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { words } from '../../words';
  import { textOf } from '../../words/said';

  interface Props {
    batch: number;
    profile: Schema['ProfileShown'];
    took: (answer: Schema['LedgerOut']) => void;
  }
  let { batch, profile, took }: Props = $props();
  const say = words.ledger;
  const limits = createQuery(() => limitsQuery());
  let changed = $state<Schema['ProfileChanged']['changed'] | null>(null);

  async function judgeBy(id: string): Promise<void> {
    try {
      const answer = await take(
        api.PUT('/api/batches/{batch_id}/profile', {
          params: { path: { batch_id: batch } },
          body: { profile: id, by: session.who },
        }),
      );
      changed = answer.changed;
      took(answer.ledger);
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<section class="mt-5" aria-label={say.limits}>
  <h2 class="font-tag text-xl font-semibold">{say.limits}</h2>
  <select
    class="select mt-1 min-h-11 w-full"
    value={profile.id}
    aria-label={say.limits}
    onchange={(e) => void judgeBy(e.currentTarget.value)}
  >
    {#each limits.data ?? [] as one (one.id)}<option value={one.id}
        >{say.limitsOf(one.name, one.as_of)}</option
      >{/each}
  </select>
  {#if profile.milder.length}<p class="text-error mt-1 font-semibold">{say.milder(profile.made_by)}</p>{/if}
  <p class="quiet mt-1 text-sm">{profile.source}. {textOf(profile.check)}</p>
  {#if profile.does_not_know.length}
    <p class="mt-2 text-sm">{say.doesNotKnow}</p>
    <ul class="list-disc pl-5 text-sm">
      {#each profile.does_not_know as one (one)}<li>{textOf(one)}</li>{/each}
    </ul>
  {/if}
  <a class="inline-flex min-h-11 items-center underline underline-offset-4" href={p('/bench/limits')}
    >{words.bench.limitsPage.link}</a
  >
  {#if changed}
    <p role="status">{say.changed(changed.length)}</p>
    {#each changed as one (one.name)}
      <p>
        {say.stoodNow(
          say.names[one.name] ?? one.name,
          say.states[one.was] ?? one.was,
          say.states[one.now] ?? one.now,
        )}
      </p>
    {/each}
  {/if}
</section>
