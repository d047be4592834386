<script lang="ts">
  // The answer: by when it must be begun, how sure that is, each step on its day, what goes in.
  import { longDay, dayRange, shortDay } from '../../units/format';
  import { farLengthText, muchWeight, weightText } from '../../units/quantity';
  import { words } from '../../words';
  import { said, whole } from '../../words/said';
  import Chances from './Chances.svelte';
  import type { Hand, Planned } from './hand.svelte';
  import { tenths } from './weeks';

  let { hand, plan }: { hand: Hand; plan: Planned } = $props();
  const say = words.plan;

  const start = $derived(hand.wish?.start ?? plan.start);
  const chance = $derived(hand.chance ?? plan.chance);
  const late = $derived(
    hand.looked !== null && hand.looked.latest_start === null && plan.state === 'planned',
  );
  function beside(days: number): number | null {
    const index = hand.days.findIndex((day) => new Date(day.start) >= new Date(start));
    return hand.days[index + days]?.chance ?? null;
  }
  const later = $derived(beside(7));
  const earlier = $derived(beside(-7));
  /** A step whose day is chosen stands on its day, with the days around it; the others are where they fall. */
  const chosen = (step: Planned['steps'][number]): boolean =>
    plan.state === 'planned' && ['order', 'thaw', 'start'].includes(step.kind);
  const when = (window: Planned['done']): string => {
    if (!window.p50) return say.never;
    if (!window.p10 || !window.p90 || shortDay(window.p10) === shortDay(window.p90))
      return shortDay(window.p50);
    return dayRange(window.p10, window.p90);
  };
</script>

<div class="answer" aria-live="polite">
  <p class="lead">
    <strong>{plan.product}</strong>:
    {#if plan.state === 'planned'}
      {say.begin[plan.minced ? 'minced' : 'whole']} <strong class="font-tag">{longDay(start)}</strong>,
    {:else}<strong class="font-tag">{say.states[plan.state]}</strong>,{/if}
    <strong>{say.inTime(tenths(chance))}</strong>{#if later !== null}<span class="quiet"
        >, {say.weekLater(tenths(later))}</span
      >{/if}{#if earlier !== null}<span class="quiet">, {say.weekEarlier(tenths(earlier))}</span>{/if}
  </p>
  {#if late && hand.looked}
    <p class="text-warning font-semibold">
      ▲ {hand.looked.in_time_by
        ? say.tooLate(tenths(plan.chance), longDay(hand.looked.in_time_by))
        : say.never}
    </p>
  {/if}
  {#if hand.days.length > 1 && plan.state === 'planned'}<Chances {hand} {start} />{/if}
  <ol class="stages">
    {#each plan.steps as step (step.kind)}
      <li>
        <strong>{chosen(step) ? shortDay(step.when.p50 ?? start) : when(step.when)}</strong>
        <span>{said(step.title)}</span>
        <span class="quiet" title={chosen(step) ? say.windowHint : undefined}
          >{chosen(step) ? `${when(step.when)}, ` : ''}{say.elasticity[step.elasticity]}</span
        >
      </li>
    {/each}
  </ol>
  <p class="quiet text-sm">
    {say.meat(muchWeight(plan.meat_g))}, {say.each(
      weightText(plan.piece_g),
      plan.minced ? null : weightText(plan.hung_g),
    )}{#if plan.casing_mm}, {say.casing(farLengthText(plan.casing_mm))}{/if}, {plan.place}
    {#if plan.assumed.length}<details class="inline-block">
        <summary class="cursor-pointer underline underline-offset-4">{say.assumed}</summary>
        {plan.assumed.map((one) => whole(said(one))).join(' ')}
      </details>{/if}
  </p>
</div>

<style>
  .lead {
    font-size: 1.08rem;
  }
  .lead .font-tag {
    font-size: 1.2rem;
  }
  .stages {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem 0;
    margin: 0.15rem 0;
  }
  .stages li {
    display: flex;
    flex-direction: column;
    padding: 0 1.1rem 0 0.7rem;
    border-left: 2px solid var(--string);
    font-size: 0.95rem;
    line-height: 1.25;
    max-width: 13rem;
  }
  .stages li .quiet {
    font-size: 0.86rem;
  }
  @media (max-width: 700px) {
    .stages {
      display: grid;
      gap: 0.4rem;
    }
    .stages li {
      display: grid;
      grid-template-columns: 7.4rem 1fr;
      max-width: none;
      column-gap: 0.6rem;
    }
    .stages li .quiet {
      grid-column: 2;
    }
  }
</style>
