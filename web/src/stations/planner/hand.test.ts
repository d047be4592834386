import { beforeEach, describe, expect, it, vi } from 'vitest';

import type { Schema } from '../../api/client';
import { FakeServer } from '../../testing/server';
import { daysLater } from '../../units/days';
import { Hand, wishFor } from './hand.svelte';

const START = '2026-12-15T11:00:00.000Z';
const SHEET = {
  parts: [],
  salt_percent: 2.7,
  plan: { piece_g: 900, target_loss_percent: 35, across_mm: 60 },
} as unknown as Schema['SheetModel'];
const PLAN = {
  id: 7, setting_id: 70, state: 'planned', product: 'Juniper salame', pieces: 12, table_g: 350, place_id: 3,
  wanted: '2027-02-14T11:00:00Z', start: START, wait_days: 0, rest_days: 7, frozen: false, order_days: 4,
  asked_chance: 0.8, chance: 0.81, occasion: 'Candle market',
} as unknown as Schema['PlanOut']; // prettier-ignore
const DAYS = [0.95, 0.9, 0.81, 0.6, 0.3].map((chance, i) => ({ start: daysLater(START, i - 2), chance }));
const KEPT = {
  plan: PLAN,
  sheet: SHEET,
  days: DAYS,
  made: [{ what: 'plan_setting', id: 70 }],
  recipe_id: 4,
  version: 2,
};
const looked = (start: string, chance: number) => ({
  plan: { ...PLAN, start, chance },
  days: DAYS,
  latest_start: START,
  in_time_by: null,
});

describe('the plan in hand', () => {
  let server: FakeServer;
  beforeEach(() => {
    vi.useFakeTimers();
    server = new FakeServer();
  });
  const settle = () => vi.advanceTimersByTimeAsync(300);

  it('a new wish is looked at and takes the place that was proposed', async () => {
    server.on('/api/plans/look', { body: looked(START, 0.81) });
    const hand = new Hand();
    hand.begin(wishFor('Juniper salame', SHEET, '2027-02-14T11:00:00Z'));
    await settle();
    expect(hand.plan?.chance).toBe(0.81);
    expect(hand.wish).toMatchObject({ place_id: 3, start: null, table_g: 590 });
    expect(server.bodies('/api/plans')).toEqual([]);
  });

  it('tells the chance of a move before the server has looked, and looks once for many moves', async () => {
    server
      .on('/api/plans/7', { body: KEPT })
      .on('/api/plans/7/look', { body: looked(daysLater(START, 2), 0.31) });
    const hand = new Hand();
    await hand.take(7);
    expect(hand.wish).toMatchObject({ recipe_id: 4, version: 2, start: START });
    expect(hand.changed).toBe(false);
    hand.move(1);
    expect(hand.chance).toBe(0.6);
    expect(hand.looking).toBe(true); // nothing is kept before it was looked at
    hand.move(1);
    expect(hand.chance).toBe(0.3);
    expect(server.bodies('/api/plans/7/look')).toHaveLength(0);
    await settle();
    expect(server.bodies('/api/plans/7/look')).toHaveLength(1);
    expect(hand.chance).toBe(0.31);
    hand.move(0);
    expect(hand.changed).toBe(true);
  });

  it('keeps a change against the setting it was made from', async () => {
    server
      .on(
        '/api/plans/7',
        { body: KEPT },
        { status: 201, body: { ...KEPT, plan: { ...PLAN, setting_id: 71 } } },
      )
      .on('/api/plans/7/look', { body: looked(START, 0.8) });
    const hand = new Hand();
    await hand.take(7);
    hand.set({ pieces: 10 });
    await settle();
    await hand.keep('fewer were ordered');
    expect(server.bodies('/api/plans/7').at(-1)).toMatchObject({
      seen: 70,
      pieces: 10,
      reason: 'fewer were ordered',
    });
    expect(hand.kept?.setting_id).toBe(71);
    expect(hand.changed).toBe(false);
  });

  it('says in words what cannot be, and forgets it when it is mended', async () => {
    const refusal = { code: 'out_of_range', detail: 'the day it is wanted has gone by' };
    server.on('/api/plans/look', { status: 422, body: refusal }, { body: looked(START, 0.8) });
    const hand = new Hand();
    hand.begin(wishFor('Juniper salame', SHEET, '2020-02-14T11:00:00Z'));
    await settle();
    expect(hand.problem).toContain('gone by');
    hand.set({ wanted: '2027-02-14T11:00:00Z' });
    await settle();
    expect(hand.problem).toBeNull();
    expect(hand.plan).not.toBeNull();
  });

  it('an answer to what was wished before is not taken for one to what is wished now', async () => {
    let answer: (value: Response) => void = () => undefined;
    server.on('/api/plans/look', { body: looked(START, 0.2) });
    const slow = new Promise<Response>((done) => (answer = done));
    const first = vi.spyOn(server, 'answer').mockReturnValueOnce(slow);
    const hand = new Hand();
    hand.begin(wishFor('Juniper salame', SHEET, '2027-02-14T11:00:00Z'));
    await settle();
    hand.set({ pieces: 3 });
    await settle();
    expect(first).toHaveBeenCalledTimes(2);
    answer(
      new Response(JSON.stringify(looked(START, 0.99)), { headers: { 'Content-Type': 'application/json' } }),
    );
    await settle();
    expect(hand.plan?.chance).toBe(0.2);
  });
});
