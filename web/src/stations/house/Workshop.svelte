<script lang="ts">
  // What the workshop is called, where its clock stands, and the address by which tablets and tags reach it.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, ProblemError, type Schema, take } from '../../api/client';
  import { keys, lineQuery } from '../../api/queries';
  import Field from '../../forms/Field.svelte';
  import { door } from '../../shell/door.svelte';
  import { session } from '../../shell/session.svelte';
  import { words } from '../../words';
  import HousePage from './HousePage.svelte';
  import Shown from './Shown.svelte';

  const say = words.house;
  const client = useQueryClient();
  const line = createQuery(lineQuery);
  let name = $state('');
  let zone = $state('');
  let address = $state('');
  let people = $state('');
  let was = $state<Schema['WorkshopOut'] | null>(null);
  let calendar = $state<string | null>(null);
  $effect(() => {
    const shop = line.data?.workshop;
    if (!shop || was) return;
    [name, zone, address] = [shop.name, shop.time_zone, shop.address ?? ''];
    people = shop.people?.toString() ?? '';
    was = shop;
  });

  async function keep(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      const body = {
        name,
        time_zone: zone,
        address: address.trim() || null,
        people: people.trim() ? Number(people) : null,
        by: session.who,
        was,
      };
      was = await take(api.PUT('/api/workshop', { body }));
      session.say(say.kept);
      void client.invalidateQueries();
    } catch (error) {
      session.complain(error);
      if (error instanceof ProblemError && error.code === 'changed_meanwhile') {
        // what is there now is read anew; what was typed is told in the notice beside it
        await client.invalidateQueries({ queryKey: keys.line });
        was = null;
      }
    }
  }
  async function follow(): Promise<void> {
    try {
      calendar = (await take(api.POST('/api/me/calendar'))).address;
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<HousePage here="workshop" hint={say.workshopHint}>
  <form class="facts mt-4 grid max-w-2xl gap-4" onsubmit={keep} aria-label={say.rooms.workshop}>
    <Field label={words.start.workshop} bind:value={name} required />
    <div class="grid grid-cols-2 gap-4 max-md:grid-cols-1">
      <Field label={words.start.zone} bind:value={zone} required />
      <Field label={say.peopleMany} hint={say.peopleManyHint} bind:value={people} numeric />
    </div>
    <div>
      <Field label={say.address} hint="http://192.168.1.20:8420" bind:value={address} />
      <p class="quiet mt-1 text-sm">{address.trim() ? say.addressHint : say.noAddress}</p>
    </div>
    <div>
      <button class="btn btn-primary min-h-11" disabled={!door.keepsHouse}>{say.keep}</button>
    </div>
  </form>
  <section class="mt-8 max-w-2xl" aria-label={say.calendar}>
    <h2 class="font-tag text-xl font-semibold">{say.calendar}</h2>
    <p class="quiet">{door.locked ? say.calendarOwn : say.calendarHint}</p>
    {#if calendar}
      <p class="mt-2 break-all" role="status"><code>{calendar}</code></p>
    {:else}
      <button class="btn mt-2 min-h-11" onclick={() => void follow()}>{say.calendarShow}</button>
    {/if}
  </section>
  <Shown workshop={line.data?.workshop ?? null} />
</HousePage>
