<script lang="ts">
  // The room as a plain list, for many pieces and small screens; sorts by any column.
  import type { Schema } from '../../api/client';
  import StateMark from '../../goods/StateMark.svelte';
  import { dayRange, percent, shortDay } from '../../units/format';
  import { weightText } from '../../units/quantity';
  import { words } from '../../words';
  import { tagText } from './label';

  interface Props {
    pieces: Schema['PieceCard'][];
    chosen: number | null;
    now: number;
    onpick: (id: number) => void;
  }
  let { pieces, chosen, now, onpick }: Props = $props();

  const columns = {
    where: (c: Schema['PieceCard']) => c.rod * 100 + c.hook,
    tag: (c: Schema['PieceCard']) => c.tag,
    progress: (c: Schema['PieceCard']) => c.loss_percent / c.aim_percent,
    ready: (c: Schema['PieceCard']) => c.ready.p50 ?? c.feel_from ?? '9999',
    weighed: (c: Schema['PieceCard']) => c.last_weighed_at ?? '',
  } as const;
  let by = $state<keyof typeof columns>('ready');
  let down = $state(false);
  /** What is shown: everything, a batch, or what is in a state or wants a hand. */
  let only = $state('');
  const say = words.hang;
  const batches = $derived([...new Set(pieces.map((c) => c.batch))].sort());
  const states = ['hold', 'ready', 'likely', 'feel', 'felt', 'soon', 'over', 'stalled'] as const;
  const wants = ['too_fast', 'doubtful', 'weigh'] as const;
  const shown = $derived(
    pieces.filter(
      (c) =>
        only === '' ||
        only === `batch ${c.batch}` ||
        only === c.state ||
        (c.wants as string[]).includes(only),
    ),
  );
  const sorted = $derived(
    [...shown].sort((a, b) => {
      const [x, y] = [columns[by](a), columns[by](b)];
      return (x < y ? -1 : x > y ? 1 : 0) * (down ? -1 : 1);
    }),
  );
  function sortBy(key: keyof typeof columns): void {
    down = by === key && !down;
    by = key;
  }
  const heads: [keyof typeof columns, string][] = [
    ['tag', words.form.tag],
    ['where', words.form.hook],
    ['progress', words.hang.layers.progress],
    ['ready', words.hang.states.ready],
    ['weighed', words.hang.layers.weighed],
  ];
</script>

<label class="mt-1 flex items-center gap-2">
  <span class="quiet">{say.only}</span>
  <select class="select min-h-11 w-auto" bind:value={only}>
    <option value="">{say.all(pieces.length)}</option>
    {#each states as state (state)}<option value={state}>{say.states[state]}</option>{/each}
    {#each wants as want (want)}<option value={want}>{say.wants[want]}</option>{/each}
    {#each batches as batch (batch)}<option value={`batch ${batch}`}>{say.ofBatch(batch)}</option>{/each}
  </select>
  {#if only}<span class="quiet">{say.pieces(shown.length)}</span>{/if}
</label>
<table class="w-full">
  <thead>
    <tr class="border-base-content border-b">
      {#each heads as [key, title] (key)}
        <th
          class="py-1 pr-3 text-left"
          class:max-sm:hidden={key === 'where' || key === 'weighed'}
          aria-sort={by !== key ? 'none' : down ? 'descending' : 'ascending'}
        >
          <button
            class="min-h-11 font-semibold first-letter:uppercase"
            class:underline={by === key}
            onclick={() => sortBy(key)}
            >{title}{#if by === key}<span aria-hidden="true">&nbsp;{down ? '↑' : '↓'}</span>{/if}</button
          >
        </th>
      {/each}
    </tr>
  </thead>
  <tbody>
    {#each sorted as piece (piece.id)}
      <tr class="border-base-300 border-b" class:bg-base-300={piece.id === chosen}>
        <td class="pr-3">
          <button
            class="flex min-h-11 items-center gap-2 text-left"
            data-piece={piece.id}
            onclick={() => onpick(piece.id)}
          >
            <span class="w-5"><StateMark state={piece.state} wants={piece.wants} /></span>
            <span
              ><span class="font-tag font-semibold">{piece.tag}</span><span
                class="quiet block text-sm max-sm:hidden">{piece.product}</span
              ></span
            >
          </button>
        </td>
        <td class="pr-3 max-sm:hidden">{words.hang.where(piece.rod, piece.hook)}</td>
        <td class="pr-3 whitespace-nowrap"
          >{piece.scale ? '' : '~'}{percent(piece.loss_percent)}
          {#if piece.target_loss_percent !== null}{words.piece.of}
            {percent(piece.target_loss_percent, 0)}{/if}<span class="quiet block text-sm"
            >{#if piece.weight_now_g === null}{words.done.notWeighed}{:else}{piece.scale
                ? ''
                : '~'}{weightText(piece.weight_now_g)}{piece.scale?.doubt ? ' ?' : ''}{/if}</span
          ></td
        >
        <td class="pr-3 whitespace-nowrap">
          <span class="font-semibold">{tagText(piece, 'days', now)}</span>
          <span class="quiet block text-sm"
            >{piece.ready.p10 && piece.ready.p90 && piece.days_left
              ? dayRange(piece.ready.p10, piece.ready.p90)
              : piece.feel_from && piece.feel_to && piece.days_left
                ? dayRange(piece.feel_from, piece.feel_to)
                : ''}</span
          >
        </td>
        <td class="max-sm:hidden"
          >{piece.last_weighed_at ? shortDay(piece.last_weighed_at) : words.hang.never}</td
        >
      </tr>
    {/each}
  </tbody>
</table>
