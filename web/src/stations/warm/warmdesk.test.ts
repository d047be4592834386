import { beforeEach, expect, it, vi } from 'vitest';

import { session } from '../../shell/session.svelte';
import { FakeServer } from '../../testing/server';
import { WarmDesk } from './warmdesk.svelte';

const READINGS = '/api/warm/6/readings';
const took = vi.fn();
beforeEach(() => {
  took.mockClear();
  session.notice = null;
});
const uids = (server: FakeServer): string[] =>
  (server.bodies(READINGS) as { uid: string }[]).map((body) => body.uid);

it('sends a reading that got lost again under its identity, another value under another', async () => {
  const server = new FakeServer().on(READINGS, 'unreachable', 'unreachable', {
    status: 201,
    body: { ph_now: 5.1 },
  });
  const desk = new WarmDesk(6, took);
  expect(await desk.read(5.12, 21, 1, false)).toBe(false);
  expect(await desk.read(5.12, 21, 1, false)).toBe(false);
  expect(await desk.read(5.21, 21, 1, false)).toBe(true); // corrected before it was sent: not the one that may be there
  expect(uids(server)[0]).toBe(uids(server)[1]);
  expect(uids(server)[2]).not.toBe(uids(server)[1]);
  expect(took).toHaveBeenCalledExactlyOnceWith({ ph_now: 5.1 });
});

it('asks about a slipped decimal point and stores it when it is kept', async () => {
  const doubt = { status: 409, body: { code: 'doubtful', detail: '0.52? more likely 5.2' } };
  const server = new FakeServer().on(READINGS, doubt, { status: 201, body: {} });
  const desk = new WarmDesk(6, took);
  expect(await desk.read(0.52, null, null, false)).toBe(false);
  expect([desk.question, session.notice]).toEqual(['0.52? more likely 5.2', null]);
  expect(await desk.read(5.2, null, null, false)).toBe(true);
  expect(server.bodies(READINGS)).toMatchObject([{ ph: 0.52 }, { ph: 5.2, sure: false }]);
});

it('does not send a reading twice while it is on its way', async () => {
  const server = new FakeServer().on(READINGS, { status: 201, body: {} });
  const desk = new WarmDesk(6, took);
  const both = await Promise.all([desk.read(5.4, null, null, false), desk.read(5.4, null, null, false)]);
  expect(both).toEqual([true, false]);
  expect(uids(server)).toHaveLength(1);
});

it('notes and strikes, and says what was refused', async () => {
  const server = new FakeServer().on('/api/warm/6/events', { body: {} });
  server.on('/api/warm/readings/3/strike', { body: {} });
  server.on('/api/warm/events/4/strike', {
    status: 409,
    body: { code: 'clash', detail: 'struck through already' },
  });
  const desk = new WarmDesk(6, took);
  expect(await desk.note('spray')).toBe(true);
  await desk.strike('reading', 3, 'the probe was dry');
  await desk.strike('event', 4, 'twice');
  expect(server.bodies('/api/warm/readings/3/strike')).toMatchObject([{ reason: 'the probe was dry' }]);
  expect([took.mock.calls.length, session.notice?.text]).toEqual([2, 'struck through already']);
});
