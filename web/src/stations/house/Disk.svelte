<script lang="ts">
  // The room that the record takes, and the log of the air thinned once somebody knows what goes.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, ProblemError, take } from '../../api/client';
  import { head } from '../../api/entry';
  import type { components } from '../../api/schema.gen';
  import { door } from '../../shell/door.svelte';
  import { session } from '../../shell/session.svelte';
  import { fullDay as day } from '../../units/format';
  import { numberText } from '../../units/number';
  import { words } from '../../words';

  const say = words.house;
  const client = useQueryClient();
  const key = ['disk'];
  const disk = createQuery(() => ({
    queryKey: key,
    queryFn: () => take(api.GET('/api/disk')),
    refetchInterval: (query) => (query.state.data?.share_done == null ? false : 1000),
  }));
  let question = $state('');
  let busy = $state(false);

  /** Thin, or go on with it: the server asks first what goes. */
  async function thin(sure: boolean): Promise<void> {
    busy = true;
    question = '';
    try {
      client.setQueryData(key, await take(api.POST('/api/disk/thinning', { body: { ...head(), sure } })));
    } catch (error) {
      if (error instanceof ProblemError && error.code === 'doubtful') question = error.message;
      else session.complain(error);
    } finally {
      busy = false;
    }
  }

  type Thinning = components['schemas']['ThinningOut'];
  const done = (one: Thinning): string =>
    say.thinned(day(one.before), one.readings_before, one.readings_after, one.by, day(one.at));
</script>

{#if disk.data}
  {@const told = disk.data}
  {@const brokenOff = told.share_done === null && told.thinnings.find((one) => one.ended === null)}
  <section class="mt-8 max-w-3xl" aria-label={say.disk}>
    <h2 class="font-tag text-xl font-semibold">{say.disk}</h2>
    <dl class="room tabular-nums">
      <dt>{say.diskTold.record}</dt>
      <dd>
        {say.size(told.record_bytes)}{#if told.unused_bytes > told.record_bytes / 20}<span class="quiet"
            >, {say.diskTold.unused(say.size(told.unused_bytes))}</span
          >{/if}
      </dd>
      <dt>{say.diskTold.readings}</dt>
      <dd>{numberText(told.readings, 0, '\u2009')}</dd>
      <dt>{say.diskTold.copies(told.copies)}</dt>
      <dd>{say.size(told.copies_bytes)}</dd>
      <dt>{say.diskTold.free}</dt>
      <dd>{say.size(told.free_bytes)}</dd>
    </dl>
    {#if told.share_done !== null}
      <p role="status">{say.thinning(Math.round(100 * told.share_done))}</p>
      <progress class="progress mt-1 max-w-xl" value={told.share_done} max="1" aria-label={say.thin}
      ></progress>
    {:else if brokenOff}
      <p class="text-warning">{say.thinBroken(brokenOff.by, day(brokenOff.at))}</p>
      {#if told.failed}<p class="text-error" role="alert">{say.thinFailed(told.failed)}</p>{/if}
      {#if door.keepsHouse}<button class="btn mt-2 min-h-11" disabled={busy} onclick={() => void thin(true)}
          >{say.thinGoOn}</button
        >{/if}
    {:else if told.would_go > 0}
      <p>{say.thinHint(told.would_go, day(told.full_since), say.size(told.would_free_bytes))}</p>
      {#if door.keepsHouse && !question}
        <button class="btn mt-2 min-h-11" disabled={busy} onclick={() => void thin(false)}>{say.thin}</button>
      {/if}
    {/if}
    {#if question}
      <div class="asked" role="alert">
        <p class="font-semibold">{question}</p>
        <p class="mt-2 flex flex-wrap gap-2">
          <a download class="btn min-h-11" href="/api/archive.zip">{say.thinArchive}</a>
          <button class="btn btn-warning min-h-11" disabled={busy} onclick={() => void thin(true)}
            >{say.thinYes}</button
          >
          <button class="btn min-h-11" onclick={() => (question = '')}>{say.thinNo}</button>
        </p>
      </div>
    {/if}
    {#each told.thinnings.filter((one) => one.ended !== null) as one (one.at)}
      <p class="quiet mt-1">{done(one)}</p>
    {/each}
  </section>
{/if}

<style>
  .room {
    display: grid;
    grid-template-columns: max-content minmax(0, 1fr);
    gap: 0.1rem 1rem;
    margin: 0.5rem 0;
  }
  .asked {
    margin-top: 0.75rem;
    padding: 0.75rem 1rem;
    border-inline-start: 4px solid var(--color-warning);
  }
</style>
