// Every entry gets its identity here, and keeps it until it is answered: sent again over a weak line, or after the page
// was loaded anew, it is the same and counts once.
import type { Middleware } from 'openapi-fetch';

import { newUid } from './uid';

const NAME = 'zymon.entry.';

const keyOf = (request: Request, text: string): string =>
  `${NAME}${request.method} ${new URL(request.url).pathname} ${text}`;

/** For so long the same entry, sent again, is the same; later it is done once more, as the turning of the next day. */
const KEPT_MS = 2 * 3_600_000;

function kept(key: string, now: number): string {
  const [known, at] = (sessionStorage.getItem(key) ?? '').split(' ');
  if (known && now - Number(at) < KEPT_MS) return known;
  const made = newUid();
  try {
    sessionStorage.setItem(key, `${made} ${now}`);
  } catch {
    // a device without room: the entry is sent all the same
  }
  return made;
}

const unanswered = new WeakMap<Request, string>();

export const sentOnce: Middleware = {
  async onRequest({ request }) {
    if (request.method === 'GET' || !request.headers.get('content-type')?.includes('json')) return undefined;
    const text = await request.clone().text();
    if (!text.includes('"uid":""')) return undefined;
    const key = keyOf(request, text);
    const sent = new Request(request, { body: text.replace('"uid":""', `"uid":"${kept(key, Date.now())}"`) });
    unanswered.set(sent, key);
    return sent;
  },
  onResponse({ request, response }) {
    // a fault of the server is no answer: whether it stored the entry nobody knows
    const key = unanswered.get(request);
    if (key && response.status < 500) sessionStorage.removeItem(key);
    return undefined;
  },
};
