import { beforeEach, expect, it, vi } from 'vitest';

import type { Schema } from '../../api/client';
import { session } from '../../shell/session.svelte';
import { FakeServer } from '../../testing/server';
import { type Carried, hand } from './hand.svelte';

const MOVE = '/api/pieces/4/move';
const AGAIN = '/api/pieces/4/hang-again';
const neck: Carried = { id: 4, tag: 'N-07-02', hangs: true };
const rod = { id: 9, number: 1 } as Schema['RodOut'];
const hung = { body: { card: { id: 4 }, made: [{ what: 'hanging', id: 31 }] } };

beforeEach(() => {
  hand.holds = neck;
  session.notice = null;
});

it.each([
  [neck, MOVE, 'N-07-02 moved to rod 1, hook 4'],
  [{ ...neck, hangs: false }, AGAIN, 'N-07-02 hangs'],
])('hangs %o on the hook, empties the hand, and takes exactly that back', async (piece, address, said) => {
  const server = new FakeServer().on(address, hung).on('/api/undo', { body: [] });
  const refresh = vi.fn();
  await hand.put(piece, rod, 4, refresh);
  expect([hand.holds, session.notice?.text]).toEqual([null, said]);
  await session.undo();
  expect(server.bodies(address)).toMatchObject([{ rod_id: 9, hook: 4 }]);
  expect(server.bodies('/api/undo')).toMatchObject([{ made: [{ what: 'hanging', id: 31 }] }]);
  expect(refresh.mock.calls).toEqual([[hung.body], [null]]);
});

it('keeps the piece in the hand when the hook was taken a moment ago', async () => {
  new FakeServer().on(MOVE, { status: 409, body: { code: 'clash', detail: 'rod 1 hook 4 holds J-14-03' } });
  const refresh = vi.fn();
  await hand.put(neck, rod, 4, refresh);
  expect([hand.holds?.tag, session.notice?.problem, refresh.mock.calls.length]).toEqual(['N-07-02', true, 0]);
});
