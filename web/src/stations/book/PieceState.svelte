<script lang="ts">
  // A piece in a list, in whatever state: its shape, its tag, what it is, and a way to where it is.
  import type { Schema } from '../../api/client';
  import { figureOf, outline as shapeOf } from '../../goods/shapes';
  import { p } from '../../shell/router';
  import { fullDay, percent } from '../../units/format';
  import { weightText } from '../../units/quantity';
  import { words } from '../../words';

  interface Props {
    piece: Schema['PieceOfBatch'];
    kind: Schema['BatchFound']['kind'];
    shape: Schema['BatchFound']['shape'];
  }
  let { piece, kind, shape }: Props = $props();
  const say = words.life;
  const id = $derived(piece.piece_id === null ? null : { params: { id: String(piece.piece_id) } });
  const address = $derived(
    id !== null && piece.life.kind === 'resting'
      ? p('/rest/:id', id)
      : id !== null && piece.life.kind === 'cut'
        ? p('/rest/cut/:id', id)
        : id !== null && piece.life.kind === 'kept'
          ? p('/rest/pack/:id', id)
          : piece.piece_id !== null && piece.place_id !== null
            ? `${p('/hang/:place', { params: { place: String(piece.place_id) } })}?piece=${piece.piece_id}`
            : piece.salt_id !== null
              ? p('/salt/:id', { params: { id: String(piece.salt_id) } })
              : null,
  );
  const told = $derived(
    [
      piece.mix ?? '',
      piece.weight_g === null && piece.start_g === null
        ? words.done.notWeighed
        : weightText(piece.weight_g ?? piece.start_g ?? 0),
      piece.loss_percent === null ? '' : percent(piece.loss_percent),
      piece.weight_g === null && piece.tag_g !== null ? say.scale.tag(weightText(piece.tag_g)) : '',
    ].filter(Boolean),
  );
  /** Raw before the hook, darker on it, dry after it; only an outline where nothing is left. */
  const inks = $derived(
    {
      in_salt: ['var(--meat-raw)', 'var(--meat-line)'],
      out: ['var(--meat-raw)', 'var(--meat-line)'],
      warm: ['var(--meat-raw)', 'var(--meat-line)'],
      waiting: ['var(--meat-raw)', 'var(--meat-line)'],
      hanging: ['var(--meat-fresh)', 'var(--meat-line)'],
      gone: ['none', 'var(--quiet)'],
    }[piece.life.kind as string] ?? ['var(--meat-dry)', 'var(--meat-line)'],
  );
  const figure = $derived(figureOf(kind, shape));
  /** Every piece at the same small size: a sign of what it is, not of how large it is. */
  const box = $derived({ height: 33, width: { belly: 20, breast: 14, links: 4 }[figure as string] ?? 13 });
</script>

{#snippet inner()}
  <svg width="22" height="44" viewBox="0 0 22 44" aria-hidden="true">
    <path d="M11 0v8" stroke="var(--string)" stroke-width="1.4" />
    <path
      transform="translate(11 8)"
      d={shapeOf(figure, box.height, box.width, 1)}
      fill={inks[0]}
      stroke={inks[1]}
      stroke-width="1.4"
      stroke-dasharray={piece.life.kind === 'gone' ? '3 2' : undefined}
    />
  </svg>
  <span class="min-w-0">
    <span class="font-tag font-semibold">{piece.tag}</span>
    <span class="quiet text-sm">{told.join(' · ')}</span>
    <span class="block text-sm"
      >{piece.life.how ? say.ways[piece.life.how] : say.kinds[piece.life.kind]}
      <span class="quiet">{fullDay(piece.life.since)}{piece.life.place ? `, ${piece.life.place}` : ''}</span
      ></span
    >
  </span>
{/snippet}

{#if address}<a class="piece" href={address}>{@render inner()}</a>
{:else}<span class="piece">{@render inner()}</span>{/if}

<style>
  .piece {
    display: flex;
    gap: 0.6rem;
    align-items: center;
    width: 17.5rem;
    max-width: 100%;
    min-height: 44px;
  }
  a.piece:hover {
    background: color-mix(in oklab, var(--paper), transparent 40%);
  }
</style>
