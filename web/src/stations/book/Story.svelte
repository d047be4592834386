<script lang="ts">
  // The story of a batch on one page: its time line, hurdles, what went in, what was done, what came of it.
  // Long, since a page of many short sections in the order of the batch, each from a component of its own.
  import { createQuery } from '@tanstack/svelte-query';

  import { lineQuery, storyQuery } from '../../api/queries';
  import Beside from '../../charts/Beside.svelte';
  import HurdleMark from '../../goods/HurdleMark.svelte';
  import PaperTag from '../../goods/PaperTag.svelte';
  import Line from '../../shell/Line.svelte';
  import { p, route } from '../../shell/router';
  import { dayAndTime, fullDay, percent, shortDay } from '../../units/format';
  import { priceText, weightAsTyped, weightText } from '../../units/quantity';
  import { words } from '../../words';
  import { said, textOf, whole } from '../../words/said';
  import { figure, standing } from '../ledger/figures';
  import Changes from './Changes.svelte';
  import { fallOf } from './comparing';
  import StoryLine from './StoryLine.svelte';

  const say = words.book.story;
  const id = $derived(Number(route.params.id));
  const line = createQuery(lineQuery);
  const story = createQuery(() => storyQuery(id));
  const data = $derived(story.data);
  const verdict = $derived(data ? words.ledger.verdicts[data.ledger.verdict] : '');
  const photos = $derived(
    data?.pieces.flatMap((one) => one.photos.map((id) => ({ id, tag: one.tag }))) ?? [],
  );
  const fall = $derived(data ? fallOf(data.code, 0, data.ph) : []);
  const at = (batch: number): string => p('/book/batch/:id', { params: { id: String(batch) } });
</script>

<svelte:head><title>{data ? say.title(data.code) : words.life.book.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="book" />{/if}
  <main class="overflow-y-auto px-5 pt-3 pb-16 max-md:px-3">
    {#if story.isError}<p class="text-error" role="alert">{story.error.message}</p>{/if}
    {#if data}
      <header class="flex flex-wrap items-center gap-x-6 gap-y-1">
        <PaperTag top={say.pieces(data.pieces.length)} main={data.code} />
        <div>
          <h1 class="font-tag text-3xl font-bold">{data.product}</h1>
          <p class="quiet">
            {say.made(fullDay(data.made_at))} · {data.people.join(', ')}
            · <strong class="text-base-content">{verdict}</strong>
          </p>
        </div>
        <nav
          class="ml-auto flex flex-wrap items-center gap-x-4 print:hidden"
          aria-label={say.title(data.code)}
        >
          {#if data.before}<a class="step" href={at(data.before)}>{say.before}</a>{/if}
          {#if data.after}<a class="step" href={at(data.after)}>{say.after}</a>{/if}
          <a class="step" href={`${p('/book/compare')}?batches=${id}`}>{say.compare}</a>
          <a download class="btn btn-primary min-h-11" href={`/api/batches/${id}/record.pdf`}>{say.print}</a>
        </nav>
      </header>
      <section class="mt-3" aria-label={say.line}><StoryLine story={data} /></section>
      {#if fall.length}<section class="mt-3" aria-label={say.ph}>
          <Beside curves={fall} unit="" xUnit="h" label={say.ph} height={170} mark={5.3} />
        </section>{/if}

      <section class="mt-4" aria-label={say.hurdles}>
        <h2>{say.hurdles}</h2>
        <ul class="hurdles">
          {#each data.ledger.hurdles as hurdle (hurdle.name)}
            <li>
              <HurdleMark
                state={hurdle.state}
                cautious={hurdle.cautions.length > 0}
                signed={hurdle.signed !== null && !hurdle.blocks}
                blocks={hurdle.blocks}
                known={hurdle.known}
              />
              <span
                ><strong>{words.ledger.names[hurdle.name] ?? hurdle.name}</strong><br /><span class="quiet"
                  >{figure(hurdle.value, hurdle.unit) || standing(hurdle)}</span
                ></span
              >
            </li>
          {/each}
        </ul>
        <p class="text-sm">
          <a
            class="inline-flex min-h-11 items-center underline underline-offset-4"
            href={p('/bench/batch/:id/against', { params: { id: String(id) } })}>{say.against}</a
          >
          <span class="quiet">{words.ledger.law}</span>
        </p>
      </section>

      <div class="columns">
        <section aria-label={say.wentIn}>
          <h2>{say.wentIn}</h2>
          <ul>
            {#each data.went_in as one, i (i)}
              <li class="pair">
                <span>{textOf(one.name)}</span><span class="text-right">{weightText(one.grams)}</span>
                {#if one.lot_id}<a
                    class="underline underline-offset-4"
                    href={p('/bench/lot/:id', { params: { id: String(one.lot_id) } })}>{one.lot}</a
                  >{:else}<span class="quiet">{say.noLot}</span>{/if}
              </li>
            {:else}<li class="quiet">{say.nothingWentIn}</li>{/each}
          </ul>
        </section>
        <section aria-label={say.weights}>
          <h2>{say.weights}</h2>
          <ul>
            {#each data.pieces as piece (piece.tag)}
              <li class="pair">
                <span class="font-tag">{piece.tag}</span>
                <span class="text-right"
                  >{piece.start_g ? weightAsTyped(Math.round(piece.start_g)) : '–'} → {piece.weights.filter(
                    (w) => w.struck_reason === null,
                  ).length
                    ? weightAsTyped(
                        Math.round(
                          piece.weights.filter((w) => w.struck_reason === null).at(-1)?.gross_g ?? 0,
                        ),
                      )
                    : '–'}</span
                >
                <span class="quiet"
                  >{piece.loss_percent === null ? '' : percent(piece.loss_percent)}
                  {piece.reached_at ? `${say.reached} ${shortDay(piece.reached_at)}` : ''}</span
                >
              </li>
            {/each}
          </ul>
        </section>
        <section aria-label={say.cuts}>
          <h2>{say.cuts}</h2>
          {#each data.cuts as one (one.face.id)}
            <p class:line-through={one.face.struck_reason !== null}>
              <a
                class="font-tag underline underline-offset-4"
                href={p('/rest/cut/:id', {
                  params: { id: String(data.pieces.find((x) => x.tag === one.tag)?.piece_id ?? 0) },
                })}>{one.tag}</a
              >
              <span class="quiet">{shortDay(one.face.at)} {one.face.by}</span><br />
              {one.face.signs.length
                ? one.face.signs.map((s) => words.cut.seenSigns[s]).join(', ')
                : words.cut.nothingSeen},
              {words.cut.verdicts[one.face.verdict].toLowerCase()}{one.face.note ? `: ${one.face.note}` : ''}
            </p>
          {:else}<p class="quiet">{say.noCuts}</p>{/each}
        </section>
        <section aria-label={say.cameOfIt}>
          <h2>{say.cameOfIt}</h2>
          <p>
            {data.came_of_it.steps
              .filter((s) => s.grams !== null)
              .map((s) => `${words.stock.yields.steps[s.step]} ${weightText(s.grams ?? 0)}`)
              .join(' → ') || '–'}
          </p>
          {#if data.came_of_it.cost_per_finished_kg !== null}<p>
              <strong>{priceText(data.came_of_it.cost_per_finished_kg)}</strong>
              {words.stock.yields.perFinished}
            </p>{/if}
          {#each data.packs as pack (pack.id)}
            <p>
              <a
                class="font-tag underline underline-offset-4"
                href={p('/rest/stock/:id', { params: { id: String(pack.id) } })}>{pack.tag}</a
              >
              {pack.number} × {weightAsTyped(pack.net_g ?? 0)}, {pack.left}
              <span class="quiet">{words.stock.keepAt[pack.keep_at]}</span>
            </p>
          {/each}
        </section>
      </div>

      <section class="mt-4" aria-label={words.life.book.title}>
        <h2>{say.pieces(data.pieces.length)}</h2>
        <ul class="flex flex-wrap gap-x-6 gap-y-2">
          {#each data.pieces.filter((one) => one.life) as piece (piece.tag)}
            <li class="text-sm">
              <span class="font-tag">{piece.tag}</span>
              <span class="quiet"
                >{piece.life ? words.life.kinds[piece.life.kind] : ''}
                {piece.life ? shortDay(piece.life.since) : ''}</span
              >
            </li>
          {/each}
        </ul>
      </section>

      <section class="mt-4" aria-label={say.doings}>
        <h2>{say.doings}</h2>
        <ul class="doings">
          {#each data.doings as one, i (i)}
            <li class:line-through={one.struck}>
              <span class="quiet">{dayAndTime(one.at)}</span>
              <span>{whole(said(one.says))} {one.note ? `“${one.note}”` : ''}</span>
              <span class="quiet">{one.pieces.join(', ')} {one.by}</span>
            </li>
          {:else}<li class="quiet">{say.noDoings}</li>{/each}
        </ul>
      </section>
      {#if data.ledger.steps.length}
        <section class="mt-4" aria-label={say.steps}>
          <h2>{say.steps}</h2>
          {#each data.ledger.steps as step (step.id)}
            <p class:line-through={step.struck_reason !== null}>
              <span class="quiet">{dayAndTime(step.at)}</span>
              {words.ledger.names[step.hurdle] ?? step.hurdle}: {step.step}
              {step.note}
              <span class="quiet">{step.by}</span>
            </p>
          {/each}
        </section>
      {/if}
      {#if photos.length}
        <section class="mt-4" aria-label={say.photos}>
          <h2>{say.photos}</h2>
          <div class="flex flex-wrap gap-2">
            {#each photos as photo (photo.id)}<img
                class="h-32 rounded-sm"
                src={`/api/photos/${photo.id}`}
                alt={say.photoOf(photo.tag)}
                loading="lazy"
              />{/each}
          </div>
        </section>
      {/if}
      <section class="mt-4 print:hidden" aria-label={say.filesTitle}>
        <h2>{say.filesTitle}</h2>
        <p class="flex flex-wrap gap-x-5">
          <a class="step" href={`/api/batches/${encodeURIComponent(data.code)}/batch.json`} download
            >{say.batchFile}</a
          >
          <a download class="step" href={`/api/batches/${id}/weights.csv`}>{say.weights} ({say.csv})</a>
          {#if data.ph.length}
            <a download class="step" href={`/api/batches/${id}/ph.csv`}>{say.ph} ({say.csv})</a>
            <a class="step" href={`/api/batches/${id}/warm.json`} download>{say.warmFile}</a>
          {/if}
        </p>
      </section>
      <section class="mt-4" aria-label={say.changes}>
        <h2>{say.changes}</h2>
        <Changes batch={id} />
      </section>
    {/if}
  </main>
</div>

<style>
  h2 {
    font-family: 'Zilla Slab', serif;
    font-size: 1.2rem;
    font-weight: 600;
    margin-bottom: 0.2rem;
  }
  .step {
    display: inline-flex;
    min-height: 44px;
    align-items: center;
    text-decoration: underline;
    text-underline-offset: 4px;
  }
  .hurdles {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(10.5rem, 1fr));
    gap: 0.6rem 1rem;
  }
  .hurdles li {
    display: flex;
    gap: 0.5rem;
    line-height: 1.25;
  }
  .columns {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(19rem, 1fr));
    gap: 1.2rem 2.5rem;
    margin-top: 1rem;
  }
  .pair {
    display: grid;
    grid-template-columns: 1fr max-content minmax(6rem, 1fr);
    gap: 0.8rem;
    padding: 0.12rem 0;
  }
  .doings li {
    display: grid;
    grid-template-columns: 9rem minmax(0, 24rem) 1fr;
    gap: 0.8rem;
    padding: 0.12rem 0;
  }
  @media (max-width: 700px) {
    .doings li {
      grid-template-columns: 1fr;
      gap: 0;
      padding: 0.35rem 0;
    }
  }
</style>
