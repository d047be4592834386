<script lang="ts">
  // Who is told, each one way: by mail, by a call of an address, or this browser by push.
  import { useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../../api/client';

  import { keys } from '../../../api/queries';
  import { head } from '../../../api/entry';
  import Field from '../../../forms/Field.svelte';
  import { door } from '../../../shell/door.svelte';
  import { session } from '../../../shell/session.svelte';
  import { words } from '../../../words';
  import { askToBeTold } from './asking';

  let { all }: { all: Schema['AlarmsOut'] } = $props();
  const say = words.alarms;
  const client = useQueryClient();
  let name = $state('');
  let way = $state<Schema['TellIn']['way']>('call');
  let address = $state('');
  let second = $state(false);
  let woken = $state(true);
  let quietFrom = $state('');
  let quietTo = $state('');
  let secret = $state<string | null>(null);
  const offered = $derived(all.ways);

  const minutes = (text: string): number | null => {
    const [hour, minute] = text.split(':').map(Number);
    return text ? (hour ?? 0) * 60 + (minute ?? 0) : null;
  };
  const clock = (minute: number): string =>
    `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;

  async function attempt(work: () => Promise<void>): Promise<void> {
    try {
      await work();
      void client.invalidateQueries({ queryKey: keys.alarms });
    } catch (error) {
      session.complain(error);
    }
  }
  const add = (event: SubmitEvent): Promise<void> => {
    event.preventDefault();
    return attempt(async () => {
      const to = way === 'push' ? await askToBeTold(all.push_key ?? '') : address;
      if (to === null) return session.say(say.noPush);
      const quiet = { quiet_from: minutes(quietFrom), quiet_to: minutes(quietTo) };
      const body = { name, way, address: to, second, woken, ...quiet, ...head() };
      const made = await take(api.POST('/api/alarms/people', { body }));
      secret = made.secret ? say.secret(made.name, made.secret) : null;
      name = address = '';
    });
  };
  const test = (one: Schema['TellOut']): Promise<void> =>
    attempt(async () => {
      const path = { person_id: one.id };
      const body = { by: session.who };
      const done = await take(api.POST('/api/alarms/people/{person_id}/test', { params: { path }, body }));
      session.say(done.went ? say.tested(one.name) : say.notTested(done.trouble));
    });
  const end = (one: Schema['TellOut']): Promise<void> =>
    attempt(async () => {
      const path = { person_id: one.id };
      await take(
        api.POST('/api/alarms/people/{person_id}/end', { params: { path }, body: { by: session.who } }),
      );
    });
</script>

<section class="mt-8" aria-label={say.people}>
  <h2 class="font-tag text-xl font-semibold">{say.people}</h2>
  {#each all.people as one (one.id)}
    <div class="border-base-300 flex flex-wrap items-baseline gap-x-4 border-b">
      <strong>{one.name}</strong>
      <span class="min-w-0 break-all">{say.ways[one.way]} {one.address}</span>
      <span class="quiet text-sm"
        >{[
          one.second ? say.second : '',
          one.quiet_from !== null && one.quiet_to !== null
            ? say.quiet(clock(one.quiet_from), clock(one.quiet_to), one.woken)
            : '',
        ]
          .filter(Boolean)
          .join(' · ')}</span
      >
      {#if door.keepsHouse}
        <span class="ml-auto flex gap-4">
          <button
            class="min-h-11 underline underline-offset-4"
            aria-label="{say.test}: {one.name}"
            onclick={() => void test(one)}>{say.test}</button
          >
          <button
            class="min-h-11 underline underline-offset-4"
            aria-label="{say.end}: {one.name}"
            onclick={() => void end(one)}>{say.end}</button
          >
        </span>
      {/if}
    </div>
  {:else}<p>{say.nobody}</p>{/each}
  {#if secret}<p class="border-primary mt-2 border-l-4 pl-3 break-all" role="status">{secret}</p>{/if}
  {#if door.keepsHouse}
    <form class="mt-3 max-w-3xl" onsubmit={add} aria-label={say.add}>
      <div class="flex flex-wrap items-end gap-3">
        <div class="w-40"><Field label={say.name} required bind:value={name} /></div>
        <label class="block"
          ><span class="block text-sm font-semibold">{say.way}</span>
          <select class="select min-h-11 w-48" bind:value={way}>
            {#each offered as one (one)}<option value={one}>{say.ways[one]}</option>{/each}
          </select></label
        >
        {#if way !== 'push'}<div class="w-72 max-w-full">
            <Field
              label={say.address}
              type={way === 'mail' ? 'email' : 'url'}
              required
              bind:value={address}
            />
          </div>{/if}
      </div>
      {#if way === 'call'}<p class="quiet text-sm">{say.callHint}</p>{/if}
      <div class="mt-2 flex flex-wrap items-end gap-x-5 gap-y-2">
        <div class="w-32"><Field label={say.quietFrom} type="time" bind:value={quietFrom} /></div>
        <div class="w-32"><Field label={say.quietTo} type="time" bind:value={quietTo} /></div>
        <label class="flex min-h-11 items-center gap-2"
          ><input type="checkbox" class="checkbox" bind:checked={woken} />{say.woken}</label
        >
        <label class="flex min-h-11 items-center gap-2"
          ><input type="checkbox" class="checkbox" bind:checked={second} />{say.second}</label
        >
      </div>
      <button class="btn btn-primary mt-2 min-h-11">{say.add}</button>
      <p class="quiet mt-2 text-sm">
        {offered.includes('mail') ? '' : say.noMail}
        {offered.includes('push') ? '' : say.noPush}
      </p>
    </form>
  {/if}
</section>
