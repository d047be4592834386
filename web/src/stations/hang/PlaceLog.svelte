<script lang="ts">
  // The log of a place: where its readings came from, one typed by hand, stretches that do not count.
  // Long, since the log, a reading typed into it and a stretch struck from it share one span.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { head } from '../../api/entry';
  import Field from '../../forms/Field.svelte';
  import Reason from '../../forms/Reason.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { session } from '../../shell/session.svelte';
  import { optionalNumber } from '../../forms/typed';
  import { dayAndTime, fullDay, rightNow } from '../../units/format';
  import { typedAs } from '../../units/quantity';
  import { words } from '../../words';

  let { place }: { place: number } = $props();
  const say = words.life.log;
  const client = useQueryClient();
  const key = $derived(['log', place]);
  const params = $derived({ path: { place_id: place } });
  const log = createQuery(() => ({
    queryKey: key,
    queryFn: () => take(api.GET('/api/places/{place_id}/log', { params })),
  }));
  let temperature = $state('');
  let humidity = $state('');
  let why = $state('');
  let fault = $state<string | null>(null);
  let bringing = $state<number | null>(null);
  const at = new Moment();
  const from = new Moment();
  const to = new Moment();

  async function run(
    call: () => Promise<Schema['LogOut']>,
    done: (answer: Schema['LogOut']) => string,
  ): Promise<boolean> {
    fault = null;
    try {
      const answer = await call();
      client.setQueryData(key, answer);
      session.say(done(answer));
      for (const queryKey of [['climate'], ['facts'], ['room'], ['piece'], ['line']])
        void client.invalidateQueries({ queryKey });
      return true;
    } catch (error) {
      fault = error instanceof Error ? error.message : words.errors.unexpected(0);
      return false;
    }
  }
  async function type(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const [temperature_c, rh_percent] = [typedAs('temperature', temperature), optionalNumber(humidity)];
    if (temperature_c === null) {
      fault = words.errors.noNumber;
      return;
    }
    const sent = await run(
      () =>
        take(
          api.POST('/api/places/{place_id}/readings', {
            params,
            body: { temperature_c, rh_percent, ...head(at) },
          }),
        ),
      () => say.noted,
    );
    if (!sent) return;
    temperature = humidity = '';
    at.clear();
  }
  async function strike(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const sent = await run(
      () =>
        take(
          api.POST('/api/places/{place_id}/log/strike', {
            params,
            body: { from_at: from.at ?? rightNow(), to_at: to.at ?? rightNow(), reason: why, ...head() },
          }),
        ),
      (answer) => say.taken(answer.struck[0]?.readings ?? 0),
    );
    if (!sent) return;
    why = '';
    from.clear();
    to.clear();
  }
  async function bringBack(reason: string): Promise<void> {
    const strike_id = bringing ?? 0;
    const body = { reason, by: session.who };
    const path = { strike_id };
    if (
      await run(
        () => take(api.POST('/api/stretches/{strike_id}/restore', { params: { path }, body })),
        () => say.backDone,
      )
    )
      bringing = null;
  }
  const named = (source: Schema['SourceOut']): string =>
    source.name ? `${say.ways[source.way]}: ${source.name}` : say.ways[source.way];
</script>

<section class="mt-6" aria-label={say.title}>
  <h2 class="font-tag text-xl font-semibold">{say.title}</h2>
  {#if fault}<p class="text-error first-letter:uppercase" role="alert">{fault}</p>{/if}
  <div class="mt-1 grid gap-x-10 gap-y-4 lg:grid-cols-3">
    <div>
      <h3 class="font-semibold">{say.sources}</h3>
      <ul class="text-sm">
        {#each log.data?.sources ?? [] as source, i (i)}
          <li class="border-base-300 border-b py-1">
            {named(source)}
            <span class="quiet"
              >{say.readings(source.readings)}, {fullDay(source.from_at)} – {fullDay(source.to_at)}</span
            >
          </li>
        {/each}
      </ul>
      {#if log.data?.struck.length}
        <h3 class="mt-3 font-semibold">{say.struck}</h3>
        <ul class="text-sm">
          {#each log.data.struck as stretch (stretch.id)}
            <li class="border-base-300 border-b py-1">
              {dayAndTime(stretch.from_at)} – {dayAndTime(stretch.to_at)}, {say.readings(stretch.readings)}: {stretch.reason}
              <span class="quiet">({stretch.by})</span>
              {#if stretch.brought_back}<span class="quiet">{say.wasBack(stretch.brought_back)}</span>
              {:else}<button class="min-h-11 underline" onclick={() => (bringing = stretch.id)}
                  >{say.back}</button
                >{/if}
            </li>
          {/each}
        </ul>
        {#if bringing !== null}<Reason
            label={say.backWhy}
            button={say.back}
            onanswer={(r) => void bringBack(r)}
          />{/if}
      {/if}
    </div>
    <form onsubmit={type} aria-label={say.type}>
      <h3 class="font-semibold">{say.type}</h3>
      <div class="flex flex-wrap items-end gap-3">
        <div class="w-32"><Field label={say.temperature} numeric bind:value={temperature} /></div>
        <div class="w-32"><Field label={say.humidity} numeric bind:value={humidity} /></div>
        <button class="btn min-h-11">{words.hook.note}</button>
      </div>
      <When when={at} />
    </form>
    <form onsubmit={strike} aria-label={say.strike}>
      <h3 class="font-semibold">{say.strike}</h3>
      <p class="quiet text-sm">{say.strikeHint}</p>
      <When when={from} label={say.from} />
      <When when={to} label={say.to} />
      <div class="flex items-end gap-3">
        <div class="min-w-0 flex-1"><Field label={say.why} required bind:value={why} /></div>
        <button class="btn min-h-11">{say.go}</button>
      </div>
    </form>
  </div>
</section>
