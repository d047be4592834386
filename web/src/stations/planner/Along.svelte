<script lang="ts">
  // A batch along time: thick and pale while fresh, thin and dark when dry, its window a fading tail. What is planned is
  // an outline that can be dragged, or moved by the arrow keys.
  // Long, since one drawing over the weeks and its keys; strips are components of their own.
  import type { Schema } from '../../api/client';
  import { navigate } from '../../shell/router';
  import { percent, shortDay } from '../../units/format';
  import { words } from '../../words';
  import type { Hand } from './hand.svelte';
  import { at, daysOf, outline, type Weeks } from './weeks';

  interface Props {
    span: Schema['LyingSpan'];
    goods: Schema['LyingOut'] | null;
    plan: Schema['PlanOut'] | null;
    middle: number;
    weeks: Weeks;
    hand: Hand;
    ontake: (id: number) => void;
  }
  let { span, goods, plan, middle, weeks, hand, ontake }: Props = $props();
  const say = words.plan;
  const id = $props.id();
  const NARROW = 600;

  const held = $derived(plan !== null && hand.wish !== null && plan.id === (hand.kept?.id ?? null));
  let dragged = $state(0); // pixels
  let here = $state<SVGGElement>();
  $effect(() => {
    // what is taken in hand is seen above the bar, once the bar has its place
    if (held && plan?.hanging.start === span.start && weeks.width > NARROW)
      setTimeout(() => here?.scrollIntoView({ block: 'nearest' }), 100);
  });
  let from: number | null = null;
  const shift = $derived(held ? dragged : 0);
  const a = $derived(at(weeks, span.start) + shift);
  const b = $derived((span.until ? at(weeks, span.until) : weeks.width) + shift);
  const c = $derived((span.latest ? at(weeks, span.latest) : weeks.width) + shift);
  const endless = $derived(span.until === null);
  const fresh = $derived(goods ? 16 - 4 * goods.dried : 16);
  const thin = $derived(goods?.state === 'in_salt' ? 14 : 10);
  const label = $derived(
    goods
      ? say.batch(goods.code, goods.pieces)
      : plan
        ? weeks.width > NARROW
          ? say.planned(plan.product, plan.pieces, shortDay(plan.wanted))
          : say.batch(plan.product, plan.pieces)
        : '',
  );
  const roomy = $derived(b - a > label.length * 6.4 + 14);
  const textAt = $derived(
    roomy ? a + 8 : Math.min(Math.max(b, c, a + 10) + 5, weeks.width - label.length * 6.2),
  );

  function open(): void {
    if (goods) void navigate('/book/batch/:id', { params: { id: String(goods.batch_id) } });
    else if (plan?.id && !held) ontake(plan.id);
  }
  function down(event: PointerEvent & { currentTarget: SVGGElement }): void {
    if (!plan || plan.state !== 'planned') return;
    if (!held) {
      open();
      return;
    }
    from = event.clientX;
    event.currentTarget.setPointerCapture(event.pointerId);
  }
  function drag(event: PointerEvent): void {
    if (from === null) return;
    const days = daysOf(weeks, event.clientX - from);
    dragged = (days / daysOf(weeks, weeks.width)) * weeks.width;
  }
  function drop(): void {
    if (from === null) return;
    from = null;
    hand.move(daysOf(weeks, dragged));
    dragged = 0;
  }
  function key(event: KeyboardEvent): void {
    const days = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[event.key];
    if (event.key === 'Enter' || event.key === ' ') open();
    else if (days && held && plan?.state === 'planned') hand.move(days);
    else return;
    event.preventDefault();
  }
</script>

<g
  bind:this={here}
  role="button"
  tabindex="0"
  class:planned={plan !== null}
  class:held
  aria-label={goods
    ? say.lying(goods.code, goods.product, goods.pieces, span.until ? shortDay(span.until) : say.someDay)
    : plan
      ? `${label}; ${say.plannedAria(shortDay(plan.start), percent(100 * plan.chance, 0))}`
      : ''}
  onclick={() => goods && open()}
  onpointerdown={down}
  onpointermove={drag}
  onpointerup={drop}
  onpointercancel={drop}
  onkeydown={key}
>
  <defs>
    <linearGradient id="g{id}" x1="0" x2="1">
      <stop
        offset="0"
        style="stop-color: color-mix(in oklab, var(--meat-fresh), var(--meat-dry) {100 *
          (goods?.dried ?? 0)}%)"
      />
      <stop offset="1" style="stop-color: var(--meat-dry)" />
    </linearGradient>
    <linearGradient id="t{id}" x1="0" x2="1">
      <stop offset="0" style="stop-color: var(--tail)" />
      <stop offset="1" style="stop-color: var(--tail); stop-opacity: 0.15" />
    </linearGradient>
  </defs>
  <rect class="reach" x={a} y={middle - 11} width={Math.max(c - a, 44)} height="22" />
  {#if c > b}
    <polygon
      points="{b},{middle - thin / 2} {c},{middle - 1.5} {c},{middle + 1.5} {b},{middle + thin / 2}"
      fill="url(#t{id})"
    />
  {/if}
  <path
    class="body"
    class:endless
    d={outline(a, b, fresh, thin, middle)}
    fill={goods ? `url(#g${id})` : undefined}
  />
  <text class="name" class:outside={!roomy} x={textAt} y={middle + 4}>{label}</text>
</g>

<style>
  g {
    cursor: pointer;
    --tail: color-mix(in oklab, var(--meat-fresh), var(--band) 70%);
  }
  .planned {
    touch-action: pan-y;
  }
  .held {
    cursor: ew-resize;
    touch-action: none;
  }
  .reach {
    fill: transparent;
  }
  .body {
    stroke: var(--meat-line);
    stroke-width: 1;
  }
  .planned .body {
    fill: var(--paper);
    stroke-dasharray: 5 3;
    stroke-width: 1.3;
  }
  .held .body {
    stroke-width: 2.4;
  }
  .endless {
    stroke-dasharray: 2 4;
  }
  .name {
    font-size: 13px;
    fill: #fff8f2;
    pointer-events: none;
  }
  .planned .name,
  .outside {
    fill: var(--color-base-content);
  }
  g:focus-visible {
    outline: none;
  }
  g:focus-visible .body {
    stroke: var(--color-primary);
    stroke-width: 3;
  }
</style>
