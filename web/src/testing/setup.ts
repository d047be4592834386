// What a browser has and Node has not, as far as the state classes need it. Runs before anything is imported: the
// client takes fetch and Request as they are when it is made.
import { serve } from './server';

/** What a browser keeps under names. */
function storage(): Storage {
  const kept = new Map<string, string>();
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
    clear: () => kept.clear(),
    key: (at: number) => [...kept.keys()][at] ?? null,
    get length() {
      return kept.size;
    },
  };
}

class LocalRequest extends Request {
  constructor(url: string | URL | Request, init?: RequestInit) {
    super(typeof url === 'string' && url.startsWith('/') ? `http://zymon.test${url}` : url, init);
  }
}

Object.assign(globalThis, {
  localStorage: storage(),
  sessionStorage: storage(),
  matchMedia: () => ({ matches: false }),
  Request: LocalRequest,
  fetch: serve,
});
