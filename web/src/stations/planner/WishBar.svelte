<script lang="ts">
  // The plan in hand: what is wished on one line, the answer beneath it, and what can be done with it.
  import { createQuery } from '@tanstack/svelte-query';

  import { referenceQuery } from '../../api/queries';
  import { words } from '../../words';
  import { usualSheet } from '../bench/desk.svelte';
  import Answer from './Answer.svelte';
  import Doings from './Doings.svelte';
  import { type Hand, someDay, wishFor } from './hand.svelte';
  import Trouble from './Trouble.svelte';
  import WishFields from './WishFields.svelte';

  interface Props {
    hand: Hand;
    open: boolean;
    empty: boolean;
    now: string;
    onchanged: () => Promise<void>;
  }
  let { hand, open = $bindable(), empty, now, onchanged }: Props = $props();
  const say = words.plan;
  const NARROW = 700;
  const reference = createQuery(referenceQuery);

  function begin(): void {
    const family = reference.data?.families[0];
    if (!family || !reference.data) return;
    hand.begin(wishFor(family.name, usualSheet(family, reference.data.curing_salts), someDay(now)));
    open = true;
  }
  let bar = $state<HTMLElement>();
  $effect(() => {
    // on a phone the answer lies beneath the drawing, and is gone to once it is there
    if (hand.plan && innerWidth < NARROW) setTimeout(() => bar?.scrollIntoView({ block: 'start' }), 50);
  });
  function close(): void {
    hand.clear();
    open = false;
  }
</script>

<aside bind:this={bar} class="bar" aria-label={say.wish}>
  {#if !open || !hand.wish}
    <div class="flex flex-wrap items-center gap-4">
      {#if empty}<p class="flex-1">{say.nothing}</p>{/if}
      <button class="btn btn-primary ml-auto min-h-11" disabled={!reference.data} onclick={begin}
        >{say.wish}</button
      >
    </div>
  {:else}
    <div class="held">
      <WishFields {hand} reference={reference.data ?? null} />
      {#if hand.problem}<p class="text-error" role="alert">{hand.problem}</p>{/if}
      <div class="told">
        {#if hand.plan && !hand.problem}
          <div class="min-w-0 flex-1">
            <Answer {hand} plan={hand.plan} />
            <Trouble {hand} plan={hand.plan} />
          </div>
        {:else if !hand.problem}<p class="quiet flex-1">{words.loading}</p>{/if}
        <Doings {hand} onclose={close} {onchanged} />
      </div>
    </div>
  {/if}
</aside>

<style>
  .bar {
    background: var(--paper);
    border-top: 2px solid var(--color-base-300);
    padding: 0.6rem 1.25rem 0.7rem;
    max-height: 58vh;
    overflow-y: auto;
  }
  .held {
    display: flex;
    flex-direction: column;
    gap: 0.35rem;
  }
  .told {
    display: flex;
    gap: 1.5rem;
    align-items: flex-start;
  }
  @media (max-width: 700px) {
    .bar {
      padding-inline: 0.75rem;
      max-height: none;
      overflow: visible;
    }
    .told {
      flex-direction: column;
      align-items: stretch;
    }
  }
</style>
