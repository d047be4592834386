<script lang="ts">
  // A pack closely: until when, how it keeps, one touch to take it out, and what became of the others.
  // Long, since a pack from its label to its last slice: short sections that share one answer.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { head } from '../../api/entry';
  import { keys, labelQuery, lotsOfPieceQuery } from '../../api/queries';
  import Field from '../../forms/Field.svelte';
  import Reason from '../../forms/Reason.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { p } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { daysSince, fullDay, shortDay } from '../../units/format';
  import { typedNumber } from '../../units/number';
  import { weightAsTyped, weightText } from '../../units/quantity';
  import { words } from '../../words';
  import { said, textOf, whole } from '../../words/said';
  import Taps from './Taps.svelte';

  let { pack, now, onclose }: { pack: Schema['PackOut']; now: number; onclose: () => void } = $props();
  const say = words.stock;
  const client = useQueryClient();
  const lots = createQuery(() => lotsOfPieceQuery(pack.piece_id));
  const label = createQuery(() => labelQuery(pack.id));
  const moment = new Moment();
  let how = $state<string | null>('eaten');
  let number = $state('1');
  let whom = $state('');
  let problem = $state<string | null>(null);
  let moving = $state(false);
  let keepAt = $state<string | null>(null);
  let striking = $state<{ event: number | null } | null>(null);

  /** Send an entry; what it answers is the stock as it is then. */
  async function send(entry: () => Promise<Schema['StockOut']>, told: string): Promise<void> {
    problem = null;
    try {
      client.setQueryData(keys.stock, await entry());
      for (const queryKey of [keys.today, keys.packing(pack.piece_id)])
        void client.invalidateQueries({ queryKey });
      moment.clear();
      session.say(told);
    } catch (error) {
      problem = error instanceof Error ? error.message : words.errors.unexpected(0);
    }
  }
  async function takeOut(): Promise<void> {
    const many = typedNumber(number);
    if (many === null || how === null) {
      problem = words.errors.noNumber;
      return;
    }
    const went = how as Schema['OutIn']['how'];
    if (pack.id === null) {
      // a whole piece that was never packed goes as a piece
      await send(
        async () => {
          await take(
            api.POST('/api/pieces/{piece_id}/become', {
              params: { path: { piece_id: pack.piece_id } },
              body: { ...head(moment), kind: 'gone', how: went, place_id: null, note: whom },
            }),
          );
          return take(api.GET('/api/stock'));
        },
        say.out(pack.tag, 1, say.went[went] ?? went),
      );
      return;
    }
    const params = { path: { pack_id: pack.id } };
    const body = {
      ...head(moment),
      number: many,
      how: went,
      to_whom: went === 'discarded' ? '' : whom,
      note: went === 'discarded' ? whom : '',
    };
    await send(
      () => take(api.POST('/api/packs/{pack_id}/out', { params, body })),
      say.out(pack.tag, many, say.went[went] ?? went),
    );
  }
  async function open(): Promise<void> {
    if (pack.id === null) return;
    const params = { path: { pack_id: pack.id } };
    const body = { ...head(moment), number: 1 };
    await send(() => take(api.POST('/api/packs/{pack_id}/open', { params, body })), say.openedNow(pack.tag));
  }
  async function move(): Promise<void> {
    const many = typedNumber(number);
    if (pack.id === null || keepAt === null || many === null) return;
    const params = { path: { pack_id: pack.id } };
    const body = { ...head(moment), number: many, keep_at: keepAt as Schema['MoveIn']['keep_at'] };
    await send(() => take(api.POST('/api/packs/{pack_id}/move', { params, body })), say.movedNow(pack.tag));
    moving = false;
  }
  async function strike(reason: string): Promise<void> {
    const wrong = striking;
    striking = null;
    const body = { reason, by: session.who };
    if (wrong === null || pack.id === null) return;
    const [pack_id, event_id] = [pack.id, wrong.event];
    await send(
      () =>
        event_id === null
          ? take(api.POST('/api/packs/{pack_id}/strike', { params: { path: { pack_id } }, body }))
          : take(api.POST('/api/pack-events/{event_id}/strike', { params: { path: { event_id } }, body })),
      words.hook.struck(reason),
    );
  }
</script>

<article aria-label={pack.tag}>
  <div class="flex items-start justify-between gap-2">
    <p class="quiet">
      {pack.product} ·
      <a
        class="underline underline-offset-4"
        href={p('/bench/batch/:id', { params: { id: String(pack.batch_id) } })}>{pack.batch}</a
      >
    </p>
    <button class="-mt-2 -mr-2 min-h-11 min-w-11 text-xl" aria-label={words.close} onclick={onclose}>✕</button
    >
  </div>
  <div class="flex items-baseline justify-between gap-3">
    <h2 class="font-tag text-3xl font-bold">{pack.tag}</h2>
    <p class="text-right">
      {say.left(pack.left, pack.number)} × {pack.net_g === null
        ? words.done.notWeighed
        : weightAsTyped(Math.round(pack.net_g))}
    </p>
  </div>
  <p>
    {say.forms[pack.form]}, {say.wraps[pack.wrap]}, {pack.place ?? say.keepAt[pack.keep_at]} ·
    <span class="quiet"
      >{say.packed(shortDay(pack.packed_at), Math.floor(daysSince(pack.packed_at, now)))}</span
    >
  </p>
  <p class="font-tag mt-2 text-xl font-semibold">
    {whole(pack.best_before ? say.best(fullDay(pack.best_before)) : say.noBest)}
  </p>
  <p class="quiet">
    {pack.period_days ? `${say.byOwn(pack.period_days)} · ` : ''}{pack.keeps
      ? say.keeps[pack.keeps]
      : say.keepsUnknown}
  </p>
  {#each pack.opened as one (one.at)}<p class="text-warning font-semibold">
      {whole(say.opened(one.number, shortDay(one.at), shortDay(one.use_by)))}
    </p>{/each}
  {#each pack.cautions as caution (caution.code)}<p class="border-warning mt-1 border-l-4 pl-3">
      {whole(said(caution))}
    </p>{/each}

  <section class="mt-3" aria-label={say.takeOut}>
    <Taps name={say.rows.how} taps={say.went} bind:value={how} />
    <div class="mt-1 flex flex-wrap items-end gap-2">
      {#if pack.id !== null}<div class="w-24">
          <Field label={say.number} numeric bind:value={number} />
        </div>{/if}
      {#if how !== 'eaten'}<div class="min-w-40 flex-1">
          <Field label={how === 'discarded' ? say.why : say.toWhom} bind:value={whom} />
        </div>{/if}
      <button class="btn btn-primary min-h-12" onclick={() => void takeOut()}>{say.takeOut}</button>
    </div>
    <When when={moment} />
    {#if problem}<p class="text-error first-letter:uppercase" role="alert">{problem}</p>{/if}
  </section>

  <div class="mt-2 flex flex-wrap gap-2">
    {#if pack.id !== null}
      <button class="btn min-h-11" onclick={() => void open()}>{say.open}</button>
      <button class="btn min-h-11" aria-expanded={moving} onclick={() => (moving = !moving)}
        >{say.move}</button
      >
      {#if label.data?.no_label === null}
        <a download class="btn min-h-11" href={`/api/packs/labels.pdf?ids=${pack.id}`}>{say.label}</a>
        <a download class="btn btn-ghost min-h-11" href={`/api/packs/labels.pdf?ids=${pack.id}&paper=roll62`}
          >{say.labelRoll}</a
        >
      {/if}
    {/if}
    <a class="btn min-h-11" href={p('/rest/pack/:id', { params: { id: String(pack.piece_id) } })}
      >{pack.id === null ? say.pack : say.packMore}</a
    >
  </div>
  {#if label.data?.no_label}<p class="quiet mt-1 text-sm">
      {say.noLabel}: {said(label.data.no_label)}
    </p>{/if}
  {#if moving}
    <Taps name={say.rows.keepAt} taps={say.keepAt} bind:value={keepAt} />
    <button class="btn btn-primary mt-1 min-h-11" disabled={keepAt === null} onclick={() => void move()}
      >{say.moveGo}</button
    >
  {/if}

  {#if pack.events.length}
    <h3 class="font-tag mt-4 text-lg font-semibold">{say.history}</h3>
    <ul class="text-sm">
      {#each pack.events as event (event.id)}
        <li class="flex items-baseline gap-2 py-0.5">
          <span class="quiet w-16 flex-none">{shortDay(event.at)}</span>
          <span class="flex-1" class:line-through={event.struck_reason !== null}
            >{event.number}
            {event.kind === 'opened' ? say.didOpen : (say.went[event.how] ?? say.moved)}
            {event.to_whom} <span class="quiet">{event.note} {event.by}</span></span
          >
          {#if event.struck_reason === null}<button
              class="quiet min-h-8 underline"
              onclick={() => (striking = { event: event.id })}>{say.strike}</button
            >{:else}<span class="quiet">{words.hook.struck(event.struck_reason)}</span>{/if}
        </li>
      {/each}
    </ul>
  {:else if pack.id !== null}
    <button class="quiet mt-2 min-h-11 underline" onclick={() => (striking = { event: null })}
      >{say.strikePack}</button
    >
  {/if}
  {#if striking}<Reason label={say.strikeWhy} button={say.strike} onanswer={(why) => void strike(why)} />{/if}

  <h3 class="font-tag mt-4 text-lg font-semibold">{say.lots}</h3>
  <ul>
    {#each lots.data?.lots ?? [] as lot (lot.id)}
      <li>
        <a class="underline underline-offset-4" href={p('/bench/lot/:id', { params: { id: String(lot.id) } })}
          >{lot.code}</a
        >
        <span class="quiet">{textOf(lot.what)}, {weightText(lot.grams)}</span>
      </li>
    {:else}{#if lots.data}<li class="quiet">{say.noLots}</li>{/if}{/each}
  </ul>
  <p class="quiet mt-4 text-sm">{say.caution}</p>
</article>
