<script lang="ts">
  // The line of stations, and at its end the air of each place.
  import type { Schema } from '../api/client';
  import { hand } from '../stations/hang/hand.svelte';
  import { tour } from '../stations/start/tour.svelte';
  import { navigate, p } from './router';
  import { age } from '../units/format';
  import { numberText } from '../units/number';
  import { inUnits } from '../units/quantity';
  import { words } from '../words';
  import { finding } from './finding.svelte';
  import Mark from './Mark.svelte';
  import { door } from './door.svelte';
  import { session } from './session.svelte';

  type Station = 'today' | 'bench' | 'salt' | 'warm' | 'hang' | 'rest' | 'book';
  interface Props {
    line: Schema['Line'];
    placeId: number | null;
    station?: Station | null; // null: a page beside the line
  }
  let { line, placeId, station: here = 'hang' }: Props = $props();

  const stations = ['today', 'bench', 'salt', 'warm', 'hang', 'rest', 'book'] as const;
  const addresses = $derived<Record<Station, string>>({
    today: p('/today'),
    bench: p('/bench'),
    salt: p('/salt'),
    warm: p('/warm'),
    hang: placeId ? p('/hang/:place', { params: { place: String(placeId) } }) : p('/'),
    rest: p('/rest'),
    book: p('/book'),
  });
  const counts = $derived<Partial<Record<Station, number>>>({
    salt: line.in_salt,
    warm: line.in_warm,
    rest: line.at_rest,
    hang: line.places.reduce((sum, place) => sum + place.pieces, 0),
  });
  const now = $derived(new Date(line.now).getTime());
  const withAir = $derived(line.places.filter((place) => place.air || place.kind === 'chamber'));

  function trend(change: number, least: number): string {
    return change > least ? '↗' : change < -least ? '↘' : '→';
  }
  const aged = (at: string): string => (now - new Date(at).getTime() < 60_000 ? words.now : age(at, now));
  let naming = $state<string | null>(null);
  let airs = $state<HTMLElement>();
  $effect(() => {
    void placeId;
    void withAir;
    airs?.querySelector('.chosen')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  });
  function rename(): void {
    if (naming?.trim()) session.rename(naming);
    naming = null;
  }
</script>

<header
  class="flex items-stretch gap-x-5 max-md:flex-wrap max-md:gap-x-2 print:hidden"
  style="background: var(--bar); color: var(--bar-ink)"
>
  <a href={p('/')} class="flex items-center gap-2 py-2 pl-4" aria-label="Zymon">
    <Mark /><span class="font-tag text-xl font-bold tracking-wide max-md:sr-only">Zymon</span>
  </a>
  <nav
    class="flex items-end max-md:order-3 max-md:w-full max-md:overflow-x-auto max-md:pl-2"
    aria-label="Stations"
  >
    {#each stations as station (station)}
      <a
        class="stop use"
        class:here={station === here}
        class:told={station === tour.points}
        href={addresses[station]}
        aria-current={station === here ? 'page' : undefined}
      >
        <span
          >{words.stations[station]}{#if counts[station]}<sup class="ml-0.5 text-xs">{counts[station]}</sup
            >{/if}</span
        >
        <i aria-hidden="true"></i>
      </a>
    {/each}
  </nav>
  <div
    bind:this={airs}
    class="relative ml-auto flex min-w-0 items-center gap-3.5 overflow-x-auto pl-2 max-md:flex-1"
    style="scrollbar-width: none"
  >
    {#each withAir as place (place.id)}
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
  <div class="flex flex-none items-center gap-2 pr-3">
    <button
      class="grid min-h-11 min-w-8 place-items-center"
      title="{words.book.find.open} (/)"
      aria-label={words.book.find.open}
      onclick={() => (finding.open = true)}
      ><svg width="17" height="17" viewBox="0 0 17 17" aria-hidden="true"
        ><circle cx="7" cy="7" r="5" fill="none" stroke="currentColor" stroke-width="2" /><path
          d="M11 11l4.5 4.5"
          stroke="currentColor"
          stroke-width="2"
        /></svg
      ></button
    >
    <a
      class="grid min-h-11 min-w-8 place-items-center text-lg"
      href={p('/places/new')}
      title={words.place.title}
      aria-label={words.place.title}>+</a
    >
    {#if door.me}
      <a class="inline-flex min-h-11 items-center text-sm" href={p('/house/people')}>{door.me.name}</a>
    {:else if naming === null}
      <button class="min-h-11 min-w-8 text-sm" onclick={() => (naming = session.who)} title={words.who}
        >{session.who}</button
      >
    {:else}
      <form
        onsubmit={(event) => {
          event.preventDefault();
          rename();
        }}
      >
        <input
          class="word w-28"
          style="color: inherit"
          aria-label={words.who}
          autocomplete="off"
          {@attach (box) => box.focus()}
          bind:value={naming}
          onblur={rename}
          onkeydown={(event) => event.key === 'Escape' && (naming = null)}
        />
      </form>
    {/if}
    <a
      class="grid min-h-11 min-w-8 place-items-center"
      href={p('/house')}
      title={words.house.open}
      aria-label={words.house.open}
      ><svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true"
        ><path
          d="M2 8.5 9 2.5l7 6M4 8v7.5h10V8M7.5 15.5v-4h3v4"
          fill="none"
          stroke="currentColor"
          stroke-width="1.8"
        /></svg
      ></a
    >
    <button
      class="min-h-11 min-w-8"
      onclick={() => session.turnLight()}
      aria-label={words.theme}
      title={words.theme}
    >
      <svg width="18" height="18" viewBox="0 0 20 20" aria-hidden="true">
        <circle cx="10" cy="10" r="7" fill="none" stroke="currentColor" stroke-width="2" />
        <path d="M10 3a7 7 0 0 1 0 14z" fill="currentColor" />
      </svg>
    </button>
  </div>
</header>

<style>
  .stop {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    gap: 2px;
    min-width: 3.9rem;
    padding: 0.4rem 0.5rem 0.35rem 0;
    font-family: var(--font-tag);
    font-size: 1.02rem;
    font-weight: 500;
    color: var(--bar-quiet);
  }
  .stop i {
    forced-color-adjust: none;
    position: relative;
    display: block;
    width: 100%;
    height: 9px;
  }
  .stop i::before {
    content: '';
    position: absolute;
    inset: 4px 0 auto 0;
    height: 1px;
    background: var(--bar-quiet);
    opacity: 0.5;
  }
  .stop i::after {
    content: '';
    position: absolute;
    left: 6px;
    top: 1px;
    width: 7px;
    height: 7px;
    border-radius: 50%;
    border: 1px solid var(--bar-quiet);
    background: var(--bar);
  }
  .use {
    color: color-mix(in oklab, var(--bar-ink) 85%, var(--bar));
  }
  .told span {
    text-decoration: underline;
    text-decoration-thickness: 2px;
    text-underline-offset: 4px;
  }
  .told i::after {
    background: var(--bar-ink);
    box-shadow: 0 0 0 3px color-mix(in oklab, var(--bar-ink), transparent 65%);
  }
  .here {
    color: var(--bar-ink);
    font-weight: 700;
  }
  .here i::after {
    background: var(--bar-ink);
    border-color: var(--bar-ink);
    width: 9px;
    height: 9px;
    top: 0;
  }
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
