<script lang="ts">
  // The three rooms of the Rest: the shelf, the knife, the stock.
  import { p } from '../../shell/router';
  import { words } from '../../words';

  let { here, toCut = 0 }: { here: 'shelf' | 'cut' | 'stock'; toCut?: number } = $props();
  const say = words.cut.rooms;
  const rooms = [
    { name: 'shelf', href: p('/rest') },
    { name: 'cut', href: p('/rest/cut') },
    { name: 'stock', href: p('/rest/stock') },
  ] as const;
</script>

<nav class="rooms" aria-label={words.rest.title}>
  {#each rooms as room (room.name)}
    <a href={room.href} class:here={room.name === here} aria-current={room.name === here ? 'page' : undefined}
      >{say[room.name]}{#if room.name === 'cut' && toCut}<sup>{toCut}</sup>{/if}</a
    >
  {/each}
</nav>

<style>
  .rooms {
    display: flex;
    gap: 1.4rem;
  }
  .rooms a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
    color: var(--quiet);
    border-bottom: 3px solid transparent;
  }
  .rooms a.here {
    color: var(--color-base-content);
    font-weight: 600;
    border-color: var(--color-primary);
  }
  sup {
    margin-left: 0.2rem;
    font-size: 0.75rem;
  }
</style>
