<script lang="ts">
  // A piece in salt: its cut face, its tag, its window, and whether it stayed cold.
  import WindowBar from '../../charts/WindowBar.svelte';
  import PaperTag from '../../goods/PaperTag.svelte';
  import SaltSection from '../../goods/SaltSection.svelte';
  import { longDay, shortDay, timeOfDay } from '../../units/format';
  import { numberText } from '../../units/number';
  import { lengthText, weightText } from '../../units/quantity';
  import { said } from '../../words/said';
  import { words } from '../../words';
  import type { Card } from './saltdesk.svelte';

  interface Props {
    card: Card;
    now: number;
    until: number;
    widest: number;
    chosen: boolean;
    onpick: (id: number) => void;
  }
  let { card, now, until, widest, chosen, onpick }: Props = $props();
  const say = words.salt;

  const size = $derived(34 + 40 * Math.min(1, card.across_mm / Math.max(widest, 1)));
  const soon = $derived(until - new Date(card.in_at).getTime() < 4 * 86_400_000);
  const day = (at: string): string => (soon ? timeOfDay(at) : longDay(at));
  const short = (at: string): string => (soon ? timeOfDay(at) : shortDay(at));
  const headline = $derived(
    card.out_at
      ? say.outSince(day(card.out_at))
      : card.best
        ? say.takeOut(
            day(card.best),
            card.state === 'early' && card.earliest ? say.earliestFrom(short(card.earliest)) : '',
          )
        : say.never,
  );
</script>

<button
  class="row"
  class:chosen
  aria-pressed={chosen}
  onclick={() => onpick(card.id)}
  data-testid={`salt-${card.tag}`}
>
  <span class="cut">
    <SaltSection
      radius={card.radius}
      profile={card.profile}
      settles={card.settles_percent}
      geometry={card.geometry}
      {size}
    />
  </span>
  <span class="tagged">
    <PaperTag
      top={card.tag}
      main={say.states[card.state]}
      loud={card.state === 'right' || card.state === 'late'}
      {chosen}
    />
  </span>
  <span class="said">
    <span class="block leading-tight font-semibold" class:text-error={card.state === 'late'}>{headline}</span>
    <span class="quiet block text-sm">
      {weightText(card.raw_g)} · {lengthText(card.across_mm)} · {say.mean}
      {card.dose_known
        ? `${numberText(card.mean_percent, 1)} %`
        : say.about(
            numberText(card.mean_percent, 1),
            numberText(card.mean_low_percent, 1),
            numberText(card.mean_high_percent, 1),
          )}, {say.core}
      {numberText(card.core_percent, 1)} %
      {#if card.cold.state === 'fail'}·
        <span class="text-error font-semibold"
          >{say.cold.fail}{card.cold.says ? `: ${said(card.cold.says)}` : ''}</span
        >{:else if card.cold.state === 'unknown'}·
        <span class="text-warning font-semibold">{say.cold.unknown}</span>{/if}
    </span>
  </span>
  <span class="when">
    {#if !card.out_at}
      <WindowBar
        from={card.in_at}
        earliest={card.earliest}
        best={card.best}
        latest={card.latest}
        {now}
        {until}
        label={headline}
      />
    {/if}
  </span>
</button>

<style>
  .row {
    display: grid;
    grid-template-columns: 6.4rem 6rem minmax(0, 1fr) minmax(0, 17rem);
    align-items: center;
    gap: 0 0.8rem;
    width: 100%;
    padding: 0.35rem 0.5rem;
    text-align: left;
    cursor: pointer;
    border-radius: 4px;
  }
  .row:hover {
    background: color-mix(in oklab, var(--paper), transparent 30%);
  }
  .chosen {
    background: var(--paper);
  }
  .cut {
    display: grid;
    place-items: center;
  }
  .tagged {
    padding-top: 0.2rem;
  }
  @media (max-width: 760px) {
    .row {
      grid-template-columns: 5.4rem minmax(0, 1fr);
    }
    .cut {
      grid-row: span 2;
    }
    .tagged {
      grid-column: 2;
    }
    .said,
    .when {
      grid-column: 2;
    }
    .when {
      margin-top: 0.3rem;
    }
  }
</style>
