<script lang="ts">
  // A bag on the shelf: what is inside shows through, as big as it is beside the others.
  import type { Schema } from '../../api/client';
  import CrossSection from '../../goods/CrossSection.svelte';
  import PaperTag from '../../goods/PaperTag.svelte';
  import StateMark from '../../goods/StateMark.svelte';
  import { spoken, tagText } from './said';

  interface Props {
    card: Schema['RestCard'];
    /** Millimetres of the thickest piece on any shelf. */
    widest: number;
    now: number;
    chosen: boolean;
    onpick: (id: number) => void;
  }
  let { card, widest, now, chosen, onpick }: Props = $props();
  const marks = { even: 'felt', likely: 'feel', soft: 'hold', leaks: 'drying', evening: 'drying' } as const;
  const size = $derived(56 + 64 * (card.across_mm / widest));
  const slab = $derived(card.shape === 'slab');
</script>

<button class="spot" onclick={() => onpick(card.id)} aria-label={spoken(card, now)} data-rests={card.id}>
  <span class="bag {card.bag}" style:width="{size + 26}px" style:height="{(slab ? 0.62 : 1) * size + 30}px">
    <CrossSection inside={card.inside} {slab} {size} />
  </span>
  <PaperTag top={card.tag} main={tagText(card, now)} {chosen} loud={card.state !== 'evening'}>
    {#snippet mark()}<StateMark
        state={marks[card.state]}
        wants={card.state === 'leaks' ? ['doubtful'] : []}
      />{/snippet}
  </PaperTag>
</button>

<style>
  .spot {
    display: flex;
    flex-direction: column;
    align-items: center;
    justify-content: flex-end;
    gap: 0.9rem;
    cursor: pointer;
  }
  .bag {
    display: flex;
    align-items: flex-end;
    justify-content: center;
    padding-bottom: 8px;
    border: 1.5px solid var(--steel-light);
    border-radius: 6px 6px 16px 16px / 4px 4px 10px 10px;
    background: color-mix(in oklab, var(--paper), transparent 35%);
  }
  /* a seal across the top of a bag without air; paper is folded, and none is none */
  .vacuum {
    box-shadow: inset 0 11px 0 -9.5px var(--steel);
  }
  .paper {
    background: color-mix(in oklab, var(--paper-edge), transparent 55%);
  }
  .none {
    border-color: transparent;
    background: none;
  }
  .unknown {
    border-style: dashed;
  }
</style>
