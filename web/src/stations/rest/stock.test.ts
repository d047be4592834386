import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { clock, keyOf, spoken, urgent } from './stock';

const NOW = Date.parse('2026-11-27T12:00:00Z');
const pack = (changes: Partial<Schema['PackOut']> = {}): Schema['PackOut'] => ({
  id: 7,
  piece_id: 3,
  tag: 'J-20-01',
  batch_id: 1,
  batch: 'J-20',
  product: 'Juniper salame',
  form: 'piece',
  wrap: 'vacuum',
  keep_at: 'fridge',
  place: null,
  packed_at: '2026-11-01T12:00:00Z',
  number: 4,
  left: 3,
  net_g: 120,
  opened: [],
  best_before: null,
  use_by: null,
  period_days: null,
  keeps: 'max_10_c',
  cautions: [],
  note: '',
  by: 'Ida',
  events: [],
  ...changes,
});

describe('a pack on its shelf', () => {
  it('tells how long it may wait', () => {
    expect(clock(pack(), NOW)).toBe('no day');
    expect(clock(pack({ use_by: '2026-12-17T13:00:00Z' }), NOW)).toBe('20 d');
    expect(clock(pack({ use_by: '2026-12-18T13:00:00Z' }), NOW)).toBe('3 wk');
    expect(clock(pack({ use_by: '2026-11-27T11:00:00Z' }), NOW)).toBe('past');
    const opened = [{ number: 1, at: '2026-11-20T12:00:00Z', use_by: '2026-12-04T12:00:00Z' }];
    expect(clock(pack({ use_by: '2026-12-04T12:00:00Z', opened }), NOW)).toBe('opened');
    expect(clock(pack({ id: null }), NOW)).toBe('whole');
  });

  it('wants to be used when it is opened or its day is near', () => {
    expect(urgent(pack(), NOW)).toBe(false);
    expect(urgent(pack({ use_by: '2026-12-05T12:00:00Z' }), NOW)).toBe(false);
    expect(urgent(pack({ use_by: '2026-12-04T11:00:00Z' }), NOW)).toBe(true);
  });

  it('has a key of its own and is told to those who listen', () => {
    expect(keyOf(pack())).toBe('7');
    expect(keyOf(pack({ id: null }))).toBe('piece-3');
    expect(spoken(pack(), NOW)).toBe('3× J-20-01 no day, Juniper salame, piece, fridge');
  });
});
