<script lang="ts">
  // What stands against it? Every hurdle of a batch with its evidence on the line, and the entry that settles it.
  // Long, since the rows of what stands against a batch with the entry that settles each.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import type { Schema } from '../../api/client';
  import { keys, ledgerQuery, lineQuery } from '../../api/queries';
  import Line from '../../shell/Line.svelte';
  import { p, route } from '../../shell/router';
  import { words } from '../../words';
  import { said, whole } from '../../words/said';
  import EntryForm from './EntryForm.svelte';
  import CourseLine from './CourseLine.svelte';
  import HurdleRow from './HurdleRow.svelte';
  import KeepingTable from './KeepingTable.svelte';
  import LimitsOf from './LimitsOf.svelte';
  import People from './People.svelte';
  import Records from './Records.svelte';
  import { type Entry, Settling } from './settling.svelte';

  const say = words.ledger;
  const ON_THE_LINE = 'line'; // what is entered of the course itself, for whichever hurdle
  const client = useQueryClient();
  const id = $derived(Number((route.params as { id?: string }).id));
  const line = createQuery(lineQuery);
  const ledger = createQuery(() => ledgerQuery(id));
  const data = $derived(ledger.data);
  let picked = $state<string | null>(null);
  const shown = $derived(
    data?.hurdles.find((h) => h.name === picked) ??
      data?.hurdles.find((h) => h.blocks && h.evidence.length) ??
      data?.hurdles.find((h) => h.evidence.length) ??
      null,
  );
  const tags = $derived([...new Set((data?.hurdles ?? []).flatMap((h) => h.pieces ?? []))].sort());
  const blocking = $derived((data?.hurdles ?? []).filter((h) => h.blocks));
  // an open hold and the bin stand against it whatever the hurdles say
  const holds = $derived((data?.why ?? []).filter((w) => w.hurdle === 'held' || w.hurdle === 'discarded'));
  const rest = $derived((data?.hurdles ?? []).filter((h) => !blocking.includes(h)));
  const verdict = $derived(data?.verdict ?? null);
  const places = $derived(line.data?.places ?? []);
  const links = $derived.by((): Partial<Record<Entry, string>> => {
    const batch = p('/bench/batch/:id', { params: { id: String(id) } });
    const last = data?.stages.at(-1);
    const place = places.find((one) => one.name === last?.place) ?? places[0];
    return {
      warm: p('/warm'),
      salt: p('/salt'),
      weigh: batch,
      feel: batch,
      ...(place ? { readings: p('/hang/:place/climate', { params: { place: String(place.id) } }) } : {}),
    };
  });

  const took = (answer: Schema['LedgerOut']): void => {
    client.setQueryData(['ledger', id], answer);
    void client.invalidateQueries({ queryKey: keys.batch(id) });
  };
  const settling = new Settling(() => id, took);
</script>

<svelte:head><title>{data ? say.of(data.code) : say.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="bench" />{/if}
  <div class="station">
    {#if data && verdict}
      <main>
        <p>
          <a
            class="quiet inline-flex min-h-11 items-center underline underline-offset-4"
            href={p('/bench/batch/:id', { params: { id: String(id) } })}
            >{words.bench.batch.title(data.code)}</a
          >
        </p>
        <h1 class="font-tag text-3xl font-bold">{say.of(data.code)}</h1>
        <p class="verdict {verdict}" role="status">
          <strong>{say.verdicts[verdict]}</strong>
          <span
            >{verdict === 'held'
              ? say.held(blocking.length + holds.length)
              : verdict === 'under_way'
                ? say.goesOn(blocking.length)
                : verdict === 'cautions'
                  ? say.cautions
                  : say.nothing}</span
          >
        </p>
        <p class="text-sm">{whole(said(data.check))} {say.law}</p>
        {#if data.use === 'cooked'}<p class="text-warning font-semibold">{say.cooked}</p>{/if}
        {#if !data.made_here}<p class="quiet">{say.asItCame}</p>{/if}
        {#each holds as why, i (i)}
          <p class="text-error font-semibold">{whole(said(why.says))}</p>
        {/each}
        <CourseLine stages={data.stages} ends={data.ends} hurdle={shown} />
        {#if settling.hurdle === ON_THE_LINE}
          <EntryForm {settling} {tags} />
        {:else}
          <button
            class="quiet min-h-11 text-sm underline underline-offset-4"
            onclick={() => {
              settling.open(ON_THE_LINE, 'meat', data);
            }}>{say.entries.meat}</button
          >
        {/if}
        <ul class="mt-3">
          {#each [...blocking, ...rest] as hurdle (hurdle.name)}
            <HurdleRow
              {hurdle}
              ledger={data}
              {tags}
              {settling}
              {links}
              shown={shown?.name === hurdle.name}
              onshow={() => (picked = hurdle.name)}
            />
          {/each}
        </ul>
      </main>
      <aside>
        <h2 class="font-tag text-xl font-semibold first-letter:uppercase">{say.uses[data.use]}</h2>
        <p class="quiet first-letter:uppercase">{say.doneBys[data.done_by]}</p>
        {#if settling.hurdle === ''}
          <EntryForm {settling} {tags} />
        {:else}
          <button
            class="min-h-11 underline underline-offset-4"
            onclick={() => {
              settling.open('', 'choices', data);
            }}>{say.entries.choices}</button
          >
        {/if}
        <LimitsOf batch={id} profile={data.profile} {took} />
        {#if line.data?.workshop}<People workshop={line.data.workshop} batch={id} />{/if}
        <Records ledger={data} {took} />
        {#if data.keeping.length}<KeepingTable keeping={data.keeping} by={data.keeping_by} />{/if}
        <p class="mt-4">
          <a class="btn min-h-11" href={`/api/batches/${data.code}/batch.json`} download={`${data.code}.json`}
            >{say.file}</a
          >
        </p>
      </aside>
    {:else if ledger.isError}
      <p class="text-error" role="alert">{ledger.error.message}</p>
    {/if}
  </div>
</div>

<style>
  .verdict {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0.2rem 0.9rem;
    margin: 0.6rem 0;
    padding: 0.5rem 0.9rem;
    border-left: 6px solid currentColor;
    color: var(--color-success);
    font-size: 1.1rem;
  }
  .verdict > span {
    color: var(--color-base-content);
  }
  .verdict strong {
    font-size: 1.5rem;
  }
  .held {
    border-left-style: double;
    border-left-width: 10px;
    color: var(--color-error);
  }
  .under_way {
    border-left-style: dotted;
    color: var(--quiet);
  }
  .cautions {
    border-left-style: dashed;
    color: var(--color-warning);
  }
</style>
