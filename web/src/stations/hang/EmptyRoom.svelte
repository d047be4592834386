<script lang="ts">
  // A room in which nothing hangs: what to do first, and in an empty workshop the three steps.
  import type { Schema } from '../../api/client';
  import { p } from '../../shell/router';
  import { words } from '../../words';
  import Tour from '../start/Tour.svelte';

  interface Props {
    room: Schema['Room'];
    line: Schema['Line'];
    onhang: () => void;
    onimport: () => void;
  }
  let { room, line, onhang, onimport }: Props = $props();
  /** Nothing in the whole workshop, in no station. */
  const nothingYet = $derived(
    !room.hung_here &&
      line.in_salt + line.in_warm + line.at_rest === 0 &&
      line.places.every((place) => place.pieces === 0),
  );
</script>

<div class="mt-6 max-w-xl">
  {#if room.hung_here}
    <h2 class="font-tag text-xl font-semibold">{words.hang.emptiedTitle(room.place.name)}</h2>
    <p class="mt-1">{words.hang.emptiedText(room.hung_here)}</p>
  {:else}
    <h2 class="font-tag text-xl font-semibold">{words.hang.emptyTitle(room.place.name)}</h2>
    <p class="mt-1">{words.hang.emptyText}</p>
  {/if}
  <div class="mt-3 flex flex-wrap gap-3">
    <button class="btn btn-primary btn-lg" onclick={onhang}
      >{room.hung_here ? words.form.hangTitle : words.hang.emptyHang}</button
    >
    {#if room.hung_here}<a class="btn btn-lg" href={p('/book')}>{words.hang.emptiedBook}</a>{/if}
    <button class="btn btn-lg" onclick={onimport}>{words.hang.emptyImport}</button>
  </div>
  {#if nothingYet}<Tour />{/if}
</div>
