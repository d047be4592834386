<script lang="ts">
  // How good the dates were: told against happened, bad figures too, with the number of pieces they rest on.
  // Long, since a quarter is the style of its scale of days; figures, rows and drawing read one answer.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { p } from '../../shell/router';
  import { fullDay, percent, shortDay } from '../../units/format';
  import { numberText } from '../../units/number';
  import { lengthText } from '../../units/quantity';
  import { words } from '../../words';
  import BookPage from './BookPage.svelte';
  import PlansAgainst from './PlansAgainst.svelte';

  const say = words.book.accuracy;
  const client = useQueryClient();
  const key = ['accuracy'];
  const found = createQuery(() => ({
    queryKey: key,
    queryFn: () => take(api.GET('/api/book/accuracy')),
    staleTime: 60_000,
  }));
  const data = $derived(found.data);
  let working = false;
  // what was never told is worked out a while at a time, as long as the page is looked at
  $effect(() => {
    if (!data?.waiting || working) return;
    working = true;
    take(api.POST('/api/book/accuracy/afterwards'))
      .then((answer) => {
        working = false;
        client.setQueryData(key, answer);
      })
      .catch(() => (working = false));
  });
  const sides = $derived(
    data
      ? (
          [
            ['live', data.live],
            ['afterwards', data.afterwards],
          ] as const
        ).flatMap(([name, side]) => (side ? [{ name, side }] : []))
      : [],
  );
  const days = (value: number): string => `${numberText(Math.abs(value), 1)} ${words.dayUnit}`;
  const leaning = (figures: Schema['FiguresOut']): string =>
    Math.abs(figures.bias_days) < 0.25
      ? say.straight
      : figures.bias_days > 0
        ? say.later(days(figures.bias_days))
        : say.earlier(days(figures.bias_days));
  const rows = (side: Schema['SideOut']) => [
    ...side.along.map((one) => ({
      group: say.along,
      name: say.stages[one.stage] ?? one.stage,
      figures: one.figures,
    })),
    ...Object.entries(side.groups).flatMap(([group, some]) =>
      some.map((one) => ({
        group: say.by[group] ?? group,
        name: (words.kinds as Record<string, string>)[one.name] ?? one.name,
        figures: one.figures,
      })),
    ),
  ];
  const agreeing = $derived(data?.rings.filter((one) => one.agrees).length ?? 0);
</script>

<BookPage title={say.title} hint={say.hint}>
  {#if found.isError}<p class="text-error" role="alert">{found.error.message}</p>{/if}
  {#if data}
    {#if data.waiting}<p class="mt-2" role="status">{say.waiting(data.waiting)}</p>{/if}
    {#if !sides.length && !data.waiting}<p class="mt-4 text-lg">{say.none}</p>{/if}
    {#each sides as { name, side } (name)}
      <section class="mt-4" aria-label={say[name]}>
        <h2>
          {say[name]}
          {#if name === 'afterwards'}<span class="quiet text-base font-normal">· {say.afterwardsHint}</span
            >{/if}
        </h2>
        <p class="big">
          <strong>{percent(100 * side.overall.inside, 0)}</strong>
          {say.inside} <span class="quiet">({say.wanted})</span> ·
          <strong>{days(side.overall.error_days)}</strong>
          {say.error} · <strong>{leaning(side.overall)}</strong>
          <span class="quiet">· {say.pieces(side.overall.pieces)}, {say.told(side.overall.told)}</span>
        </p>
        <p>{say.lessons[side.lesson]} <span class="quiet">{say.learned}</span></p>
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <div class="overflow-x-auto" tabindex="0" role="group" aria-label={say.title}>
          <table>
            <thead
              ><tr><td></td><th>{say.inside}</th><td></td><th>{say.error}</th><th>{say.bias}</th><td></td></tr
              ></thead
            >
            <tbody>
              {#each rows(side) as row, i (i)}
                {#if i === 0 || rows(side)[i - 1]?.group !== row.group}<tr
                    ><th colspan="6" class="group">{row.group}</th></tr
                  >{/if}
                <tr>
                  <th>{row.name}</th>
                  <td class="bar"
                    ><span style:width="{100 * row.figures.inside}%" class:few={row.figures.few}></span><i
                      style:left="80%"
                    ></i></td
                  >
                  <td>{percent(100 * row.figures.inside, 0)}</td>
                  <td>{days(row.figures.error_days)}</td>
                  <td>{leaning(row.figures)}</td>
                  <td class="quiet"
                    >{say.pieces(row.figures.pieces)}{#if row.figures.few}, <abbr title={say.fewHint}
                        >{say.few}</abbr
                      >{/if}</td
                  >
                </tr>
              {/each}
            </tbody>
          </table>
        </div>
      </section>
    {/each}
    {#if data.left_out}<p class="quiet mt-2">{say.left(data.left_out)}</p>{/if}
    <div class="two">
      <section aria-label={say.ph}>
        <h2>{say.ph}</h2>
        <p class="quiet">{say.phHint}</p>
        {#each data.ph as one, i (i)}
          <p>
            <a
              class="font-tag underline underline-offset-4"
              href={p('/book/batch/:id', { params: { id: String(one.batch_id) } })}>{one.batch}</a
            >
            {say.hoursOff(numberText(one.told_hour, 1))} → {say.hoursOff(numberText(one.crossed_hour, 1))}
            <span class="quiet">({one.inside ? '✓' : '✕'} {say.inside})</span>
          </p>
        {/each}
      </section>
      <section aria-label={say.rings}>
        <h2>{say.rings}</h2>
        <p class="quiet">{say.ringsHint}</p>
        {#if data.rings.length}<p>{say.agree(agreeing, data.rings.length)}</p>{/if}
        {#each data.rings as one, i (i)}
          <p>
            <a
              class="font-tag underline underline-offset-4"
              href={p('/rest/cut/:id', { params: { id: String(one.piece_id) } })}>{one.tag}</a
            >
            {say.ringSeen} <strong>{say.ringWords[one.seen]}</strong>, {say.ringPredicted}
            <strong>{say.ringWords[one.predicted]}</strong>
            <span class="quiet">({lengthText(one.predicted_mm)}) {one.agrees ? '✓' : '✕'}</span>
          </p>
        {/each}
      </section>
    </div>
    {#if data.each.length}
      <section class="mt-4" aria-label={say.each}>
        <h2>{say.each}</h2>
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <div class="overflow-x-auto" tabindex="0" role="group" aria-label={say.title}>
          <table>
            <tbody>
              {#each data.each as one (one.piece_id)}
                <tr>
                  <th
                    ><a
                      class="font-tag underline underline-offset-4"
                      href={p('/book/batch/:id', { params: { id: String(one.batch_id) } })}>{one.tag}</a
                    ></th
                  >
                  <td>{one.product}</td>
                  <td class="quiet">{one.place}, {fullDay(one.hung_at)}</td>
                  <td
                    >{one.told_first ? shortDay(one.told_first) : '–'} →
                    <strong>{shortDay(one.reached_at)}</strong></td
                  >
                  <td
                    >{one.error_days === null
                      ? ''
                      : one.error_days > 0
                        ? say.later(days(one.error_days))
                        : say.earlier(days(one.error_days))}</td
                  >
                  <td class="quiet">{one.told ? `${one.inside}/${one.told} ${say.inside}` : ''}</td>
                </tr>
              {/each}
            </tbody>
          </table>
        </div>
      </section>
    {/if}
  {/if}
  <PlansAgainst />
</BookPage>

<style>
  h2 {
    font-family: 'Zilla Slab', serif;
    font-size: 1.2rem;
    font-weight: 600;
  }
  h2::first-letter {
    text-transform: uppercase;
  }
  .big {
    font-size: 1.15rem;
  }
  .big strong {
    font-family: 'Zilla Slab', serif;
    font-size: 1.5rem;
  }
  th,
  td {
    padding: 0.22rem 1.2rem 0.22rem 0;
    text-align: left;
    border-bottom: 1px solid var(--color-base-300);
    font-weight: 400;
    white-space: nowrap;
  }
  thead th {
    opacity: 0.75;
    font-size: 0.9rem;
  }
  .group {
    padding-top: 0.8rem;
    font-weight: 600;
  }
  .bar {
    position: relative;
    width: 11rem;
    min-width: 8rem;
  }
  .bar span {
    display: block;
    height: 10px;
    background: var(--color-primary);
  }
  .bar span.few {
    background: repeating-linear-gradient(90deg, var(--color-primary) 0 4px, transparent 4px 7px);
  }
  .bar i {
    position: absolute;
    top: 2px;
    bottom: 2px;
    margin-left: -0.6rem;
    border-left: 2px solid var(--meat-line);
  }
  .two {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(20rem, 1fr));
    gap: 1rem 2.5rem;
    margin-top: 1.2rem;
  }
</style>
