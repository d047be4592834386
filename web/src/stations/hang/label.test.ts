import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { spoken, tagText } from './label';

const NOW = Date.parse('2026-11-24T10:00:00Z');
const piece = {
  tag: 'J-21-02', product: 'Juniper salame', rod: 1, hook: 2, state: 'drying', wants: [], loss_percent: 28.4,
  target_loss_percent: 36, pace_percent_per_day: 0.52, hung_at: '2026-10-20T10:00:00Z', last_weighed_at: null,
  days_left: { value: 12, unit: 'd', about: true },
} as unknown as Schema['PieceCard']; // prettier-ignore
const at = (changes: Partial<Schema['PieceCard']>): Schema['PieceCard'] => ({ ...piece, ...changes });

describe('what a tag says', () => {
  it('says the days only where there are days to say', () => {
    expect(tagText(piece, 'days', NOW)).toBe('~12 d');
    expect(tagText(at({ state: 'ready' }), 'days', NOW)).toBe('ready');
    expect(tagText(at({ state: 'over' }), 'days', NOW)).toBe('past');
    expect(tagText(at({ state: 'stalled', days_left: null }), 'days', NOW)).toBe('never');
    expect(tagText(at({ days_left: null }), 'days', NOW)).toBe('never');
  });

  it('says when it was weighed, and tells one hung today from one that was forgotten', () => {
    const weighed = (last_weighed_at: string | null, hung_at = piece.hung_at): string =>
      tagText(at({ last_weighed_at, hung_at }), 'weighed', NOW);
    expect(weighed('2026-11-24T08:00:00Z')).toBe('today');
    expect(weighed('2026-11-14T08:00:00Z')).toContain('10');
    expect(weighed(null, '2026-11-24T06:00:00Z')).not.toBe(weighed(null));
  });

  it('says what a hook does where it was learned', () => {
    const air = { air: 1.46 } as Schema['HookOut'];
    expect(tagText(piece, 'air', NOW, air)).toBe('×1.46');
    expect(tagText(piece, 'air', NOW)).toBe('not seen');
    expect(tagText(piece, 'progress', NOW)).toBe('~28 of 36'); // by the model: nobody weighed it
    const scale = { gross_g: 600 } as Schema['ScaleOut'];
    expect(tagText({ ...piece, scale }, 'progress', NOW)).toBe('28 of 36');
  });

  it('says all of it to those who listen, what it wants too', () => {
    const said = spoken(at({ wants: ['too_fast', 'weigh'] }), NOW);
    for (const part of ['J-21-02', 'Juniper salame', 'rod 1, hook 2', '28 % lost of 36', '~12 d'])
      expect(said).toContain(part);
    expect(said.split(', ').length).toBeGreaterThan(5);
  });
});
