<script lang="ts">
  // The round, in walking order: each line done in place, what may wait and until when, what comes next.
  // Long, since the round and what is done of it; each line is a component of its own.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { undo } from '../../api/undo';

  import { head } from '../../api/entry';
  import { keys, lineQuery, todayQuery } from '../../api/queries';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import Line from '../../shell/Line.svelte';
  import { p } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { longDay } from '../../units/format';
  import { words } from '../../words';
  import { said } from '../../words/said';
  import ChoreLine from './ChoreLine.svelte';

  const say = words.today;
  const client = useQueryClient();
  const line = createQuery(lineQuery);
  const round = createQuery(todayQuery);
  let busy = $state(false);

  type Chore = Schema['ChoreOut'];
  const due = $derived(round.data?.due ?? []);
  const walk = $derived.by(() => {
    const stops: { station: Chore['station']; place: string | null; chores: Chore[] }[] = [];
    for (const chore of due) {
      const last = stops.at(-1);
      if (last?.station === chore.station && last.place === chore.place) last.chores.push(chore);
      else stops.push({ station: chore.station, place: chore.place, chores: [chore] });
    }
    return stops;
  });
  const next = $derived(round.data?.later[0]);

  const when = new Moment();
  /** Note what was done; gives back what came of it. */
  async function note(
    action: Schema['ActionOut'],
    way: string,
    grams: number | null,
  ): Promise<Schema['MadeOut'][]> {
    const common = { ...head(when), note: '' };
    if (action.station === 'warm') {
      const kind = way as Schema['EventIn']['kind'];
      const path = { batch_id: action.batch_id ?? 0 };
      const body = { ...common, kind };
      return (await take(api.POST('/api/warm/{batch_id}/events', { params: { path }, body }))).made;
    }
    if (way === 'swap') {
      const [piece_id, other_id] = action.pieces;
      const params = { path: { piece_id: piece_id ?? 0 } };
      const body = { other_id: other_id ?? 0, ...head(when) };
      return (await take(api.POST('/api/pieces/{piece_id}/swap', { params, body }))).made;
    }
    if (action.station === 'hang') {
      const kind = way as Schema['HangEventIn']['kind'];
      const body = { ...common, pieces: action.pieces, kind };
      return (await take(api.POST('/api/hook-events', { body }))).made;
    }
    const kind = way as Schema['NoteIn']['kind'];
    const value = grams === null ? null : grams / action.pieces.length;
    const body = { ...common, kind, value, pieces: action.pieces, free_salt: false, not_weighed: false };
    return (await take(api.POST('/api/salt/events', { body }))).made;
  }

  async function lookAgain(): Promise<void> {
    for (const key of [keys.salt, keys.warm, ['room']]) void client.invalidateQueries({ queryKey: key });
    await client.invalidateQueries({ queryKey: keys.today });
  }

  async function done(chore: Chore, way: string, grams: number | null): Promise<void> {
    if (!chore.action || busy) return;
    busy = true;
    try {
      const made = await note(chore.action, way, grams);
      session.say(say.noted(said(chore.title)), async () => {
        await undo(made);
        await lookAgain();
      });
      await lookAgain();
    } catch (error) {
      session.complain(error);
    } finally {
      busy = false;
    }
  }
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="today" />{/if}
  <div class="station">
    <main>
      <header class="flex flex-wrap items-baseline gap-x-4">
        <h1 class="font-tag text-3xl font-bold">{round.data ? longDay(round.data.now) : say.title}</h1>
        <p class="quiet">{round.data ? say.count(due.length) : words.loading}</p>
        <a class="ml-auto inline-flex min-h-11 items-center underline underline-offset-4" href={p('/ahead')}
          >{words.plan.ahead}</a
        >
        <a download class="btn min-h-11" href="/api/today.ics" title={say.calendarHint}>{say.calendar}</a>
      </header>
      {#if round.isError}<p class="text-error" role="alert">{round.error.message}</p>{/if}
      {#if round.data && due.length === 0}
        <p class="mt-6 text-lg">{say.nothing}</p>
        {#if next}<p>{say.next(said(next.title), longDay(next.best))}</p>{/if}
      {/if}
      {#if due.some((chore) => chore.action)}<When {when} label={say.doneAt} />{/if}
      {#each walk as stop (stop.chores[0]?.id)}
        <section class="mt-5">
          <h2 class="stop">
            <span class="font-tag text-lg font-semibold">{words.stations[stop.station]}</span>
            {#if stop.place}<span class="quiet">{stop.place}</span>{/if}
          </h2>
          <ul>
            {#each stop.chores as chore (chore.id)}<ChoreLine {chore} {busy} ondone={done} />{/each}
          </ul>
        </section>
      {/each}
      <p class="quiet mt-6 text-sm">{say.caution}</p>
    </main>
    <aside>
      <h2 class="font-tag text-xl font-semibold">{say.later}</h2>
      <ol class="ahead">
        {#each round.data?.later.slice(0, 24) ?? [] as chore, i (chore.id)}
          {@const day = longDay(chore.best)}
          {#if i === 0 || day !== longDay(round.data?.later[i - 1]?.best ?? '')}<li class="day">
              {day}
            </li>{/if}
          <li class="pl-3">
            {#if chore.link}<a class="hover:underline" href={chore.link}>{said(chore.title)}</a>{:else}{said(
                chore.title,
              )}{/if}
          </li>
        {/each}
      </ol>
    </aside>
  </div>
</div>

<style>
  .stop {
    display: flex;
    gap: 0.7rem;
    align-items: baseline;
    border-bottom: 2px solid var(--steel-light);
  }
  .ahead .day {
    margin-top: 0.9rem;
    font-weight: 600;
  }
  .ahead li {
    padding-top: 0.15rem;
  }
</style>
