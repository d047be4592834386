import { beforeEach, describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { FakeServer } from '../../testing/server';
import { WeighOut } from './weighout.svelte';

type Thing = Schema['ThingOut'];

const thing = (key: string, target_g: number, weighed_g: number | null, state: Thing['state']): Thing => ({
  key,
  name: key,
  target_g,
  tolerance_g: 1,
  weighed_g,
  missing_g: target_g - (weighed_g ?? 0),
  state,
  scale_g: 1,
  worst_error_percent: 1,
  lot: null,
  lot_kind: 'other',
});
const out = (...things: Thing[]): Schema['WeighOutOut'] => ({
  id: 7,
  product: 'Juniper salame',
  by: 'Ida',
  started_at: '2026-11-23T10:00:00Z',
  ended_at: null,
  rescale: 1,
  asks_temperature: true,
  meat_temperature_c: null,
  meat_temperature_at: null,
  made: [],
  things,
  entries: [],
  left: things.filter((one) => one.state !== 'right').length,
  next_code: 'J-01',
  may_join: [],
});
const BEGUN = out(thing('meat-0', 2000, null, 'to_weigh'), thing('salt', 60, null, 'to_weigh'));
const MEAT_IN = out(thing('meat-0', 2000, 2000, 'right'), thing('salt', 60, null, 'to_weigh'));
const POUR = '/api/weigh-outs/7/entries';

describe('weighing out', () => {
  let server: FakeServer;
  beforeEach(() => {
    localStorage.clear();
    server = new FakeServer().on('/api/weigh-outs/7', { body: BEGUN }).on(POUR, { body: MEAT_IN });
  });

  async function begun(): Promise<WeighOut> {
    const flow = new WeighOut(7);
    await flow.load();
    return flow;
  }

  it('goes from one thing to the next', async () => {
    const flow = await begun();
    expect(flow.now?.key).toBe('meat-0');
    flow.typed = '2 000';
    await flow.pour();
    expect(server.bodies(POUR)).toMatchObject([{ key: 'meat-0', grams: 2000 }]);
    expect(flow.now?.key).toBe('salt');
    expect(flow.typed).toBe('');
  });

  it('asks about a weight that is far off before it notes it', async () => {
    const flow = await begun();
    flow.typed = '200';
    await flow.pour();
    expect(flow.asked).toBe(200);
    expect(server.bodies(POUR)).toEqual([]);
    await flow.pour(true);
    expect(server.bodies(POUR)).toHaveLength(1);
  });

  it('says what is no number', async () => {
    const flow = await begun();
    flow.typed = 'much';
    await flow.pour();
    expect(flow.problem).toContain('Type a number');
  });

  it('pours once though Enter is struck twice', async () => {
    const flow = await begun();
    flow.typed = '2000';
    const first = flow.pour();
    flow.typed = '60';
    await Promise.all([first, flow.pour()]);
    expect(server.bodies(POUR)).toHaveLength(1);
    expect(flow.typed).toBe('60'); // typed meanwhile, kept for the next thing
  });

  it('keeps what could not be sent and sends it under the same name', async () => {
    const flow = await begun();
    server.on(POUR, 'unreachable', { body: MEAT_IN });
    flow.typed = '2000';
    await flow.pour();
    expect(flow.problem).toContain('Not sent yet');
    flow.typed = '1999'; // the next weight does not write over what waits
    server.on(POUR, 'unreachable', { body: MEAT_IN });
    await flow.pour();
    expect(flow.unsent).toMatchObject({ key: 'meat-0', grams: 2000 });
    expect(flow.typed).toBe('1999');
    const later = await begun();
    const [first, second] = server.bodies(POUR) as { uid: string }[];
    expect(second?.uid).toBe(first?.uid);
    expect(later.unsent).toBeNull();
    expect(later.now?.key).toBe('salt');
  });

  it('takes out exactly what is too much', async () => {
    const over = out(thing('meat-0', 2000, 2000, 'right'), thing('salt', 60, 62.35, 'over'));
    server.on('/api/weigh-outs/7', { body: over });
    const flow = await begun();
    expect(flow.now?.key).toBe('salt');
    if (flow.now) await flow.takeOut(flow.now);
    expect(server.bodies(POUR)).toMatchObject([{ key: 'salt', grams: -2.35 }]);
  });

  it('shows a refusal in the words of the job', async () => {
    const flow = await begun();
    server.on(POUR, {
      status: 409,
      body: { code: 'clash', detail: 'lot SH-11 is Shoulder: look at the label' },
    });
    flow.typed = '2000';
    await flow.pour();
    expect(flow.problem).toContain('look at the label');
    expect(flow.typed).toBe('2000');
    expect(flow.unsent).toBeNull();
  });
});
