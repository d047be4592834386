<script lang="ts">
  // Who works here: each with a tag, what they may do, where they are signed in.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';

  import { keys } from '../../api/queries';
  import { door } from '../../shell/door.svelte';
  import { session } from '../../shell/session.svelte';
  import { age, fullDay } from '../../units/format';
  import { words } from '../../words';
  import HousePage from './HousePage.svelte';
  import NewPerson from './NewPerson.svelte';
  import OwnSecret from './OwnSecret.svelte';
  import PersonRow from './PersonRow.svelte';

  const say = words.house;
  const client = useQueryClient();
  const people = createQuery(() => ({ queryKey: keys.people, queryFn: () => take(api.GET('/api/people')) }));
  const browsers = createQuery(() => ({
    queryKey: keys.signIns,
    queryFn: () => take(api.GET('/api/sign-ins')),
    enabled: door.me !== null,
  }));
  const tablets = createQuery(() => ({
    queryKey: keys.tablets,
    queryFn: () => take(api.GET('/api/tablets')),
  }));
  const here = $derived((people.data ?? []).filter((one) => one.ended_at === null));
  const left = $derived((people.data ?? []).filter((one) => one.ended_at !== null));
  const keeps = $derived(door.keepsHouse);
  let tablet = $state('');

  async function done(call: Promise<{ data?: unknown; error?: unknown; response: Response }>): Promise<void> {
    try {
      await take(call);
      await door.look();
      void client.invalidateQueries();
    } catch (error) {
      session.complain(error);
    }
  }
  const trust = (event: SubmitEvent): void => {
    event.preventDefault();
    void done(api.POST('/api/tablets', { body: { name: tablet, by: session.who } }));
    tablet = '';
  };
</script>

<HousePage here="people" hint={door.locked ? say.peopleHint : say.alone}>
  <ul class="mt-3 max-w-4xl">
    {#each here as one (one.id)}<li><PersonRow person={one} {keeps} {done} /></li>{/each}
  </ul>
  {#if keeps}<NewPerson first={!door.locked} {done} />{/if}
  {#if door.me}
    <div class="mt-8 grid max-w-4xl gap-x-10 gap-y-8 md:grid-cols-2">
      <OwnSecret />
      <section aria-label={say.tablets}>
        <h2 class="font-tag text-xl font-semibold">{say.tablets}</h2>
        <p class="quiet">{say.tabletsHint}</p>
        <ul class="mt-1">
          {#each tablets.data ?? [] as one (one.id)}
            <li class="flex flex-wrap items-center gap-x-3">
              <strong>{one.name}</strong>
              <span class="quiet">{say.trusted(one.by, fullDay(one.made_at))}</span>
              {#if keeps}<button
                  class="min-h-11 underline underline-offset-4"
                  onclick={() =>
                    void done(
                      api.POST('/api/tablets/{tablet_id}/end', {
                        params: { path: { tablet_id: one.id } },
                        body: { by: session.who },
                      }),
                    )}>{say.trustNoMore}</button
                >{/if}
            </li>
          {/each}
        </ul>
        {#if keeps && !door.tablet}
          <form class="mt-2 flex flex-wrap items-end gap-3" onsubmit={trust} aria-label={say.trust}>
            <label class="block"
              ><span class="block text-sm font-semibold">{say.tabletName}</span><input
                class="input min-h-11"
                required
                bind:value={tablet}
              /></label
            >
            <button class="btn min-h-11">{say.trust}</button>
          </form>
        {:else if door.tablet}<p class="mt-1">{say.thisTablet(door.tablet)}</p>{/if}
      </section>
    </div>
    <section class="mt-8 max-w-4xl" aria-label={say.browsers}>
      <h2 class="font-tag text-xl font-semibold">{say.browsers}</h2>
      <ul>
        {#each browsers.data ?? [] as one (one.id)}
          <li class="flex flex-wrap items-center gap-x-3">
            <strong>{one.name}</strong>
            <span class="quiet min-w-0 truncate"
              >{one.calendar ? say.aCalendar : say.browser(one.browser)}{one.tablet
                ? `, ${say.byPinOn(one.tablet)}`
                : ''}, {one.this_one ? say.thisOne : say.seen(age(one.last_at, Date.now()))}</span
            >
            {#if !one.this_one}<button
                class="min-h-11 underline underline-offset-4"
                onclick={() =>
                  void done(
                    api.POST('/api/sign-ins/{sign_in_id}/end', { params: { path: { sign_in_id: one.id } } }),
                  )}>{say.signOutThere}</button
              >{/if}
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  {#if left.length}
    <section class="mt-8 max-w-4xl" aria-label={say.left}>
      <h2 class="font-tag text-xl font-semibold">{say.left}</h2>
      {#each left as one (one.id)}<p>
          <strong>{one.name}</strong>
          <span class="quiet">{say.leftSince(fullDay(one.ended_at ?? ''), one.ended_by ?? '')}</span>
        </p>{/each}
    </section>
  {/if}
</HousePage>
