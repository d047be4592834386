import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { inDays, NOW, said } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import StockPanel from './StockPanel.svelte';

describe('a pack closely', () => {
  const pack = (changes: Partial<Schema['PackOut']> = {}): Drawn =>
    drawn(StockPanel, {
      pack: {
        id: 5, piece_id: 7, tag: 'J-21-02', batch: 'J-21', batch_id: 3, product: 'Juniper salame', form: 'piece', wrap: 'vacuum',
        number: 4, left: 3, net_g: 152.6, note: '', by: 'Ida', place: null, keep_at: 'fridge', keeps: 'max_10_c',
        packed_at: inDays(-10), period_days: 60, best_before: inDays(50), use_by: inDays(50), opened: [], events: [], cautions: [],
        ...changes,
      },
      now: NOW, onclose: () => undefined,
    }); // prettier-ignore

  it('says how many are left of how many, of which weight, and since when', () => {
    expect(pack().text).toContain('3 of 4 × 153 g');
    expect(pack({ left: 4 }).text).toContain('4 × 153 g');
    expect(pack({ net_g: null }).text).toContain('× not weighed');
    expect(pack().text).toContain('piece, vacuum, fridge · packed 14 Nov, 10 days ago');
    expect(pack({ place: 'Cold room' }).text).toContain('Cold room ·');
  });

  it('says until when by whose period, and by estimate how it keeps', () => {
    expect(pack().text).toContain('Best before 13 Jan 2027.');
    expect(pack().text).toContain('by your own period of 60 days · by estimate it keeps at 10 °C at most');
    const unknown = pack({ best_before: null, use_by: null, period_days: null, keeps: null });
    expect(unknown.text).toContain('No best-before day given.');
    expect(unknown.text).toContain('how it keeps is not known');
    expect(unknown.text).not.toContain('period');
  });

  it('opened says until when it is to be used; cautions stand with it', () => {
    const opened = pack({
      opened: [{ number: 1, at: inDays(-2), use_by: inDays(12) }],
      cautions: [said('caution.listeria')],
    });
    expect(opened.texts('.text-warning')[0]).toBe('1 opened 22 Nov, use until 6 Dec.');
    expect(opened.text).toContain('Estimated: listeria can still grow. Below 5 °C, and eat soon.');
  });

  it('keeps what became of the others, the struck ones with the reason', () => {
    const out: Schema['PackEventOut'] = {
      id: 1, at: inDays(-3), by: 'Ugo', kind: 'out', how: 'sold', note: '', number: 1, struck_reason: null, to_whom: 'the inn',
    }; // prettier-ignore
    const told = pack({ events: [out, { ...out, id: 2, struck_reason: 'it came back' }] });
    expect(told.text).toContain('the inn');
    expect(told.text).toContain('it came back');
    expect(told.all('.line-through')).toHaveLength(1);
  });
});
