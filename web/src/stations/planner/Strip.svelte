<script lang="ts">
  // A place over the weeks ahead: its rod, what lies there, what is planned, how full it gets, the water of each week.
  // Long, since one drawing of one batch along the weeks, with its words.
  import type { Schema } from '../../api/client';
  import { shortDay } from '../../units/format';
  import { weightText } from '../../units/quantity';
  import { words } from '../../words';
  import { said, whole } from '../../words/said';
  import Along from './Along.svelte';
  import type { Hand } from './hand.svelte';
  import RoomFor from './RoomFor.svelte';
  import { at, type Weeks, weekStarts } from './weeks';

  interface Props {
    strip: Schema['StripOut'];
    plans: Schema['PlanOut'][];
    weeks: Weeks;
    gutter: number;
    hand: Hand;
    head: boolean;
    ontake: (id: number) => void;
    onchanged: () => void;
  }
  let { strip, plans, weeks, gutter, hand, head, ontake, onchanged }: Props = $props();
  const say = words.plan;
  const ROW = 22;
  const WATER = 34;

  type Row = { key: string; span: Schema['LyingSpan']; goods?: Schema['LyingOut']; plan?: Schema['PlanOut'] };
  const rows = $derived.by(() => {
    const found: Row[] = strip.goods.map((goods) => ({ key: `b${goods.batch_id}`, span: goods.span, goods }));
    for (const plan of plans) {
      if (plan.state === 'hanging' || plan.state === 'done') continue; // it lies there as what hangs
      const spans = [...plan.before, plan.hanging].filter((span) => span.place_id === strip.place_id);
      for (const span of spans) found.push({ key: `p${plan.id}${span.start}`, span, plan });
    }
    return found.filter((row) => new Date(row.span.start).getTime() < weeks.to);
  });
  const top = $derived(head ? 24 : 6);
  const wet = $derived(strip.weeks.some((week) => week.water_g));
  const height = $derived(top + 14 + Math.max(rows.length, 1) * ROW + (wet ? WATER + 8 : 0) + 16);
  const shown = $derived(strip.weeks.filter((week) => new Date(week.start).getTime() < weeks.to));
  const most = $derived(Math.max(strip.managed_g ?? 0, ...shown.map((week) => week.water_g ?? 0), 1));
  const low = $derived(top + 14 + Math.max(rows.length, 1) * ROW + WATER + 4);
  const water = $derived.by(() => {
    const points = shown.map(
      (week) => `${at(weeks, week.start)},${low - (WATER * (week.water_g ?? 0)) / most}`,
    );
    return `M0,${low} L${points.join(' L')} L${weeks.width},${points.at(-1)?.split(',')[1] ?? low} L${weeks.width},${low} Z`;
  });
  const clashes = $derived(plans.filter((plan) => plan.clash?.place_id === strip.place_id));
</script>

<section class="strip" aria-label={strip.name}>
  <div class="side" style:width={gutter ? `${gutter}px` : 'auto'}>
    <h2 class="font-semibold" style:padding-top={gutter ? `${top - 4}px` : '0'}>{strip.name}</h2>
    <p class="quiet text-sm">
      {#if strip.hooks && strip.room !== null}{say.hooks(strip.room)}, {say.freeNow(
          Math.max(strip.free ?? 0, 0),
        )}{:else}<RoomFor {strip} {onchanged} />{/if}
    </p>
    {#if wet}
      <p class="text-sm">
        <span class="quiet">{say.water}</span><br />{strip.managed_g
          ? say.waterOf(weightText(strip.weeks[0]?.water_g ?? 0), weightText(strip.managed_g))
          : say.waterNow(weightText(strip.weeks[0]?.water_g ?? 0))}
      </p>
    {/if}
  </div>
  <div class="min-w-0">
    <svg width={weeks.width} {height} role="group" aria-label={strip.name}>
      {#each weekStarts(weeks) as begin (begin)}
        <line class="week" x1={at(weeks, begin)} x2={at(weeks, begin)} y1={head ? 16 : 0} y2={height} />
        {#if head && at(weeks, begin) < weeks.width - 34}
          <text class="mark" x={at(weeks, begin) + 3} y="12">{shortDay(begin)}</text>
        {/if}
      {/each}
      <line class="rod" x1="0" x2={weeks.width} y1={top} y2={top} />
      {#each shown as week, i (week.start)}
        {@const x = at(weeks, week.start)}
        {@const over = strip.room !== null && week.likely > strip.room}
        {#if week.likely && i % (weeks.width / shown.length < 46 ? 2 : 1) === 0}
          <text class="count" class:over x={x + 3} y={top + 12}
            >{over ? '▲ ' : ''}{week.likely}{strip.room === null ? '' : `/${strip.room}`}<title
              >{say.inUse(week.likely, week.most, strip.room)}</title
            ></text
          >
        {/if}
      {/each}
      {#each rows as row, i (row.key)}
        <Along
          span={row.span}
          goods={row.goods ?? null}
          plan={row.plan ?? null}
          middle={top + 14 + i * ROW + ROW / 2}
          {weeks}
          {hand}
          {ontake}
        />
      {/each}
      {#if wet}
        <path class="water" d={water} />
        {#if strip.managed_g}
          {@const y = low - (WATER * strip.managed_g) / most}
          <line class="managed" x1="0" x2={weeks.width} y1={y} y2={y} />
        {/if}
      {/if}
      <line class="now" x1="0.5" x2="0.5" y1={head ? 16 : 0} y2={height} />
    </svg>
    {#each clashes as plan (plan.id)}
      <p class="clash">▲ {plan.product}: {whole(said(plan.clash!.says))}</p>
    {/each}
  </div>
</section>

<style>
  .strip {
    display: flex;
    padding: 0.2rem 0 0.4rem;
  }
  .side {
    flex: none;
    padding-right: 0.8rem;
  }
  @media (max-width: 900px) {
    .strip {
      display: block;
    }
  }
  .week {
    stroke: var(--color-base-300);
    stroke-width: 1;
  }
  .mark,
  .count {
    font-size: 12.5px;
    fill: var(--quiet);
  }
  .over {
    fill: var(--color-warning);
    font-weight: 700;
  }
  .rod {
    stroke: var(--steel);
    stroke-width: 4;
  }
  .now {
    stroke: var(--color-base-content);
    stroke-dasharray: 2 3;
  }
  .water {
    fill: var(--band);
  }
  .managed {
    stroke: var(--color-warning);
    stroke-dasharray: 5 4;
  }
  .clash {
    color: var(--color-warning);
    font-weight: 600;
  }
</style>
