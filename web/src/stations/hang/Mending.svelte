<script lang="ts">
  // What goes wrong with a piece, on what evidence, and what each way of mending it would do to date and ring.
  import { createQuery } from '@tanstack/svelte-query';

  import { keys } from '../../api/queries';
  import { api, type Schema, take } from '../../api/client';
  import { longDay } from '../../units/format';
  import { numberText } from '../../units/number';
  import { weightText } from '../../units/quantity';
  import { words } from '../../words';
  import { said } from '../../words/said';

  interface Props {
    piece: Schema['PieceOut'];
    now: number;
    onhook: (hook: Schema['HookRef']) => void;
  }
  let { piece, now, onhook }: Props = $props();
  const say = words.mend;
  const found = createQuery(() => ({
    queryKey: [...keys.mendings, piece.card.id, piece.card.loss_percent, piece.card.rod, piece.card.hook],
    queryFn: () =>
      take(api.GET('/api/pieces/{piece_id}/mending', { params: { path: { piece_id: piece.card.id } } })),
  }));
  const trouble = $derived(found.data?.mending ?? null);
  const ring = (value: number): string => numberText(value, 2);

  function what(mend: Schema['MendOut'], fast: boolean): string {
    if (mend.way === 'hook' && mend.hook) return say.ways.hook(mend.hook.rod, mend.hook.hook);
    if (mend.way === 'humidity') return say.ways.humidity(numberText(mend.rh_percent ?? 0, 0));
    if (mend.way === 'air') return fast ? say.ways.airLess : say.ways.airMore;
    if (mend.way === 'rest') return say.ways.rest(numberText(mend.weeks ?? 0, 0));
    return mend.way === 'wrap' ? say.ways.wrap : say.ways.take_down;
  }
</script>

{#if trouble}
  {@const grave = trouble.trouble === 'too_fast' || trouble.trouble === 'stuck'}
  <section
    class="mt-3 border-l-4 py-1 pl-3"
    class:border-error={grave}
    class:border-warning={!grave}
    aria-label={say.title[trouble.trouble]}
  >
    <p class="font-semibold" class:text-error={grave}>{say.title[trouble.trouble]}</p>
    {#each trouble.evidence as evidence (evidence.code)}<p class="text-sm first-letter:uppercase">
        {said(evidence)}
      </p>{/each}
    {#if trouble.trouble === 'overshooting' && trouble.over_at}<p>
        {new Date(trouble.over_at).getTime() > now
          ? say.over(longDay(trouble.over_at))
          : say.overSince(longDay(trouble.over_at))}
        {say.costs(
          weightText(trouble.loss_g_per_day),
          trouble.loss_money_per_day === null ? null : numberText(trouble.loss_money_per_day, 2),
        )}
      </p>{/if}
    {#if trouble.trouble !== 'overshooting'}
      <table class="mt-1">
        <thead>
          <tr
            ><td></td><th scope="col">{say.date}</th><th scope="col">{say.ring(ring(trouble.ring_index))}</th
            ></tr
          >
        </thead>
        <tbody>
          {#each trouble.mends as mend (mend.way)}
            {@const hook = mend.hook}
            <tr>
              <th scope="row">
                {what(mend, trouble.trouble === 'too_fast')}
                {#if hook}<button class="move" onclick={() => onhook(hook)}>{say.move}</button>{/if}
              </th>
              <td
                >{mend.days_later === null
                  ? mend.ready
                    ? longDay(mend.ready)
                    : ''
                  : say.later(mend.days_later)}</td
              >
              <td>{mend.ring_index === null ? '' : ring(mend.ring_index)}</td>
            </tr>
          {/each}
        </tbody>
      </table>
      <p class="quiet text-sm">{say.ringHelp}</p>
    {/if}
  </section>
{/if}

<style>
  table {
    width: 100%;
  }
  th,
  td {
    padding: 0.2rem 0 0.2rem 0.75rem;
    text-align: right;
    font-weight: 600;
    white-space: nowrap;
    vertical-align: top;
  }
  thead th {
    font-size: 0.85rem;
    font-weight: 400;
    color: var(--quiet);
  }
  tbody th {
    padding-left: 0;
    text-align: left;
    font-weight: 400;
    white-space: normal;
  }
  .move {
    min-height: 44px;
    margin-left: 0.4rem;
    font-weight: 600;
    text-decoration: underline;
    text-underline-offset: 4px;
    cursor: pointer;
  }
</style>
