import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { keys } from '../../api/queries';
import { FAMILY, REFERENCE } from '../../testing/bench';
import { inDays } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import IntoSalt from './IntoSalt.svelte';

const way = (id: Schema['WayOut']['id'], changes: Partial<Schema['WayOut']> = {}): Schema['WayOut'] => ({
  id, dose: 'measured', may_be_free: false, name: `the way ${id}`, says: `how ${id}`, clock: 'days by thickness',
  waits: 'may wait', ...changes,
}); // prettier-ignore
const WAYS = [
  way('measured'),
  way('buried', { dose: 'free', waits: 'may not wait' }),
  way('pressed', { may_be_free: true }),
];
const family = (id: string, changes: Partial<Schema['FamilyOut']>): Schema['FamilyOut'] => ({
  ...FAMILY, id, name: id, minced: false, salting: 'measured', salt_percent: 2.8, kind: 'whole_muscle', across_mm: 95,
  ...changes,
}); // prettier-ignore
const OFFERED: Schema['ReferenceOut'] = {
  ...REFERENCE,
  families: [
    family('Neck', {}),
    family('Salame', { minced: true }),
    family('Leg', { salting: 'buried', shape: 'irregular', kind: 'ham' }),
  ],
};
const waits = (changes: Partial<Schema['WaitingBatch']> = {}): Schema['WaitingBatch'] => ({
  across_mm: 92, begun: false, code: 'N-11', geometry: 'cylinder', id: 8, made_at: inDays(-1), meat_g: 4600,
  next_tag: 'N-11-01', percent: 2.75, piece_g: 1500, product: 'Neck', salt_g_per_kg: null, way: 'measured', ...changes,
}); // prettier-ignore
const place = (id: number, kind: Schema['PlaceOut']['kind']): Schema['PlaceOut'] => ({
  id, kind, name: `Place ${id}`, hooks: 0, pieces: 0, air: null, setpoint: null, sort: null, stirring: null,
}); // prettier-ignore
const form = (waiting: Schema['WaitingBatch'][], asked = true): Drawn =>
  drawn(
    IntoSalt,
    {
      salt: { made: [], next_code: 'N-12', pieces: [], waiting, ways: WAYS },
      places: [place(1, 'chamber'), place(2, 'salt')],
      onput: () => undefined,
      onclose: () => undefined,
    },
    asked ? [[keys.reference, OFFERED]] : [],
  );
const selected = (drawing: Drawn): string[] =>
  drawing.all('option[selected]').map((one) => one.text.replace(/\s+/g, ' ').trim());

describe('into the salt', () => {
  it('is not there before it is known what can be salted', () => {
    expect(form([], false).text).toBe('');
  });

  it('takes the batch that waits, with as many muscles as it weighs and its way and dose', () => {
    const found = form([waits()]);
    expect(selected(found)).toEqual(
      expect.arrayContaining(['N-11 · Neck', 'the way measured', 'round', 'Place 2']),
    );
    expect(found.all('fieldset input').map((one) => one.getAttribute('aria-label'))).toEqual([
      'trimmed, g 1', 'diameter, mm 1', 'trimmed, g 2', 'diameter, mm 2', 'trimmed, g 3', 'diameter, mm 3',
    ]); // prettier-ignore
    expect(found.all('fieldset input').map((one) => one.getAttribute('value') ?? '')).toEqual([
      '',
      '92',
      '',
      '92',
      '',
      '92',
    ]);
    expect(found.text).toContain('how measured; days by thickness. may wait.');
    expect(found.text).not.toContain('Goods'); // of a batch of the Bench they are known
  });

  it('of a batch that was begun takes one more', () => {
    const found = form([waits({ begun: true })]);
    expect(found.text).toContain('More of N-11 · Neck');
    expect(found.all('fieldset input')).toHaveLength(2);
  });

  it('a muscle that did not lie on the Bench is asked for its goods, its animal and whether curing salt is in it', () => {
    const found = form([]);
    expect(found.text).toContain('Goods');
    expect(found.texts('select')[1]).toBe('Neck Leg'); // nothing that is minced
    const curing = found.texts('select').find((text) => text.includes('none in it'));
    expect(curing).toBe('say it none in it Short type in it, not weighed');
    expect(selected(found)).not.toContain('none in it'); // nothing is assumed
    expect(found.text).not.toContain('Curing salt, %'); // before it is said that some is
  });

  it('says how much salt is weighed only once there is something to salt', () => {
    expect(form([waits()]).text).not.toContain('of salt, curing salt included');
  });

  it('asks of a dose for the salt, of open salt for what it is to take up', () => {
    expect(form([waits()]).text).toContain('salt, % of the meat');
    const buried = form([waits({ way: 'buried', percent: 6, geometry: 'sphere' })]);
    expect(buried.text).toContain('salt it is to take up, %');
    expect(buried.text).toContain('how buried; days by thickness. may not wait.');
    expect(buried.all('fieldset input')[1]?.getAttribute('aria-label')).toBe('across, mm 1');
  });

  it('more salt than it is to take up can be said of a way that allows it, and of no other', () => {
    const free = 'free salt: more than it is to take up';
    expect(form([waits({ way: 'pressed' })]).text).toContain(free);
    expect(form([waits()]).text).not.toContain(free);
  });
});
