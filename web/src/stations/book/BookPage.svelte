<script lang="ts">
  // A page behind the Book: the line above it, the way back, its name and what it is for.
  import { createQuery } from '@tanstack/svelte-query';
  import type { Snippet } from 'svelte';

  import { lineQuery } from '../../api/queries';
  import Line from '../../shell/Line.svelte';
  import { p } from '../../shell/router';
  import { words } from '../../words';

  let { title, hint, children }: { title: string; hint: string; children: Snippet } = $props();
  const line = createQuery(lineQuery);
</script>

<svelte:head><title>{title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="book" />{/if}
  <main class="flex-1 overflow-y-auto px-5 pt-3 pb-16 max-md:px-3">
    <p>
      <a class="inline-flex min-h-11 items-center underline underline-offset-4" href={p('/book')}
        >← {words.life.book.title}</a
      >
    </p>
    <h1 class="font-tag text-3xl font-bold">{title}</h1>
    <p class="quiet max-w-3xl">{hint}</p>
    {@render children()}
  </main>
</div>
