<script lang="ts">
  // What the inside is predicted to be on any day, how rim and core would feel, and what a vacuum rest would do.
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';

  import type { Schema } from '../../api/client';
  import { insideQuery } from '../../api/queries';
  import CrossSection from '../../goods/CrossSection.svelte';
  import { percent, shortDay } from '../../units/format';
  import { numberText } from '../../units/number';
  import { words } from '../../words';

  let { piece, now }: { piece: Schema['PieceOut']; now: number } = $props();
  const say = words.inside;
  const day = 86_400_000;

  const hung = $derived(new Date(piece.card.hung_at).getTime());
  const down = $derived(piece.hangs ? now : new Date(piece.card.life.since).getTime());
  const today = $derived(Math.max(0, Math.round((down - hung) / day)));
  const last = $derived(
    Math.max(today + 7, Math.ceil((new Date(piece.curve.at.at(-1) ?? now).getTime() - hung) / day)),
  );
  let moved = $state<number | null>(null); // day since hanging that is looked at; null is now
  let asked = $state<string | null>(null);
  const chosen = $derived(piece.card.id);
  $effect(() => {
    void chosen;
    moved = null;
  });
  $effect(() => {
    const at = moved === null ? null : new Date(hung + moved * day).toISOString();
    const timer = setTimeout(() => (asked = at), 80);
    return () => clearTimeout(timer);
  });
  const query = createQuery(() => ({
    ...insideQuery(piece.card.id, asked),
    placeholderData: keepPreviousData,
  }));
  const inside = $derived(query.data?.inside ?? piece.inside);
  const rest = $derived(query.data?.rest);
  const end = $derived(piece.hangs ? say.today : say.cameDown);
  const when = $derived(moved === null ? end : shortDay(hung + moved * day));
  const closing = $derived(rest?.ring_index[0] !== undefined && rest.ring_index[0] > 0.08);
</script>

<section class="mt-5" aria-label={say.title}>
  <div class="flex items-baseline justify-between">
    <h3 class="font-tag text-lg font-semibold">{say.title}</h3>
    {#if moved !== null}
      <button class="min-h-11 underline underline-offset-4" onclick={() => (moved = null)}
        >{say.toToday}</button
      >
    {/if}
  </div>
  <label class="block">
    <span class="flex justify-between">
      <span class="quiet">{say.on}</span>
      <strong>{when}{query.data ? ` · ${say.lost(percent(query.data.loss_percent))}` : ''}</strong>
    </span>
    <input
      type="range"
      class="pull"
      min={0}
      max={last}
      value={moved ?? today}
      oninput={(event) => (moved = event.currentTarget.valueAsNumber)}
      aria-label={say.on}
      aria-valuetext={when}
    />
  </label>
  <div class="mt-1 flex items-center gap-5">
    <CrossSection {inside} slab={piece.card.shape === 'slab'} />
    <dl class="grid grid-cols-[max-content_1fr] gap-x-3">
      <dt class="quiet">{say.rim}</dt>
      <dd>
        {say.water(numberText(inside.rim_water_percent, 0))}, <strong>{say.feels[inside.rim_feels]}</strong>
      </dd>
      <dt class="quiet">{say.core}</dt>
      <dd>
        {say.water(numberText(inside.core_water_percent, 0))}, <strong>{say.feels[inside.core_feels]}</strong>
      </dd>
      {#if moved === null}
        <dt class="quiet">{say.pace}</dt>
        <dd>
          {say.paceText(
            numberText(piece.card.pace_percent_per_day, 2),
            numberText(piece.card.safe_percent_per_day, 2),
          )}
        </dd>
        {#if piece.hangs && piece.card.wants.includes('too_fast')}<dd class="text-error col-start-2">
            {say.tooFast}
          </dd>{/if}
      {/if}
      <dt class="quiet">{say.ring}</dt>
      <dd class:text-warning={inside.ring === 'strong'}>{say.rings[inside.ring]}</dd>
      {#if rest && closing}
        <dt class="quiet">{say.rest}</dt>
        <dd data-testid="rest">
          {rest.weeks === null ? say.restNever : say.restWeeks(rest.weeks, rest.temperature_c)}
        </dd>
      {/if}
    </dl>
  </div>
  <p class="quiet mt-1 text-sm">{say.estimate}</p>
</section>
