import { afterEach, expect, it, vi } from 'vitest';

import { FakeServer } from '../testing/server';
import { api, take } from './client';
import { head } from './entry';

const PATH = '/api/pieces/4/weighings';
const weigh = (gross_g: number): Promise<unknown> =>
  take(
    api.POST('/api/pieces/{piece_id}/weighings', {
      params: { path: { piece_id: 4 } },
      body: { gross_g, first_g: null, ...head() },
    }),
  );
const uids = (server: FakeServer): string[] =>
  (server.bodies(PATH) as { uid: string }[]).map((body) => body.uid);

afterEach(() => vi.useRealTimers());

it('keeps the identity of an entry until it is answered, whatever got lost', async () => {
  const server = new FakeServer().on(PATH, 'unreachable', { status: 500, body: {} }, { body: {} });
  await expect(weigh(612)).rejects.toThrow();
  await expect(weigh(612)).rejects.toThrow(); // a fault is no answer either
  await weigh(612);
  const [first, second, third] = uids(server);
  expect(first).toMatch(/^[0-9a-f]{18}$/);
  expect([second, third]).toEqual([first, first]);
});

it('gives the same weight entered once more an identity of its own, and another weight too', async () => {
  const server = new FakeServer().on(PATH, { body: {} });
  for (const grams of [612, 612, 611]) await weigh(grams);
  expect(new Set(uids(server)).size).toBe(3);
});

it('lets go of what was refused: entered again it is a new entry', async () => {
  const refused = { status: 409, body: { code: 'doubtful', detail: 'far off' } };
  const server = new FakeServer().on(PATH, refused, { body: {} });
  await expect(weigh(196)).rejects.toThrow('far off');
  await weigh(196);
  expect(new Set(uids(server)).size).toBe(2);
});

it('takes the same entry of the next day for another one, though the answer to the first was lost', async () => {
  vi.useFakeTimers({ toFake: ['Date'] });
  const server = new FakeServer().on(PATH, 'unreachable', 'unreachable', { body: {} });
  const HOUR = 3_600_000;
  const begun = Date.now();
  await expect(weigh(612)).rejects.toThrow();
  vi.setSystemTime(begun + 1.9 * HOUR);
  await expect(weigh(612)).rejects.toThrow();
  vi.setSystemTime(begun + 24 * HOUR);
  await weigh(612);
  const [first, soon, next] = uids(server);
  expect(soon).toBe(first);
  expect(next).not.toBe(first);
});
