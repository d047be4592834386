<script lang="ts">
  // What the inside is predicted to be: the cut face, and how rim and core would feel.
  import type { Schema } from '../../api/client';
  import CrossSection from '../../goods/CrossSection.svelte';
  import { words } from '../../words/en';

  let { piece }: { piece: Schema['PieceOut'] } = $props();
  const inside = $derived(piece.inside);
  const say = words.inside;
</script>

<section class="mt-4" aria-label={say.title}>
  <h3 class="font-tag text-lg font-semibold">{say.title}</h3>
  <div class="mt-1 flex items-center gap-5">
    <CrossSection {inside} slab={piece.card.shape === 'slab'} />
    <dl class="grid grid-cols-[max-content_1fr] gap-x-3">
      <dt class="quiet">{say.rim}</dt>
      <dd>
        {say.water(inside.rim_water_percent.toFixed(0))}, <strong>{say.feels[inside.rim_feels]}</strong>
      </dd>
      <dt class="quiet">{say.core}</dt>
      <dd>
        {say.water(inside.core_water_percent.toFixed(0))}, <strong>{say.feels[inside.core_feels]}</strong>
      </dd>
      <dt class="quiet">{say.pace}</dt>
      <dd>
        {say.paceText(piece.card.pace_percent_per_day.toFixed(2), piece.card.safe_percent_per_day.toFixed(2))}
      </dd>
      <dt class="quiet">{say.ring}</dt>
      <dd>{piece.card.ring_risk < 0.3 ? say.low : piece.card.ring_risk < 0.5 ? say.some : say.high}</dd>
    </dl>
  </div>
  <p class="quiet mt-1 text-sm">{say.estimate}</p>
</section>
