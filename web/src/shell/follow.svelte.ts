// What happens on the server while a page is open: dates being made anew, and made. Cut off, it follows again by itself.
import type { QueryClient } from '@tanstack/svelte-query';
import { SvelteSet } from 'svelte/reactivity';

import { keys } from '../api/queries';

/** Places whose dates are being made anew just now. */
export const making = new SvelteSet<number>();

const MOVED_BY_DATES = [['room'], ['piece'], keys.told, ['mending'], keys.today, keys.line];

export function follow(queries: QueryClient): () => void {
  if (typeof EventSource === 'undefined') return () => undefined;
  const source = new EventSource('/api/follow');
  source.addEventListener('making', (event) => making.add(Number(event.data)));
  source.addEventListener('made', (event) => {
    making.delete(Number(event.data));
    for (const queryKey of MOVED_BY_DATES) void queries.invalidateQueries({ queryKey });
  });
  source.addEventListener('error', () => making.clear());
  return () => source.close();
}
