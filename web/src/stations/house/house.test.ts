import { afterEach, beforeEach, describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { keys } from '../../api/queries';
import { door } from '../../shell/door.svelte';
import { inDays } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import Copies from './Copies.svelte';
import Disk from './Disk.svelte';
import PersonRow from './PersonRow.svelte';
import BandRow from './alarms/BandRow.svelte';
import ToldPeople from './alarms/ToldPeople.svelte';

const ALONE: Schema['DoorOut'] = { locked: false, me: null, tablet: null, by_pin: [] };
const OWNER: Schema['MeOut'] = {
  id: 1, name: 'Ida', role: 'owner', by_pin: false, has_pin: false, may_keep_house: true, may_sign: true, may_write: true,
  shows: null,
}; // prettier-ignore
const helper: Schema['DoorOut'] = {
  ...ALONE,
  locked: true,
  me: { ...OWNER, id: 3, role: 'helper', may_keep_house: false },
};
beforeEach(() => door.take(ALONE));
afterEach(() => door.take(ALONE));

describe('the copies of the record', () => {
  const copies = (changes: Partial<Schema['CopiesOut']> = {}): Drawn =>
    drawn(Copies, {}, [[keys.copies, {
      copies: [{ name: 'a.db', at: inDays(-0.3), bytes: 12_400_000 }], failed: null, file: '/data/zymon.db', folder: '/data/copies',
      kept_days: 14, kept_weeks: 8, nightly: true, old: false, took_s: 0.4, ...changes,
    } satisfies Schema['CopiesOut']]]); // prettier-ignore

  it('are told with the last one, where they lie and how long they are kept', () => {
    const told = copies();
    expect(told.all('ol li')).toHaveLength(1);
    expect(told.text).toContain('/data/copies');
    expect(told.all('.text-warning, [role=alert]')).toHaveLength(0);
  });

  it('that are old, failed or not there are told so', () => {
    expect(copies({ old: true }).all('p.text-warning')).toHaveLength(1);
    expect(copies({ failed: 'no room' }).texts('[role=alert]')[0]).toContain('no room');
    expect(copies({ copies: [] }).all('ol li')).toHaveLength(0);
    expect(copies({ nightly: false }).text).not.toContain('14');
  });

  it('are made and taken out by whoever keeps the house', () => {
    expect(copies().all('a[download]')).toHaveLength(1);
    door.take(helper);
    expect(copies().all('a[download], button')).toHaveLength(0);
  });
});

describe('the room that the record takes', () => {
  const disk = (changes: Partial<Schema['DiskOut']> = {}): Drawn =>
    drawn(Disk, {}, [[['disk'], {
      copies: 9, copies_bytes: 9e7, failed: null, free_bytes: 4e10, full_since: inDays(-400), readings: 1_234_567,
      record_bytes: 2e8, share_done: null, thinnings: [], unused_bytes: 0, would_free_bytes: 5e7, would_go: 0, ...changes,
    } satisfies Schema['DiskOut']]]); // prettier-ignore
  const thinning = (changes: Partial<Schema['ThinningOut']> = {}): Schema['ThinningOut'] => ({
    at: inDays(-9), before: inDays(-400), by: 'Ida', ended: inDays(-9), readings_before: 500_000, readings_after: 100_000, ...changes,
  }); // prettier-ignore

  it('is told in figures that can be read', () => {
    expect(disk().texts('dd')[1]).toBe('1 234 567');
    expect(disk().all('button')).toHaveLength(0);
  });

  it('offers to thin what is old only where something would go, to whoever keeps the house', () => {
    expect(disk({ would_go: 900_000 }).all('button')).toHaveLength(1);
    door.take(helper);
    expect(disk({ would_go: 900_000 }).all('button')).toHaveLength(0);
  });

  it('shows how far thinning is, and asks to go on with one that was broken off', () => {
    expect(disk({ share_done: 0.42, would_go: 9 }).texts('[role=status]')[0]).toContain('42');
    expect(disk({ share_done: 0.42, would_go: 9 }).all('button')).toHaveLength(0);
    const broken = disk({ thinnings: [thinning({ ended: null })], failed: 'no room' });
    expect(broken.all('p.text-warning')).toHaveLength(1);
    expect(broken.texts('[role=alert]')[0]).toContain('no room');
    expect(broken.all('button')).toHaveLength(1);
  });

  it('keeps in mind what was thinned, by whom; empty room only where it is much', () => {
    expect(disk({ thinnings: [thinning()] }).texts('p.quiet')[0]).toContain('Ida');
    expect(disk({ unused_bytes: 1e7 }).texts('dd')[0]).not.toContain(',');
    expect(disk({ unused_bytes: 1.1e7 }).texts('dd')[0]).toContain(',');
  });
});

describe('a person of the house', () => {
  const row = (changes: Partial<Schema['PersonOut']> = {}, keeps = true): Drawn =>
    drawn(PersonRow, {
      person: { id: 2, name: 'Ugo', role: 'maker', has_passphrase: true, has_pin: false, made_at: inDays(-90), made_by: 'Ida', ended_at: null, ended_by: null, waits_until: null, ...changes },
      keeps, done: async () => undefined,
    }); // prettier-ignore
  it('is told with what they may, and by whom they were let in', () => {
    expect(row().text).toContain('Maker Ugo');
    expect(row().text).toContain('by Ida');
    expect(row({ has_pin: true }).text).toContain('has a PIN');
    expect(row({ has_passphrase: false }).all('strong.text-warning')).toHaveLength(1);
    expect(row({ waits_until: inDays(0.01) }).text).toContain('too many wrong tries');
  });
  it('is changed by an owner who signed in, who cannot end themselves', () => {
    expect(row().all('select')).toHaveLength(0); // alone on the machine nobody signs in
    door.take({ ...ALONE, locked: true, me: OWNER });
    expect(row().texts('button').join()).toContain('Works here no more');
    expect(row({ id: 1 }).texts('button').join()).not.toContain('Works here no more');
    expect(row({}, false).all('select, button')).toHaveLength(0);
    expect(row({ role: 'helper' }).one('option[selected]').text).toBe('Helper');
  });
});

describe('what is watched at a place', () => {
  const band = (changes: Partial<Schema['BandOut']>): string =>
    drawn(BandRow, {
      band: {
        place: 'Cellar', place_id: 1, by: 'Ida', for_minutes: 90, frost: true, silent_minutes: 120, door_minutes: null,
        low_c: null, high_c: null, low_rh: null, high_rh: null, usual: { for_minutes: 60, frost: true, silent_minutes: 60 }, ...changes,
      },
    }).text; // prettier-ignore
  it.each<[Partial<Schema['BandOut']>, string]>([
    [{ low_c: 10, high_c: 15.5 }, '10–15.5 °C'],
    [{ low_c: 10 }, 'from 10 °C'],
    [{ high_c: 16 }, 'up to 16 °C'],
    [{ low_c: 10, high_c: 15, high_rh: 85 }, '10–15 °C, up to 85 %'],
    [{ low_c: 0 }, 'from 0 °C'],
    [{}, 'no limits yet'],
  ])('%o is told as %s', (limits, told) => {
    expect(band(limits)).toContain(told);
  });
  it('says after how long, and what is watched besides', () => {
    expect(band({ low_c: 10 })).toContain('told after 90 min · frost · silent for 120 min');
    expect(band({})).not.toContain('told after');
    expect(band({ frost: false, silent_minutes: null, door_minutes: 15 })).toContain('door for 15 min');
    expect(band({ frost: false })).not.toContain('frost');
  });
});

describe('who is told', () => {
  const told = (people: Partial<Schema['TellOut']>[], ways: Schema['AlarmsOut']['ways'] = ['call']): Drawn =>
    drawn(ToldPeople, {
      all: {
        people: people.map((one, i) => ({ id: i, name: 'Ugo', way: 'mail', address: 'ugo@cellar.test', quiet_from: null, quiet_to: null, second: false, secret: null, woken: true, ...one })),
        ways, push_key: null,
      } as unknown as Schema['AlarmsOut'],
    }); // prettier-ignore
  it('is nobody at first, and then said with their quiet hours', () => {
    expect(told([]).text).toContain('Nobody is told yet');
    expect(told([{ quiet_from: 22 * 60 + 5, quiet_to: 390 }]).text).toContain(
      'quiet 22:05–06:30, woken by what cannot wait',
    );
    expect(told([{ quiet_from: 1320, quiet_to: 390, woken: false }]).text).not.toContain('woken by');
    expect(told([{ second: true }]).text).toContain('only when nobody takes care within half an hour');
  });
  it('says which ways there are not yet, and is changed by whoever keeps the house', () => {
    expect(told([]).text).toContain('ZYMON_SMTP');
    expect(told([], ['mail', 'call', 'push']).text).not.toContain('ZYMON_SMTP');
    door.take(helper);
    expect(told([{}]).all('button, form')).toHaveLength(0);
  });
});
