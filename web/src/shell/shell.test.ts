import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

import type { Schema } from '../api/client';
import { keys } from '../api/queries';
import { inDays, NOW, said } from '../testing/cards';
import { type Drawn, drawn } from '../testing/drawn';
import { FakeServer } from '../testing/server';
import Airs from './Airs.svelte';
import Alarms from './Alarms.svelte';
import { confirm } from './confirm.svelte';
import { door } from './door.svelte';
import Notice from './Notice.svelte';
import { session } from './session.svelte';

const ME: Schema['MeOut'] = {
  id: 2, name: 'Ugo', role: 'maker', by_pin: true, has_pin: true, may_keep_house: false, may_sign: true, may_write: true,
  shows: null,
}; // prettier-ignore
const open: Schema['DoorOut'] = { locked: false, me: null, tablet: null, by_pin: [] };

describe('what was done is told', () => {
  beforeEach(() => vi.useFakeTimers());
  afterEach(() => {
    vi.useRealTimers();
    session.notice = null;
  });

  it('for a while, and longer where it can be taken back', () => {
    session.say('612 g for J-21-02');
    vi.advanceTimersByTime(5_900);
    expect(session.notice?.text).toBe('612 g for J-21-02');
    vi.advanceTimersByTime(200);
    expect(session.notice).toBeNull();
    session.say('612 g for J-21-02', async () => undefined);
    vi.advanceTimersByTime(59_000);
    expect(session.notice).not.toBeNull();
    vi.advanceTimersByTime(2_000);
    expect(session.notice).toBeNull();
  });

  it('a fault stays until somebody has seen it', () => {
    session.complain(new Error('No such hook'));
    vi.advanceTimersByTime(600_000);
    expect(session.notice).toMatchObject({ text: 'No such hook', problem: true, undo: null });
  });

  it('is taken back once; what fails on the way is told', async () => {
    const back = vi.fn(() => Promise.reject(new Error('somebody weighed it since')));
    session.say('Taken down', back);
    await session.undo();
    await session.undo();
    expect(back).toHaveBeenCalledTimes(1);
    expect(session.notice?.text).toBe('somebody weighed it since');
  });

  it('stands on the page, loud where it is a fault, with a way back where there is one', () => {
    expect(drawn(Notice, {}).text).toBe('');
    session.say('Taken down', async () => undefined);
    expect(drawn(Notice, {}).texts('button')).toEqual(['Undo u']);
    session.complain(new Error('No such hook'));
    const fault = drawn(Notice, {});
    expect(fault.one('[role=alert]').text).toContain('No such hook');
    expect(fault.label('button')).toBe('Close');
  });
});

describe('who is here', () => {
  it('is kept in this browser; nobody is the maker', () => {
    session.rename('  Ida ');
    expect(localStorage.getItem('zymon.who')).toBe('Ida');
    session.rename('   ');
    expect(session.who).toBe('maker');
  });

  it('alone on the machine one keeps the house; among others whoever may', () => {
    door.take(open);
    expect([door.shut, door.keepsHouse]).toEqual([false, true]);
    door.take({ ...open, locked: true });
    expect([door.shut, door.keepsHouse]).toEqual([true, false]);
    door.take({ ...open, locked: true, me: ME });
    expect([door.shut, door.keepsHouse, session.who]).toEqual([false, false, 'Ugo']);
    door.take({ ...open, locked: true, me: { ...ME, may_keep_house: true } });
    expect(door.keepsHouse).toBe(true);
  });

  it('sends only what was entered under their own name', () => {
    door.take({ ...open, locked: true, me: ME });
    expect([door.sendsFor('Ugo'), door.sendsFor('Ida')]).toEqual([true, false]);
    door.take(open);
    expect(door.sendsFor('Ida')).toBe(true);
  });

  it('is remembered for when there is no connection, and forgotten when they leave', async () => {
    const server = new FakeServer().on('/api/door', { body: { ...open, locked: true, me: ME } });
    await door.look();
    expect(JSON.parse(localStorage.getItem('zymon.me') ?? '')).toMatchObject({ name: 'Ugo' });
    server.on('/api/door', 'unreachable');
    await door.look();
    expect(door.me?.name).toBe('Ugo');
    server.on('/api/sign-out', { body: null }).on('/api/door', { body: { ...open, locked: true } });
    await door.leave();
    expect([door.me, door.shut, localStorage.getItem('zymon.me')]).toEqual([null, true, null]);
  });

  it('an answer that was overtaken tells of before and counts for nothing', async () => {
    const server = new FakeServer().on('/api/door', { body: { ...open, locked: true, me: ME } });
    const slow = door.look();
    server.on('/api/door', { body: { ...open, locked: true, me: null } });
    const late = door.look();
    await Promise.all([slow, late]);
    expect(door.me).toBeNull();
  });
});

describe('a signature', () => {
  it('waits for the passphrase, and tells whoever waits what came of it', async () => {
    const first = confirm.ask();
    const second = confirm.ask();
    expect(confirm.open).toBe(true);
    confirm.answer(false);
    expect([await first, await second, confirm.open]).toEqual([false, false, false]);
    const again = confirm.ask();
    confirm.answer(true);
    expect(await again).toBe(true);
  });
});

describe('the air of each place', () => {
  const place = (changes: Partial<Schema['PlaceOut']> = {}, air: Partial<Schema['AirNow']> | null = {}): Schema['PlaceOut'] => ({
    id: 1, name: 'Cellar', kind: 'chamber', sort: 'cellar', hooks: 20, pieces: 6, setpoint: null, stirring: null,
    air: air && { at: inDays(-0.01), temperature_c: 12.94, rh_percent: 78.4, stale: false, trend_c: 0, trend_rh: 0, ...air },
    ...changes,
  }); // prettier-ignore
  const airs = (...places: Schema['PlaceOut'][]): Drawn => drawn(Airs, { places, placeId: 1, now: NOW });

  it('is told with where it goes', () => {
    expect(airs(place()).texts('.values')).toEqual(['12.9°→ 78 %→']);
    expect(airs(place({}, { trend_c: 0.5, trend_rh: -1.6 })).texts('.values')).toEqual(['12.9°↗ 78 %↘']);
    expect(airs(place({}, { trend_c: -0.41, trend_rh: 1.5 })).texts('.values')).toEqual(['12.9°↘ 78 %→']);
    expect(airs(place({}, { rh_percent: null, trend_rh: null })).texts('.values')).toEqual(['12.9°→']);
  });

  it('that nobody reads any more says so, and one never read too', () => {
    expect(airs(place({}, { stale: true })).text).toContain('readings stopped');
    expect(airs(place({}, { stale: true })).all('.stale')).toHaveLength(1);
    expect(airs(place({}, null)).texts('.values')).toEqual(['no readings']);
  });

  it('leads to its hooks where it has any, else to its log; the one that is shown is marked', () => {
    const both = airs(place(), place({ id: 2, kind: 'salt', name: 'Fridge' }));
    expect(both.all('a').map((one) => one.getAttribute('href'))).toEqual(['/hang/1', '/hang/2/climate']);
    expect(both.all('.chosen')).toHaveLength(1);
  });
});

describe('what is wrong now', () => {
  const alarm = (changes: Partial<Schema['AlarmShort']>): Schema['AlarmShort'] => ({
    id: 1, title: said('today.no_copy'), link: '/house/alarms', urgent: false, ended: false, acknowledged_by: null, ...changes,
  }); // prettier-ignore
  const told = (...alarms: Schema['AlarmShort'][]): Drawn => {
    door.take(open);
    return drawn(Alarms, {}, [[keys.line, { alarms } as Partial<Schema['Line']>]]);
  };

  it('is one line: what nobody has seen before what somebody takes care of', () => {
    const line = told(
      alarm({ acknowledged_by: 'Ida' }),
      alarm({ id: 2, title: said('today.copy_failed', { why: 'rain' }), urgent: true }),
    );
    expect(line.one('[role=alert]').text).toContain('rain');
    expect(line.texts('button')).toEqual(['I take care']);
    expect(line.text).toContain('1 more');
  });

  it('is quiet once somebody takes care, and gone once it is over too', () => {
    const taken = told(alarm({ urgent: true, acknowledged_by: 'Ida' }));
    expect(taken.all('[role=alert]')).toHaveLength(0);
    expect(taken.text).toContain('Ida takes care');
    expect(told(alarm({ ended: true })).text).toContain('(over)');
    expect(told(alarm({ ended: true, acknowledged_by: 'Ida' })).text).toBe('');
    expect(told().text).toBe('');
  });
});
