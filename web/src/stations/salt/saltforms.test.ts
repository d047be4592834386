import { beforeEach, describe, expect, it, vi } from 'vitest';

import type { Schema } from '../../api/client';
import { session } from '../../shell/session.svelte';
import { FakeServer } from '../../testing/server';
import { IntoSaltForm } from './intosalt.svelte';
import { SaltDesk } from './saltdesk.svelte';

const waiting = [
  { id: 8, way: 'measured', percent: 2.75, geometry: 'cylinder', meat_g: 6200, piece_g: 1500, across_mm: 92 },
] as unknown as Schema['WaitingBatch'][];
const families = [
  { id: 'neck', name: 'Cured neck', salting: 'measured', salt_percent: 2.8, shape: 'cylinder', kind: 'whole_muscle', across_mm: 95 },
  { id: 'leg', name: 'Small leg', salting: 'buried', salt_percent: 6, shape: 'irregular', kind: 'ham', across_mm: 140 },
] as unknown as Schema['FamilyOut'][]; // prettier-ignore
const ways = [
  { id: 'measured', dose: 'measured', may_be_free: false },
  { id: 'buried', dose: 'free', may_be_free: false },
  { id: 'pressed', dose: 'measured', may_be_free: true },
] as Schema['WayOut'][];
const places = [
  { id: 1, kind: 'chamber' },
  { id: 2, kind: 'salt' },
] as Schema['PlaceOut'][];
const PATH = '/api/salt';

describe('into the salt', () => {
  it('takes a batch of the Bench with as many muscles as it weighs', () => {
    const form = new IntoSaltForm(waiting, families, places, 'N-11', ways);
    expect([form.batch, form.place, form.muscles.length, form.percent]).toEqual([8, 2, 4, '2.75']);
    expect(form.muscles[0]).toEqual({ raw: '', across: '92' });
  });

  it('takes a muscle that never lay on the Bench by its family, skin and open salt of a leg too', () => {
    const form = new IntoSaltForm([], families, places, 'M-04', ways);
    form.pickFamily('leg');
    expect([form.way, form.openSalt, form.geometry, form.skin]).toEqual(['buried', true, 'sphere', '40']);
    expect(form.dose).toBeNull(); // buried in salt there is no dose
  });

  it('weighs the salt while the weights are typed', () => {
    const form = new IntoSaltForm(waiting, families, places, 'N-11', ways);
    expect(form.dose).toBeNull();
    form.muscles = [
      { raw: '1480', across: '92' },
      { raw: '1 520', across: '95' },
      { raw: '', across: '92' },
    ];
    form.percent = '2,5';
    expect(form.dose).toBeCloseTo(75, 9);
  });

  it('puts in what has a weight, all or none', async () => {
    const server = new FakeServer().on(PATH, { status: 201, body: { pieces: [] } });
    const form = new IntoSaltForm(waiting, families, places, 'N-11', ways);
    form.muscles = [
      { raw: '1480', across: '92' },
      { raw: '15 stone', across: '95' },
    ];
    expect(await form.put()).toBeNull();
    expect(form.fault).not.toBeNull();
    expect(server.bodies(PATH)).toEqual([]);
    form.muscles = [
      { raw: '1480', across: '92' },
      { raw: '', across: '95' },
    ];
    expect(await form.put()).toEqual({ pieces: [] });
    expect(server.bodies(PATH)).toMatchObject([
      { batch_id: 8, quick: null, muscles: [{ raw_g: 1480, across_mm: 92 }], percent: 2.75, skin_share: 0 },
    ]);
  });

  it('does nothing without a weight, and says so', async () => {
    const server = new FakeServer();
    const form = new IntoSaltForm(waiting, families, places, 'N-11', ways);
    expect(await form.put()).toBeNull();
    expect([form.fault === null, server.bodies(PATH).length]).toEqual([false, 0]);
  });
});

describe('done to pieces in salt', () => {
  const EVENTS = '/api/salt/events';
  const took = vi.fn();
  const behind = vi.fn();
  beforeEach(() => {
    took.mockClear();
    behind.mockClear();
    session.notice = null;
  });

  it('counts once what was sent twice over a weak line', async () => {
    const server = new FakeServer().on(EVENTS, 'unreachable', { body: { pieces: [] } });
    const desk = new SaltDesk(took, behind);
    expect(await desk.note('drain', [4, 5], { value: 30 })).toBeNull();
    expect(session.notice?.problem).toBe(true);
    await desk.note('drain', [4, 5], { value: 30 });
    await desk.note('drain', [4, 5], { value: 30 }); // and poured off once more
    const uids = (server.bodies(EVENTS) as { uid: string }[]).map((body) => body.uid);
    expect(uids[0]).toBe(uids[1]);
    expect(uids[2]).not.toBe(uids[1]);
    expect(took).toHaveBeenCalledTimes(2);
  });

  it('asks about a weight that cannot be, and counts it when it is kept', async () => {
    const doubt = { status: 409, body: { code: 'doubtful', detail: 'heavier than it went in' } };
    const server = new FakeServer().on(EVENTS, doubt, { body: { pieces: [] } });
    const desk = new SaltDesk(took, behind);
    expect(await desk.note('out', [4], { value: 1900 })).toBeNull();
    expect([desk.question, behind.mock.calls.length]).toEqual(['heavier than it went in', 0]);
    await desk.note('out', [4], { value: 1900, sure: true });
    expect(desk.question).toBeNull();
    expect(server.bodies(EVENTS)).toMatchObject([{ sure: false }, { sure: true }]);
  });

  it('looks again when somebody else was here first', async () => {
    new FakeServer().on(EVENTS, {
      status: 409,
      body: { code: 'clash', detail: 'N-09-01 is out of the salt already' },
    });
    await new SaltDesk(took, behind).note('turn', [1]);
    expect(behind).toHaveBeenCalledOnce();
    expect(session.notice?.text).toContain('out of the salt already');
  });

  it('strikes with the reason', async () => {
    const server = new FakeServer().on('/api/salt/events/9/strike', { body: { pieces: [] } });
    expect(await new SaltDesk(took, behind).strike(9, 'another bag')).toBe(true);
    expect(server.bodies('/api/salt/events/9/strike')).toMatchObject([{ reason: 'another bag' }]);
  });
});
