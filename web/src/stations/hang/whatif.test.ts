import { beforeEach, expect, it, vi } from 'vitest';

import type { Schema } from '../../api/client';
import { FakeServer } from '../../testing/server';
import { WhatIf } from './whatif.svelte';

const PATH = '/api/pieces/4/what-if';
const piece = {
  card: { id: 4, target_loss_percent: 36, aim_percent: 36 },
  air_ahead: { temperature_c: 12.8, rh_percent: 79 },
} as Schema['PieceOut'];
const answer = (days_later: number): { body: unknown } => ({ body: { days_later } });

beforeEach(() => {
  vi.useFakeTimers();
  return () => vi.useRealTimers();
});

it('asks only for what differs from how things are', async () => {
  const server = new FakeServer().on(PATH, answer(-4));
  const what = new WhatIf(() => piece);
  what.reset();
  what.humidity = 74;
  what.moved();
  await vi.advanceTimersByTimeAsync(200);
  what.humidity = 79;
  what.air = 1;
  what.hook = '7/4';
  what.casing = 'membrane';
  what.moved();
  await vi.advanceTimersByTimeAsync(200);
  expect(server.bodies(PATH)).toEqual([
    { rh_percent: 74, temperature_c: null, air: 1, target_loss_percent: null, casing: null, rod_id: null, hook: null },
    { rh_percent: null, temperature_c: null, air: 1.5, target_loss_percent: null, casing: 'membrane', rod_id: 7, hook: 4 },
  ]); // prettier-ignore
});

it('does not ask about what nobody moved, though sliders stand on whole steps and the air does not', async () => {
  const server = new FakeServer().on(PATH, answer(1));
  let air: Schema['PieceOut']['air_ahead'] = { temperature_c: 12.84, rh_percent: 77.6 };
  const what = new WhatIf(() => ({ ...piece, air_ahead: air, card: { ...piece.card, aim_percent: 37.5 } }));
  what.reset();
  expect(what.humidity).toBe(78);
  what.temperature = 11;
  what.moved();
  await vi.advanceTimersByTimeAsync(200);
  air = { temperature_c: null, rh_percent: null }; // nothing known: what is usual stands on the sliders
  what.reset();
  expect([what.humidity, what.temperature]).toEqual([78, 13]);
  what.target = 40;
  what.moved();
  await vi.advanceTimersByTimeAsync(200);
  expect(server.bodies(PATH)).toMatchObject([
    { rh_percent: null, temperature_c: 11, target_loss_percent: null },
    { rh_percent: null, temperature_c: null, target_loss_percent: 40 },
  ]);
});

it('asks once for a slider that is drawn, and forgets the answer when it is put back', async () => {
  const server = new FakeServer().on(PATH, answer(3));
  const what = new WhatIf(() => piece);
  what.reset();
  for (const humidity of [80, 81, 82, 83]) {
    what.humidity = humidity;
    what.moved();
    await vi.advanceTimersByTimeAsync(40);
  }
  await vi.advanceTimersByTimeAsync(200);
  expect(server.bodies(PATH)).toHaveLength(1);
  expect(what.answer).toMatchObject({ days_later: 3 });
  what.moved();
  what.reset(); // before it was asked
  await vi.advanceTimersByTimeAsync(200);
  expect([what.answer, what.humidity, server.bodies(PATH).length]).toEqual([null, 79, 1]);
});

it('says what cannot be asked', async () => {
  new FakeServer().on(PATH, {
    status: 422,
    body: { code: 'out_of_range', detail: 'humidity must be below 100 %' },
  });
  const what = new WhatIf(() => piece);
  what.reset();
  what.moved();
  await vi.advanceTimersByTimeAsync(200);
  expect(what.problem).toBe('humidity must be below 100 %');
});
