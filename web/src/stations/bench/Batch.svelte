<script lang="ts">
  // A batch as it was made: its holds, what went in, its pieces and their tags.
  // Long, since a page of short sections of one batch, each from a component of its own.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { head } from '../../api/entry';
  import { keys, lineQuery } from '../../api/queries';
  import Line from '../../shell/Line.svelte';
  import { p, route } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { fullDay } from '../../units/format';
  import { tidyNumber } from '../../units/number';
  import { recipeWeight, temperatureText } from '../../units/quantity';
  import { words } from '../../words';
  import { textOf } from '../../words/said';
  import Changes from '../book/Changes.svelte';
  import PieceState from '../book/PieceState.svelte';
  import Holds from './Holds.svelte';
  import LedgerMarks from '../../goods/LedgerMarks.svelte';
  import NewPieces from './NewPieces.svelte';
  import Yield from './Yield.svelte';

  const say = words.bench.batch;
  const client = useQueryClient();
  const id = $derived(Number((route.params as { id?: string }).id));
  const line = createQuery(lineQuery);
  const batch = createQuery(() => ({
    queryKey: keys.batch(id),
    queryFn: () => take(api.GET('/api/batches/{batch_id}', { params: { path: { batch_id: id } } })),
  }));
  const data = $derived(batch.data);
  const waiting = $derived(data?.pieces.filter((one) => one.life.kind === 'waiting') ?? []);
  const chamber = $derived(line.data?.places.find((place) => place.kind === 'chamber'));

  function took(answer: Schema['BatchOut']): void {
    client.setQueryData(['batch', id], answer);
    void client.invalidateQueries({ queryKey: keys.bench });
  }
  async function pinch(placeId: number): Promise<void> {
    try {
      took(
        await take(
          api.PUT('/api/batches/{batch_id}/pinch', {
            params: { path: { batch_id: id } },
            body: { place_id: placeId, ...head() },
          }),
        ),
      );
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<svelte:head><title>{data ? say.title(data.code) : words.bench.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="bench" />{/if}
  <div class="station">
    {#if data}
      <main>
        <p class="quiet">
          {data.product}{data.sheet === null ? '' : ` · ${say.made(fullDay(data.made_at), data.by ?? '')}`}
        </p>
        <h1 class="font-tag text-4xl font-bold">{say.title(data.code)}</h1>
        <p class="mt-1">
          {#if data.fat_percent !== null}{say.fat} <strong>{tidyNumber(data.fat_percent, 1)} %</strong>{/if}
          {#if data.salt_percent !== null}· {say.salt}
            <strong>{tidyNumber(data.salt_percent, 2)} %</strong>{/if}
          {#if data.meat_temperature_c !== null}· {say.mince}
            <strong>{temperatureText(data.meat_temperature_c)}</strong>{/if}
          {#if data.pinch_place}· {say.pinch}: <strong>{data.pinch_place}</strong>{/if}
        </p>
        {#if data.sheet === null}<p class="quiet">{say.asItCame}</p>{/if}
        {#if data.mixes.length}
          <p>
            {say.mixes}: {data.mixes
              .map((one) => say.mix(one.name, one.fat_percent, one.salt_percent))
              .join(' · ')}
          </p>
        {/if}
        <LedgerMarks batch={id} />
        <a
          class="inline-flex min-h-11 items-center underline underline-offset-4"
          href={p('/book/batch/:id', { params: { id: String(id) } })}>{words.book.story.open}</a
        >
        {#if data.asks_pinch && data.pieces.every((one) => one.life.kind === 'waiting')}
          <label class="mt-2 inline-flex items-baseline gap-2">
            <span class="text-warning font-semibold">{words.bench.weigh.pinch}</span>
            <select class="pick" value={0} onchange={(e) => void pinch(Number(e.currentTarget.value))}>
              <option value={0}>{words.bench.weigh.noPinch}</option>
              {#each line.data?.places ?? [] as place (place.id)}<option value={place.id}>{place.name}</option
                >{/each}
            </select>
          </label>
        {/if}
        <Holds holds={data.holds} {took} />
        {#if data.discarded !== null}
          <p class="border-error mt-4 border-l-4 py-1 pl-3" role="status">{say.discarded(data.discarded)}</p>
        {/if}
        {#if data.pieces.length}
          <ul class="pieces">
            {#each data.pieces as piece (piece.tag)}
              <li><PieceState {piece} kind={data.kind} shape={data.shape} /></li>
            {/each}
          </ul>
        {/if}
        {#if data.tagged}
          <div class="mt-3 flex flex-wrap items-center gap-3">
            <span class="font-semibold">{say.tags}</span>
            <a class="btn min-h-11" href={`/api/batches/${id}/tags.pdf?paper=a4`} target="_blank">{say.a4}</a>
            <a class="btn min-h-11" href={`/api/batches/${id}/tags.pdf?paper=roll62`} target="_blank"
              >{say.roll}</a
            >
            {#if chamber && waiting.length}
              <a
                class="btn btn-primary min-h-11"
                href={p('/hang/:place', { params: { place: String(chamber.id) } })}>{say.toHook}</a
              >
            {/if}
          </div>
        {/if}
        {#if data.discarded === null && data.sheet !== null}
          {#if data.sheet.plan.salting !== 'in_the_mince' && data.pieces.length === 0}
            <p class="mt-4"><a class="btn btn-primary min-h-11" href={p('/salt')}>{say.toSalt}</a></p>
          {/if}
          <details
            class="mt-4"
            open={data.pieces.every((one) => one.life.kind === 'waiting') &&
              data.sheet.plan.salting === 'in_the_mince'}
          >
            <summary class="min-h-11 cursor-pointer py-2 font-semibold"
              >{data.sheet.plan.salting === 'in_the_mince' ? say.tagMore : say.saltedElsewhere}</summary
            >
            <NewPieces batch={data} {took} />
          </details>
        {/if}
        {#if data.pieces.some((one) => one.piece_id !== null)}<div class="mt-5">
            <Yield batch={id} />
          </div>{/if}
        <details class="mt-4">
          <summary class="min-h-11 cursor-pointer py-2 font-semibold">{words.life.changes.title}</summary>
          <Changes batch={id} />
        </details>
      </main>
      <aside>
        {#if data.used.length}<h2 class="font-tag text-xl font-semibold">{say.used}</h2>{/if}
        <table class="used">
          <tbody>
            {#each data.used as used, i (i)}
              <tr>
                <th scope="row"
                  >{textOf(used.name)}{#if used.mix}<span class="quiet">{` · ${used.mix}`}</span>{/if}</th
                >
                <td>{recipeWeight(used.grams)}</td>
                <td>
                  {#if used.lot_id !== null}
                    <a
                      class="underline underline-offset-4"
                      href={p('/bench/lot/:id', { params: { id: String(used.lot_id) } })}>{used.lot}</a
                    >
                  {:else}<span class="quiet">{say.lotless}</span>{/if}
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
      </aside>
    {:else}
      <p class="p-6 first-letter:uppercase" class:text-error={batch.isError}>
        {batch.isError ? batch.error.message : words.loading}
      </p>
    {/if}
  </div>
</div>

<style>
  .used th,
  .used td {
    padding: 0.3rem 1rem 0.3rem 0;
    text-align: left;
    font-weight: 400;
    vertical-align: baseline;
  }
  .used td:nth-child(2) {
    text-align: right;
    white-space: nowrap;
  }
  .used tr + tr {
    border-top: 1px solid var(--color-base-300);
  }
  .pieces {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem 1.4rem;
    margin-top: 1rem;
  }
</style>
