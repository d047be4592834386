<script lang="ts">
  // Every day on which it could be begun, as high as its chance to be in time; the one that is held stands out.
  import { longDay, percent } from '../../units/format';
  import { DAY_MS, nearest } from '../../units/days';
  import { words } from '../../words';
  import type { Hand } from './hand.svelte';

  let { hand, start }: { hand: Hand; start: string } = $props();
  const say = words.plan;
  const HIGH = 34;
  const MOST = 120; // days beside the chosen one that are shown
  let width = $state(0);

  const chosen = $derived(nearest(hand.days, start));
  const first = $derived(Math.max(0, Math.min(chosen - MOST / 2, hand.days.length - MOST)));
  const shown = $derived(hand.days.slice(first, first + MOST));
  const step = $derived(width / Math.max(shown.length, 1));
  const now = $derived(hand.days[chosen]);

  function pick(index: number): void {
    const day = hand.days[Math.min(Math.max(index, 0), hand.days.length - 1)];
    if (day) hand.move(Math.round((Date.parse(day.start) - Date.parse(start)) / DAY_MS));
  }
  function point(event: PointerEvent & { currentTarget: SVGSVGElement }): void {
    if (event.type === 'pointermove' && !event.buttons) return;
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
    const index = first + Math.min(Math.max(Math.floor(x / step), 0), shown.length - 1);
    if (index !== chosen) pick(index);
  }
  function key(event: KeyboardEvent): void {
    const days = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1, PageUp: -7, PageDown: 7 }[
      event.key
    ];
    if (!days) return;
    event.preventDefault();
    pick(chosen + days);
  }
</script>

<div class="chances" bind:clientWidth={width}>
  {#if width}
    <svg
      {width}
      height={HIGH + 2}
      role="slider"
      tabindex="0"
      aria-label={say.chooseDay}
      aria-valuemin={0}
      aria-valuemax={hand.days.length - 1}
      aria-valuenow={chosen}
      aria-valuetext={now ? say.dayAndChance(longDay(now.start), percent(100 * now.chance, 0)) : ''}
      onpointerdown={point}
      onpointermove={point}
      onkeydown={key}
    >
      {#each shown as day, i (day.start)}
        <rect
          class:chosen={first + i === chosen}
          class:enough={hand.wish !== null && day.chance >= hand.wish.chance!}
          x={i * step}
          y={HIGH - HIGH * day.chance}
          width={Math.max(step - 1, 1)}
          height={HIGH * day.chance + 1}
        />
      {/each}
      <text x={width} y={HIGH - 8} text-anchor="end">{say.chancesHint}</text>
      {#if hand.wish}
        <line x1="0" x2={width} y1={HIGH * (1 - hand.wish.chance!)} y2={HIGH * (1 - hand.wish.chance!)} />
      {/if}
    </svg>
  {/if}
</div>

<style>
  .chances {
    max-width: 60rem;
  }
  svg {
    cursor: pointer;
    touch-action: pan-y;
    display: block;
    min-height: 44px;
  }
  rect {
    fill: color-mix(in oklab, var(--band), var(--paper) 35%);
  }
  .enough {
    fill: var(--band);
  }
  .chosen {
    fill: var(--color-primary);
  }
  text {
    font-size: 12.5px;
    fill: var(--quiet);
  }
  line {
    stroke: var(--quiet);
    stroke-dasharray: 2 3;
  }
</style>
