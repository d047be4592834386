<script lang="ts">
  // A room of the House: the workshop itself, its people, its devices, the copies of its record.
  import { createQuery } from '@tanstack/svelte-query';
  import type { Snippet } from 'svelte';

  import { lineQuery } from '../../api/queries';
  import Line from '../../shell/Line.svelte';
  import { p } from '../../shell/router';
  import { words } from '../../words';

  type Room = 'workshop' | 'people' | 'devices' | 'alarms' | 'copies';
  let { here, hint, children }: { here: Room; hint: string; children: Snippet } = $props();
  const say = words.house;
  const line = createQuery(lineQuery);
  const rooms = [
    { name: 'workshop', href: p('/house') },
    { name: 'people', href: p('/house/people') },
    { name: 'devices', href: p('/house/devices') },
    { name: 'alarms', href: p('/house/alarms') },
    { name: 'copies', href: p('/house/copies') },
  ] as const;
</script>

<svelte:head><title>{say.rooms[here]} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station={null} />{/if}
  <main class="flex-1 overflow-y-auto px-5 pt-3 pb-16 max-md:px-3">
    <header class="flex flex-wrap items-baseline gap-x-6 gap-y-1">
      <h1 class="font-tag text-3xl font-bold">{say.title}</h1>
      <nav class="flex flex-wrap gap-x-5" aria-label={say.title}>
        {#each rooms as room (room.name)}
          <a
            class="room"
            class:here={room.name === here}
            aria-current={room.name === here ? 'page' : undefined}
            href={room.href}>{say.rooms[room.name]}</a
          >
        {/each}
        <a class="room" href={p('/book/changes')}>{words.life.book.changes}</a>
      </nav>
    </header>
    <p class="quiet max-w-3xl">{hint}</p>
    {@render children()}
  </main>
</div>

<style>
  .room {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
    color: var(--quiet);
    border-bottom: 3px solid transparent;
  }
  .room.here {
    color: var(--color-base-content);
    font-weight: 600;
    border-color: var(--color-primary);
  }
</style>
