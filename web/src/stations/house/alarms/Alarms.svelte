<script lang="ts">
  // Alarms: what was wrong and who was told, what is watched at each place, who is told.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../../api/client';

  import { keys } from '../../../api/queries';
  import { dayAndTime } from '../../../units/format';
  import { words } from '../../../words';
  import { said } from '../../../words/said';
  import HousePage from '../HousePage.svelte';
  import BandRow from './BandRow.svelte';
  import { takeCare } from './care';
  import ToldPeople from './ToldPeople.svelte';

  const say = words.alarms;
  const alarms = createQuery(() => ({
    queryKey: keys.alarms,
    queryFn: () => take(api.GET('/api/alarms')),
    refetchInterval: 30_000,
  }));
  const client = useQueryClient();
  const told = (one: Schema['MessageOut']): string => {
    const at = one.at ? dayAndTime(one.at) : '';
    return `${say.told[one.state](one.name, at)}${one.trouble ? ` (${one.trouble})` : ''}`;
  };
</script>

<HousePage here="alarms" hint={say.hint}>
  {#if alarms.isError}<p class="text-error mt-3" role="alert">{alarms.error.message}</p>{/if}
  {#if alarms.data}
    {@const all = alarms.data}
    <div class="mt-4 grid gap-x-14 gap-y-8 lg:grid-cols-[minmax(0,30rem)_minmax(0,1fr)]">
      <section aria-label={say.what}>
        <h2 class="font-tag text-xl font-semibold">{say.what}</h2>
        {#each all.events as one (one.id)}
          <article class="border-base-300 border-b py-2" class:opacity-80={one.ended_at !== null}>
            <p class="text-lg font-semibold" class:text-error={one.ended_at === null}>
              <a class="inline-flex min-h-11 items-center underline underline-offset-4" href={one.link}
                >{said(one.title)}</a
              >
            </p>
            <p class="quiet">
              {one.ended_at
                ? say.fromTo(dayAndTime(one.begun_at), dayAndTime(one.ended_at))
                : say.since(dayAndTime(one.begun_at))}{one.acknowledged_by
                ? `, ${say.takenBy(one.acknowledged_by)}`
                : ''}
            </p>
            <p class="max-w-prose">{said(one.means)}</p>
            {#if !one.acknowledged_by}<button
                class="btn btn-sm mt-1 min-h-11"
                aria-label="{say.take}: {said(one.title)}"
                onclick={() => void takeCare(client, one.id)}>{say.take}</button
              >{/if}
            {#each one.messages as message, i (i)}<p
                class="text-sm"
                class:quiet={message.state === 'gone'}
                class:text-warning={message.state !== 'gone'}
              >
                {told(message)}
              </p>{/each}
          </article>
        {:else}<p class="text-lg">{say.none}</p>{/each}
      </section>
      <div>
        <section aria-label={say.watched}>
          <h2 class="font-tag text-xl font-semibold">{say.watched}</h2>
          <p class="quiet max-w-prose">{say.watchedHint}</p>
          {#each all.bands as band (band.place_id)}<BandRow {band} />{/each}
        </section>
        <ToldPeople {all} />
      </div>
    </div>
  {/if}
</HousePage>
