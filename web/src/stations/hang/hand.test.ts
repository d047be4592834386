import { beforeEach, expect, it, vi } from 'vitest';

import type { Schema } from '../../api/client';
import { session } from '../../shell/session.svelte';
import { FakeServer } from '../../testing/server';
import { type Carried, hand } from './hand.svelte';

const MOVE = '/api/pieces/4/move';
const neck: Carried = { id: 4, tag: 'N-07-02', from: { rod_id: 3, hook: 2 } };
const rod = { id: 9, number: 1 } as Schema['RodOut'];
const hung = { body: { card: { id: 4 } } };

beforeEach(() => {
  hand.holds = neck;
  session.notice = null;
});

it('hangs the piece on the hook, empties the hand, and can be undone from wherever the maker is', async () => {
  const server = new FakeServer().on(MOVE, hung);
  const refresh = vi.fn();
  await hand.put(neck, rod, 4, refresh);
  expect([hand.holds, session.notice?.text]).toEqual([null, 'N-07-02 moved to rod 1, hook 4']);
  await session.undo();
  expect(server.bodies(MOVE)).toMatchObject([
    { rod_id: 9, hook: 4 },
    { rod_id: 3, hook: 2 },
  ]);
  expect(refresh).toHaveBeenCalledTimes(2);
});

it('keeps the piece in the hand when the hook was taken a moment ago', async () => {
  new FakeServer().on(MOVE, { status: 409, body: { code: 'clash', detail: 'rod 1 hook 4 holds J-14-03' } });
  const refresh = vi.fn();
  await hand.put(neck, rod, 4, refresh);
  expect([hand.holds?.tag, session.notice?.problem, refresh.mock.calls.length]).toEqual(['N-07-02', true, 0]);
});
