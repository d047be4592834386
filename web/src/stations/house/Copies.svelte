<script lang="ts">
  // The copies of the record: the nightly ones, one now, and everything out in open files.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';

  import { keys } from '../../api/queries';
  import { door } from '../../shell/door.svelte';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime } from '../../units/format';
  import { words } from '../../words';
  import Disk from './Disk.svelte';
  import HousePage from './HousePage.svelte';

  const say = words.house;
  const client = useQueryClient();
  const copies = createQuery(() => ({ queryKey: keys.copies, queryFn: () => take(api.GET('/api/copies')) }));
  const keeps = $derived(door.keepsHouse);
  let busy = $state(false);

  async function copyNow(): Promise<void> {
    busy = true;
    try {
      client.setQueryData(['copies'], await take(api.POST('/api/copies')));
      session.say(say.copied);
    } catch (error) {
      session.complain(error);
    } finally {
      busy = false;
    }
  }
</script>

<HousePage here="copies" hint={say.copiesHint}>
  {#if copies.isError}<p class="text-error mt-3" role="alert">{copies.error.message}</p>{/if}
  {#if copies.data}
    {@const told = copies.data}
    <section class="mt-4 max-w-3xl" aria-label={say.nightly}>
      <h2 class="font-tag text-xl font-semibold">{say.nightly}</h2>
      {#if told.copies[0]}
        <p class="text-lg" class:text-warning={told.old}>
          {say.lastCopy(dayAndTime(told.copies[0].at))}{told.old ? ` ${say.old}` : ''}
          {#if told.took_s !== null}<span class="quiet text-base">{say.copyTook(told.took_s)}</span>{/if}
        </p>
      {:else}<p class="text-lg">{say.noCopy}</p>{/if}
      {#if told.failed}<p class="text-error" role="alert">{say.failed(told.failed)}</p>{/if}
      <p class="quiet">
        {told.nightly ? say.keptFor(told.kept_days, told.kept_weeks) : say.notHere}
      </p>
      <dl class="where">
        <dt>{say.theRecord}</dt>
        <dd><code>{told.file}</code></dd>
        <dt>{say.theCopies}</dt>
        <dd><code>{told.folder}</code></dd>
      </dl>
      <p class="quiet">{say.elsewhere}</p>
      <ol class="mt-2">
        {#each told.copies as copy (copy.name)}
          <li class="flex gap-4 tabular-nums">
            <span class="w-44">{dayAndTime(copy.at)}</span>
            <span class="quiet">{say.megabytes(copy.bytes / 1e6)}</span>
          </li>
        {/each}
      </ol>
      {#if keeps}<button class="btn mt-3 min-h-11" disabled={busy} onclick={() => void copyNow()}
          >{say.copyNow}</button
        >{/if}
    </section>
    <Disk />
    {#if keeps}
      <section class="mt-8 max-w-3xl" aria-label={say.takeOut}>
        <h2 class="font-tag text-xl font-semibold">{say.takeOut}</h2>
        <p>{say.takeOutHint}</p>
        <a download class="btn mt-2 min-h-11" href="/api/archive.zip">{say.takeOutNow}</a>
        <p class="quiet mt-2 text-sm">{say.noSecrets}</p>
      </section>
    {/if}
    <section class="mt-8 max-w-3xl" aria-label={say.putBack}>
      <h2 class="font-tag text-xl font-semibold">{say.putBack}</h2>
      <p>{say.putBackHint}</p>
      <pre class="mt-1 text-sm break-all whitespace-pre-wrap">zymon restore COPY --db {told.file}
zymon unarchive ARCHIVE.zip --db NEW.db</pre>
    </section>
  {/if}
</HousePage>

<style>
  .where {
    display: grid;
    grid-template-columns: max-content minmax(0, 1fr);
    gap: 0.1rem 1rem;
    margin: 0.5rem 0;
  }
  .where dd {
    overflow-wrap: anywhere;
  }
</style>
