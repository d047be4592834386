<script lang="ts">
  // The line of stations, and at its end the air of each place.
  import type { Schema } from '../api/client';
  import { tour } from '../stations/start/tour.svelte';
  import { p } from './router';
  import { words } from '../words';
  import Airs from './Airs.svelte';
  import LineTools from './LineTools.svelte';
  import Mark from './Mark.svelte';

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
    aria-label={words.stationsName}
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
  <Airs places={withAir} {placeId} {now} />
  <LineTools />
</header>

<style>
  .stop {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    gap: 2px;
    flex: none;
    min-width: 3.9rem;
    padding: 0.4rem 0.5rem 0.35rem 0;
    font-family: var(--font-tag);
    font-size: 1.02rem;
    font-weight: 500;
    color: var(--bar-quiet);
  }
  @media (max-width: 767px) {
    .stop {
      flex: 1 0 auto; /* all seven stations side by side on a phone */
      min-width: 2.75rem;
      padding-right: 0.3rem;
    }
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
</style>
