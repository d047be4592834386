<script lang="ts">
  // The mark of a hurdle. Its shape says how it stands, its colour only repeats it: a round tick passed, a round ! passed
  // with a caution, a dashed ring pending, a diamond not known, a square failed, a pen signed for.
  interface Props {
    state: 'pass' | 'pending' | 'fail' | 'unknown';
    cautious?: boolean;
    signed?: boolean;
    blocks?: boolean;
    known?: string;
  }
  let { state, cautious = false, signed = false, blocks = false, known = '' }: Props = $props();
  const glyphs = {
    pass: '✓',
    caution: '!',
    open: '–',
    pending: '…',
    unknown: '?',
    fail: '✕',
    signed: '✎',
  } as const;
  const passed = $derived(
    blocks ? 'unknown' : known === 'not known' ? 'open' : cautious ? 'caution' : ('pass' as const),
  );
  const kind = $derived(signed ? 'signed' : state === 'pass' ? passed : state);
  const glyph = $derived(glyphs[kind]);
</script>

<span class="mark {kind}" aria-hidden="true"><span>{glyph}</span></span>

<style>
  .mark {
    display: grid;
    place-items: center;
    width: 1.4rem;
    height: 1.4rem;
    flex: none;
    border: 1.5px solid currentColor;
    border-radius: 50%;
    font-weight: 700;
    font-size: 0.85rem;
    line-height: 1;
  }
  .pass,
  .caution {
    color: var(--color-success);
  }
  .caution,
  .unknown {
    color: var(--color-warning);
  }
  .open,
  .pending {
    color: var(--quiet);
  }
  .pending {
    border-style: dashed;
  }
  .signed {
    color: var(--color-info);
  }
  .fail {
    color: var(--color-error);
    border-radius: 2px;
    border-width: 2.5px;
  }
  .unknown {
    border-radius: 2px;
    transform: rotate(45deg) scale(0.86);
  }
  .unknown > span {
    transform: rotate(-45deg);
  }
</style>
