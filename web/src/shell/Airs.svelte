<script lang="ts">
  // The air of each place at the end of the line, the chosen one underlined; a piece can be dropped onto one.
  import type { Schema } from '../api/client';
  import { hand } from '../stations/hang/hand.svelte';
  import { age } from '../units/format';
  import { numberText } from '../units/number';
  import { inUnits } from '../units/quantity';
  import { words } from '../words';
  import { navigate, p } from './router';

  interface Props {
    places: Schema['Line']['places'];
    placeId: number | null;
    now: number;
  }
  let { places, placeId, now }: Props = $props();

  function trend(change: number, least: number): string {
    return change > least ? '↗' : change < -least ? '↘' : '→';
  }
  const aged = (at: string): string => (now - new Date(at).getTime() < 60_000 ? words.now : age(at, now));
  let airs = $state<HTMLElement>();
  $effect(() => {
    void placeId;
    void places;
    airs?.querySelector('.chosen')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  });
</script>

<div
  bind:this={airs}
  class="relative ml-auto flex min-w-0 items-center gap-3.5 overflow-x-auto pl-2 max-md:flex-1"
  style="scrollbar-width: none"
>
  {#each places as place (place.id)}
    <a
      class="air"
      class:chosen={place.id === placeId}
      ondragover={(event) => hand.holds && event.preventDefault()}
      ondrop={(event) => {
        event.preventDefault();
        if (hand.holds) void navigate('/hang/:place', { params: { place: String(place.id) } });
      }}
      href={place.kind === 'chamber'
        ? p('/hang/:place', { params: { place: String(place.id) } })
        : p('/hang/:place/climate', { params: { place: String(place.id) } })}
    >
      <span class="name">{place.name}{place.air ? ` · ${aged(place.air.at)}` : ''}</span>
      {#if place.air}
        <span class="values" class:stale={place.air.stale}>
          {numberText(inUnits('temperature', place.air.temperature_c), 1)}°<small
            >{trend(place.air.trend_c, 0.4)}</small
          >
          {#if place.air.rh_percent !== null}{numberText(place.air.rh_percent, 0)} %<small
              >{trend(place.air.trend_rh ?? 0, 1.5)}</small
            >{/if}
        </span>
        {#if place.air.stale}<span class="sr-only">{words.stale}</span>{/if}
      {:else}
        <span class="values opacity-70">{words.noAir}</span>
      {/if}
    </a>
  {/each}
</div>

<style>
  .air {
    display: flex;
    flex-direction: column;
    min-height: 44px;
    padding: 0.25rem 0;
    white-space: nowrap;
    border-bottom: 2px solid transparent;
    line-height: 1.15;
  }
  .air.chosen {
    border-color: var(--bar-ink);
  }
  @media (forced-colors: active) {
    .air:not(.chosen) {
      border-color: Canvas;
    }
  }
  .name {
    font-size: 0.74rem;
    color: var(--bar-quiet);
  }
  .values {
    font-size: 1rem;
    font-weight: 600;
  }
  .values small {
    font-size: 0.7rem;
    font-weight: 400;
    color: var(--bar-quiet);
  }
  .stale {
    text-decoration: line-through;
    opacity: 0.7;
  }
</style>
