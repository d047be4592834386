// What a browser has and Node has not, as far as the state classes need it. Runs before anything is imported: the
// client takes fetch and Request as they are when it is made.
import { vi } from 'vitest';

import { serve } from './server';

// which page lies behind an address is the browser's to try: here the pages would all be read for each test of a link
vi.mock('../shell/router', () => ({
  p: (address: string, { params = {} }: { params?: Record<string, string> } = {}) =>
    address.replace(/:(\w+)/g, (_, name: string) => params[name] ?? name),
  navigate: vi.fn(),
  route: { params: {}, search: {}, pathname: '/' },
}));

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

vi.stubGlobal('navigator', {});
Object.assign(globalThis, {
  isSecureContext: false,
  localStorage: storage(),
  sessionStorage: storage(),
  matchMedia: () => ({ matches: false }),
  Request: LocalRequest,
  fetch: serve,
});
