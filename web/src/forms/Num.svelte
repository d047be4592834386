<script lang="ts">
  // A cell for a number: kept as typed while it is being typed, tidy otherwise; a decimal comma is a decimal point.
  import { tidyNumber, typedNumber } from '../units/number';
  import { digitsOf, inUnits, type Quantity, typedAs } from '../units/quantity';
  import { words } from '../words';
  import { unreadCells } from './unread.svelte';

  interface Props {
    label: string;
    value: number | null;
    digits?: number;
    unit?: string;
    /** What is measured: kept in grams, degrees Celsius or millimetres, shown and typed in the units of the reader. */
    quantity?: Quantity;
    optional?: boolean;
    fault?: string | undefined;
    wide?: boolean;
    onset: (value: number | null) => void;
  }
  let {
    label,
    value,
    digits = 2,
    unit = '',
    quantity,
    optional = false,
    fault,
    wide = false,
    onset,
  }: Props = $props();

  let typed = $state<string | null>(null);
  let unread = $state(false);
  const shown = $derived(
    typed ??
      (value === null
        ? ''
        : tidyNumber(
            quantity ? inUnits(quantity, value) : value,
            quantity ? digitsOf(quantity, digits) : digits,
          )),
  );
  const said = $derived(unread ? words.errors.noNumber : fault);

  const me = Symbol('cell');
  $effect(() => {
    if (!unread) return;
    unreadCells.add(me);
    return () => void unreadCells.delete(me);
  });

  function change(event: Event & { currentTarget: HTMLInputElement }): void {
    typed = event.currentTarget.value;
    const number = quantity ? typedAs(quantity, typed) : typedNumber(typed);
    unread = number === null && !(optional && typed.trim() === '');
    if (!unread) onset(number);
  }
  function leave(): void {
    if (!unread) typed = null;
  }
</script>

<span class="cell" class:wide>
  <input
    class="num"
    class:bad={!!said}
    inputmode="decimal"
    autocomplete="off"
    aria-label={label}
    aria-invalid={!!said}
    value={shown}
    oninput={change}
    onblur={leave}
  />{#if unit}<span class="unit" aria-hidden="true">{unit}</span>{/if}
  {#if said}<span class="said" role="alert">{said}</span>{/if}
</span>

<style>
  .cell {
    position: relative;
    display: inline-flex;
    align-items: baseline;
    width: 5.4rem;
  }
  .wide {
    width: 100%;
  }
  .num {
    width: 100%;
    min-width: 0;
    min-height: 36px;
    padding: 0 0.3rem;
    text-align: right;
    font-size: 1.02rem;
    background: transparent;
    border-bottom: 1px solid var(--color-base-300);
  }
  .num:hover {
    border-color: var(--string);
  }
  .num:focus {
    outline: none;
    border-bottom: 2px solid var(--color-primary);
  }
  .bad {
    border-bottom: 2px solid var(--color-error);
  }
  .unit {
    padding-left: 0.15rem;
    color: var(--quiet);
    font-size: 0.9rem;
  }
  .said {
    position: absolute;
    z-index: 5;
    top: 100%;
    left: 0;
    width: max-content;
    max-width: 17rem;
    padding: 0.15rem 0.5rem;
    background: var(--color-error);
    color: var(--color-error-content);
    font-size: 0.86rem;
    border-radius: 3px;
  }
  .said::first-letter {
    text-transform: uppercase;
  }
  @media (max-width: 700px) {
    .cell {
      width: 100%;
    }
  }
  @media (pointer: coarse) {
    .num {
      min-height: 44px;
    }
  }
</style>
