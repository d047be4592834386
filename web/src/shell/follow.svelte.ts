// What happens on the server while a page is open: dates being made anew, and made. Cut off, it follows again by itself.
import type { QueryClient } from '@tanstack/svelte-query';
import { SvelteSet } from 'svelte/reactivity';

import { keys } from '../api/queries';

/** Places whose dates are being made anew just now. */
export const making = new SvelteSet<number>();

const TOGETHER_MS = 150;
const MOVED_BY_DATES = [keys.rooms, keys.pieces, keys.told, keys.mendings, keys.today, keys.line];

export function follow(queries: QueryClient): () => void {
  if (typeof EventSource === 'undefined') return () => undefined;
  const source = new EventSource('/api/follow');
  let soon: ReturnType<typeof setTimeout> | undefined;
  let cut = false;
  /** Several places are often made one after the other: what is shown is asked for once. */
  const ask = (): void => {
    clearTimeout(soon);
    soon = setTimeout(() => {
      for (const queryKey of MOVED_BY_DATES) void queries.invalidateQueries({ queryKey });
    }, TOGETHER_MS);
  };
  source.addEventListener('making', (event) => making.add(Number(event.data)));
  source.addEventListener('made', (event) => {
    making.delete(Number(event.data));
    ask();
  });
  source.addEventListener('shown', () => void queries.invalidateQueries({ queryKey: keys.showing }));
  source.addEventListener('alarm', () => {
    void queries.invalidateQueries({ queryKey: keys.line });
    void queries.invalidateQueries({ queryKey: keys.alarms });
  });
  source.addEventListener('error', () => {
    making.clear();
    cut = true;
  });
  source.addEventListener('open', () => {
    if (cut) ask(); // what happened meanwhile was told to nobody
    cut = false;
  });
  return () => {
    clearTimeout(soon);
    source.close();
  };
}
