<script lang="ts">
  // Up to six batches beside each other: loss, pH and air on one axis; the facts; what differed, in words.
  // Long, since one table with its head that stays and its style.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';
  import { batchesQuery } from '../../api/queries';
  import Beside from '../../charts/Beside.svelte';
  import { inAddress, intoAddress } from '../../shell/address';
  import { p } from '../../shell/router';
  import { inUnits } from '../../units/quantity';
  import { words } from '../../words';
  import { said, whole } from '../../words/said';
  import BookPage from './BookPage.svelte';
  import { chosen, factShown, fallOf } from './comparing';

  const say = words.book.compare;
  let ids = $state(chosen(inAddress('batches')));
  $effect(() => intoAddress({ batches: ids.join(',') || null }, false));
  const all = createQuery(() => batchesQuery('', 'all'));
  const found = createQuery(() => ({
    queryKey: ['compare', ids],
    queryFn: () => take(api.GET('/api/book/compare', { params: { query: { batches: ids } } })),
    enabled: ids.length > 0,
    placeholderData: <T,>(before: T | undefined): T | undefined => before,
  }));
  const data = $derived(ids.length ? found.data : undefined);
  const more = $derived((all.data?.batches ?? []).filter((one) => !ids.includes(one.id)));
  const loss = $derived(
    (data?.batches ?? []).flatMap((one, batch) =>
      one.curves.map((c) => ({ name: one.code, batch, x: c.days, y: c.loss_percent })),
    ),
  );
  const falls = $derived((data?.batches ?? []).flatMap((one, i) => fallOf(one.code, i, one.ph)));
  const airs = [
    { what: 'temperature_c', unit: '°', name: say.temperature },
    { what: 'rh_percent', unit: '%', name: say.humidity },
  ] as const;
  const air = (what: 'temperature_c' | 'rh_percent') =>
    (data?.batches ?? []).flatMap((one, batch) =>
      one.air ? [measured({ name: one.code, batch, x: one.air.days, y: shownAir(what, one.air[what]) })] : [],
    );
  const shownAir = (what: string, values: (number | null)[]): (number | null)[] =>
    what === 'rh_percent' ? values : values.map((c) => (c === null ? null : inUnits('temperature', c)));
  /** What was measured alone: a thermometer tells of no humidity. */
  function measured<T extends { x: number[]; y: (number | null)[] }>(curve: T): T & { y: number[] } {
    const told = (_: unknown, i: number): boolean => curve.y[i] != null;
    return { ...curve, x: curve.x.filter(told), y: curve.y.filter((value) => value !== null) };
  }
</script>

<BookPage title={say.title} hint={say.hint}>
  <div class="mt-2 flex flex-wrap items-center gap-2 print:hidden">
    {#each data?.batches ?? [] as one (one.batch_id)}
      <span class="one"
        ><a
          class="font-tag underline underline-offset-4"
          href={p('/book/batch/:id', { params: { id: String(one.batch_id) } })}>{one.code}</a
        >
        <button
          class="min-h-11 min-w-9"
          aria-label="{one.code}: {say.away}"
          onclick={() => (ids = ids.filter((id) => id !== one.batch_id))}>✕</button
        ></span
      >
    {/each}
    {#if ids.length < 6}
      <select
        class="select min-h-11 w-56"
        aria-label={say.add}
        value=""
        onchange={(event) => {
          const id = Number(event.currentTarget.value);
          if (id) ids = [...ids, id];
          event.currentTarget.value = '';
        }}
      >
        <option value="">{say.add} …</option>
        {#each more as one (one.id)}<option value={String(one.id)}>{one.code} · {one.product}</option>{/each}
      </select>
    {:else}<p class="quiet">{say.many}</p>{/if}
  </div>
  {#if found.isError}<p class="text-error" role="alert">{found.error.message}</p>{/if}
  {#if !ids.length}<p class="mt-4 text-lg">{say.pick}</p>{/if}
  {#if data}
    <section class="mt-4" aria-label={say.differs}>
      <h2>{say.differs}</h2>
      {#if data.batches.length > 1}
        <ul class="max-w-4xl">
          {#each data.differs as one (one.code)}<li>{whole(said(one))}</li>{:else}<li>
              {say.nothing}
            </li>{/each}
        </ul>
      {/if}
    </section>
    {#if loss.length}<section class="mt-4" aria-label={say.loss}>
        <h2>{say.loss}</h2>
        <Beside curves={loss} unit="%" xUnit={words.dayUnit} label={say.loss} down />
      </section>{/if}
    <div class="two">
      {#if falls.length}<section aria-label={say.ph}>
          <h2>{say.ph}</h2>
          <Beside curves={falls} unit="" xUnit="h" label={say.ph} height={170} mark={5.3} />
        </section>{/if}
      {#each airs as { what, unit, name } (what)}
        {@const curves = air(what)}
        {#if curves.length}<section aria-label={name}>
            <h2>{say.air}: {name}</h2>
            <Beside {curves} {unit} xUnit={words.dayUnit} label={name} height={170} />
          </section>{/if}
      {/each}
    </div>
    <section class="mt-4 overflow-x-auto" aria-label={say.facts}>
      <h2>{say.facts}</h2>
      <table>
        <thead
          ><tr
            ><td></td>{#each data.batches as one (one.batch_id)}<th class="font-tag">{one.code}</th
              >{/each}</tr
          ></thead
        >
        <tbody>
          {#each data.facts as fact (fact)}
            <tr
              ><th>{words.book.facts[fact]}</th>{#each data.batches as one (one.batch_id)}<td
                  >{factShown(fact, one.facts[fact])}</td
                >{/each}</tr
            >
          {/each}
          <tr
            ><th>{words.book.story.cuts}</th>{#each data.batches as one (one.batch_id)}<td
                >{one.cuts
                  .map((f) => f.signs.map((s) => words.cut.seenSigns[s]).join(', ') || words.cut.nothingSeen)
                  .join('; ') || say.unknown}</td
              >{/each}</tr
          >
        </tbody>
      </table>
    </section>
  {/if}
</BookPage>

<style>
  h2 {
    font-family: 'Zilla Slab', serif;
    font-size: 1.15rem;
    font-weight: 600;
  }
  .one {
    display: inline-flex;
    align-items: center;
    gap: 0.2rem;
    padding-left: 0.7rem;
    background: var(--color-base-200);
    border-radius: 4px;
  }
  .two {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(22rem, 1fr));
    gap: 1rem 2rem;
    margin-top: 1rem;
  }
  th,
  td {
    padding: 0.25rem 1.2rem 0.25rem 0;
    text-align: left;
    vertical-align: top;
    border-bottom: 1px solid var(--color-base-300);
  }
  tbody th {
    font-weight: 400;
    opacity: 0.8;
  }
  @media (max-width: 700px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
