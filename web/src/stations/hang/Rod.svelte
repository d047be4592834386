<script lang="ts">
  // One rod with its hooks: pieces hang at true relative size, free hooks can be picked.
  // Long, since a rod with what hangs on it as one drawing, with the words and keys of each hook.
  import type { Schema } from '../../api/client';
  import PaperTag from '../../goods/PaperTag.svelte';
  import Silhouette from '../../goods/Silhouette.svelte';
  import StateMark from '../../goods/StateMark.svelte';
  import { lengthText } from '../../units/quantity';
  import { words } from '../../words';
  import { type Layer, spoken, tagText } from './label';

  interface Props {
    rod: Schema['RodOut'];
    /** Pieces lie on a shelf here instead of hanging from a rod. */
    shelf?: boolean;
    /** First and last hook drawn: a long rod goes over several lines, as it would not fit a screen. */
    from: number;
    to: number;
    columns: number;
    pieces: Schema['PieceCard'][];
    hookAirs: Schema['HookOut'][];
    chosen: number | null;
    moving: boolean;
    layer: Layer;
    now: number;
    pxPerMm: number;
    onpick: (id: number) => void;
    onfree: (rod: Schema['RodOut'], hook: number) => void;
    /** A piece was taken up to be dragged; null when it was let go of. */
    ondrag: (piece: Schema['PieceCard'] | null) => void;
  }
  let {
    rod,
    shelf = false,
    from,
    to,
    columns,
    pieces,
    hookAirs,
    chosen,
    moving,
    layer,
    now,
    pxPerMm,
    onpick,
    onfree,
    ondrag,
  }: Props = $props();

  const title = $derived(
    shelf
      ? words.hang.shelf(rod.number)
      : to - from + 1 < rod.hooks
        ? words.hang.rodPart(rod.number, from, to)
        : words.hang.rod(rod.number),
  );
  const byHook = $derived(new Map(pieces.map((piece) => [piece.hook, piece])));
  const airs = $derived(new Map(hookAirs.map((one) => [one.hook, one])));
  const hooks = $derived(Array.from({ length: to - from + 1 }, (_, i) => from + i));
</script>

<section class="rod" class:shelf aria-label={title}>
  <h2 class="quiet text-sm">
    {title}
    {#if from === 1 && rod.close.length}<span class="text-warning ml-3"
        >{words.rods.close(rod.close.map((two) => words.rods.and(two.one, two.other)).join(', '))}</span
      >{/if}
    {#if from === 1 && rod.short_mm > 0}<span class="text-warning ml-3"
        >{words.rods.short(lengthText(rod.short_mm))}</span
      >{/if}
  </h2>
  <ol class="hooks" style={`grid-template-columns: repeat(${columns}, minmax(0, 1fr))`}>
    {#each hooks as hook (hook)}
      {@const piece = byHook.get(hook)}
      <li>
        <svg class="hook" width="14" height="22" viewBox="0 0 14 22" aria-hidden="true">
          <path
            d="M3.2 6.5a3.8 3.8 0 1 1 7.6 0c0 4.6-7.6 4.4-7.6 9a3.8 3.8 0 0 0 7.6.6"
            fill="none"
            stroke="var(--color-base-content)"
            stroke-width="1.7"
            stroke-linecap="round"
          />
        </svg>
        {#if piece}
          <button
            class="piece"
            data-piece={piece.id}
            aria-pressed={piece.id === chosen}
            aria-label={spoken(piece, now, tagText(piece, layer, now, airs.get(hook)))}
            draggable="true"
            ondragstart={(event) => {
              event.dataTransfer?.setData('text/plain', piece.tag);
              setTimeout(() => ondrag(piece)); // a page that changes at once would end the drag
            }}
            ondragend={(event) => event.dataTransfer?.dropEffect === 'none' && ondrag(null)}
            onclick={() => onpick(piece.id)}
          >
            <Silhouette {piece} {pxPerMm} stringMm={shelf ? 0 : undefined} />
            <span class="-mt-px block">
              <PaperTag
                top={piece.tag}
                main={tagText(piece, layer, now, airs.get(hook))}
                chosen={piece.id === chosen}
                loud={piece.state === 'ready' || piece.state === 'over' || piece.state === 'soon'}
              >
                {#snippet mark()}<StateMark state={piece.state} wants={piece.wants} />{/snippet}
              </PaperTag>
            </span>
          </button>
        {:else}
          <button
            class="free"
            class:moving
            aria-label={words.hang.freeHook(rod.number, hook)}
            title={words.hang.freeHook(rod.number, hook)}
            onclick={() => onfree(rod, hook)}
            ondragover={(event) => event.preventDefault()}
            ondrop={(event) => {
              event.preventDefault();
              if (moving) onfree(rod, hook);
            }}
          >
            {#if layer === 'air' && airs.get(hook)}<span>{words.hang.airTag(airs.get(hook)?.air ?? 1)}</span
              >{:else}<span aria-hidden="true">+</span>{/if}
          </button>
        {/if}
      </li>
    {/each}
  </ol>
</section>

<style>
  .rod {
    /* rods below the fold are laid out when they come into sight */
    content-visibility: auto;
    contain-intrinsic-size: auto 250px;
    padding: 0.2rem 0 0.9rem;
  }
  .hooks {
    position: relative;
    display: grid;
    margin-top: 0.35rem;
  }
  .hooks::before {
    content: '';
    position: absolute;
    top: 0;
    left: 0;
    right: 0;
    height: 4px;
    background: linear-gradient(var(--steel-light) 0 1px, var(--steel) 1px 100%);
  }
  li {
    display: flex;
    flex-direction: column;
    align-items: center;
    min-width: 0;
  }
  .hook {
    margin-top: -4px;
    position: relative;
    z-index: 1;
  }
  .piece {
    display: flex;
    flex-direction: column;
    align-items: center;
    margin-top: -3px;
    padding: 0 1px 4px;
    cursor: pointer;
    min-width: 44px;
  }
  .free {
    width: 44px;
    height: 44px;
    border-radius: 50%;
    color: var(--quiet);
    opacity: 0.4;
    cursor: pointer;
    font-size: 1.2rem;
  }
  .free:hover,
  .free:focus-visible,
  .free.moving {
    opacity: 1;
  }
  .shelf .hooks {
    align-items: end;
    min-height: 80px;
  }
  .shelf .hook,
  .shelf .hooks::before {
    display: none;
  }
  .shelf .hooks::after {
    content: '';
    position: absolute;
    right: 0;
    bottom: 50px; /* under the pieces, over their tags */
    left: 0;
    height: 5px;
    border-radius: 2px;
    background: linear-gradient(var(--steel-light) 0 2px, var(--steel) 2px 100%);
  }
  .free.moving {
    border: 1.5px dashed var(--color-primary);
    color: var(--color-primary);
  }
</style>
