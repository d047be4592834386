<script lang="ts">
  // Everything in salt, batch by batch: when it comes out, what is due, and one piece looked at closely.
  // Long, since the shelf, its cares and what opens beside it share what is picked.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import type { Schema } from '../../api/client';
  import { undo } from '../../api/undo';
  import { keys, lineQuery, saltQuery } from '../../api/queries';
  import type { When } from '../../forms/when.svelte';
  import Line from '../../shell/Line.svelte';
  import { navigate, p, route } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime } from '../../units/format';
  import { tidyNumber } from '../../units/number';
  import { words } from '../../words';
  import Cares from './Cares.svelte';
  import IntoSalt from './IntoSalt.svelte';
  import { type Card, SaltDesk } from './saltdesk.svelte';
  import SaltPanel from './SaltPanel.svelte';
  import SaltRow from './SaltRow.svelte';

  const say = words.salt;
  const client = useQueryClient();
  const line = createQuery(lineQuery);
  const salt = createQuery(saltQuery);
  const picked = $derived(Number((route.params as { id?: string }).id) || null);
  const now = $derived(line.data ? new Date(line.data.now).getTime() : Date.now());
  let putting = $state(false);

  function took(answer: Schema['SaltOut']): void {
    client.setQueryData(keys.salt, answer);
    for (const key of [['salt'], keys.today, ['bench'], ['ledger']])
      void client.invalidateQueries({ queryKey: key, exact: false });
  }
  const desk = new SaltDesk(took, () => void client.invalidateQueries({ queryKey: keys.salt }));

  interface Group {
    batch: number;
    first: Card;
    cards: Card[];
    until: number;
  }
  const groups = $derived.by(() => {
    const found: Group[] = [];
    for (const card of salt.data?.pieces ?? []) {
      const group = found.find((g) => g.batch === card.batch_id);
      if (group) group.cards.push(card);
      else found.push({ batch: card.batch_id, first: card, cards: [card], until: 0 });
    }
    for (const group of found) {
      const from = Math.min(...group.cards.map((c) => new Date(c.in_at).getTime()));
      const last = Math.max(
        now,
        ...group.cards.map((c) => new Date(c.latest ?? c.best ?? c.in_at).getTime()),
      );
      group.until = last + 0.12 * (last - from);
    }
    return found;
  });
  const widest = $derived(Math.max(1, ...(salt.data?.pieces ?? []).map((c) => c.across_mm)));
  const nextOut = $derived(
    [...(salt.data?.pieces ?? [])]
      .sort((a, b) => ((a.out_at ?? a.best ?? '9') < (b.out_at ?? b.best ?? '9') ? -1 : 1))
      .slice(0, 12),
  );
  const placeNames = $derived(
    [...new Set((salt.data?.pieces ?? []).map((c) => c.place).filter((name) => name !== null))].join(', '),
  );
  function pick(id: number): void {
    putting = false;
    void navigate('/salt/:id', { params: { id: String(id) } });
  }
  function escape(event: KeyboardEvent): void {
    if (event.key !== 'Escape') return;
    if (putting) putting = false;
    else if (picked) void navigate('/salt');
  }
  async function care(
    kind: Schema['CareOut']['kind'],
    cards: Card[],
    liquid: number | null,
    when: When,
  ): Promise<void> {
    const answer = await desk.note(
      kind,
      cards.map((c) => c.id),
      { value: liquid },
      when,
    );
    if (!answer) return;
    when.clear();
    session.say(say.allDone(say.care[kind], cards.map((c) => c.tag).join(', ')), async () => {
      await undo(answer.made);
      void client.invalidateQueries();
    });
  }
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>
<svelte:window onkeydown={escape} />

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="salt" />{/if}
  <div class="station">
    <main>
      <header class="mb-2 flex flex-wrap items-baseline gap-x-4">
        <h1 class="font-tag text-3xl font-bold">{say.title}</h1>
        {#if salt.data}<p class="quiet">{say.count(salt.data.pieces.length, placeNames)}</p>{/if}
        <button class="btn btn-primary ml-auto min-h-11" onclick={() => (putting = true)}>{say.putIn}</button>
      </header>
      {#if salt.isError}<p class="text-error" role="alert">{salt.error.message}</p>{/if}
      {#if salt.data && groups.length === 0}
        <p class="mt-6 text-lg">{say.none}</p>
        <p class="quiet">{say.noneHint}</p>
      {/if}
      {#each groups as group (group.batch)}
        <section class="mt-4" aria-label={say.rows(group.first.batch)}>
          <div class="head">
            <h2 class="font-tag text-lg font-semibold">
              <a href={p('/bench/batch/:id', { params: { id: String(group.batch) } })}>{group.first.batch}</a>
              <span class="font-sans text-base font-normal">{group.first.product}</span>
            </h2>
            <p class="quiet text-sm">
              {say.dose(group.first.way_name, tidyNumber(group.first.percent, 2), group.first.open_salt)} · {group
                .first.waits_says}
            </p>
          </div>
          <Cares cards={group.cards} {now} busy={desk.busy} ondone={care} />
          {#each group.cards as card (card.id)}
            <SaltRow {card} {now} until={group.until} {widest} chosen={card.id === picked} onpick={pick} />
          {/each}
        </section>
      {/each}
      <p class="quiet mt-6 text-sm">{say.estimate} {say.caution}</p>
    </main>
    <aside class:open={picked !== null || putting}>
      {#if putting && salt.data && line.data}
        <IntoSalt
          salt={salt.data}
          places={line.data.places}
          onput={(answer, tags) => {
            took(answer);
            putting = false;
            session.say(say.put.done(tags.join(', ')));
          }}
          onclose={() => (putting = false)}
        />
      {:else if picked}
        {#key picked}
          <SaltPanel id={picked} {desk} {now} places={line.data?.places ?? []} ways={salt.data?.ways ?? []} />
        {/key}
      {:else}
        {#if nextOut.length}
          <h2 class="font-tag text-xl font-semibold">{say.nextOut}</h2>
          <ul class="mt-1">
            {#each nextOut as card (card.id)}
              <li>
                <button class="next" onclick={() => pick(card.id)}>
                  <span class="font-tag w-20 font-semibold">{card.tag}</span>
                  <span class="quiet flex-1 truncate">{card.product}</span>
                  <span class="whitespace-nowrap" class:font-semibold={card.state !== 'early'}
                    >{card.state === 'out' ? say.states.out : card.best ? dayAndTime(card.best) : ''}</span
                  >
                </button>
              </li>
            {/each}
          </ul>
        {/if}
        <p class="quiet mt-4">{say.picked}</p>
      {/if}
    </aside>
  </div>
</div>

<style>
  .head {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0 1rem;
    border-top: 1px solid var(--steel-light);
    padding-top: 0.4rem;
  }
  .next {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    width: 100%;
    min-height: 44px;
    text-align: left;
    cursor: pointer;
  }
  aside {
    width: 27rem;
  }
  @media (max-width: 1000px) {
    aside {
      width: auto;
    }
    aside.open {
      order: -1;
    }
  }
</style>
