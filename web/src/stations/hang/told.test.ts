import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { rowsOf, spanOf } from './told';

const now = Date.UTC(2026, 10, 25, 12);
const window = (p10: string | null, p50: string | null, p90: string | null): Schema['Ready'] => ({
  p10,
  p50,
  p90,
});
const piece = (told: Schema['ToldOut'][], ready: Schema['Ready']): Schema['PieceOut'] =>
  ({ told, card: { ready } }) as unknown as Schema['PieceOut'];
const told = (at: string, ready: Schema['Ready']): Schema['ToldOut'] => ({ at, ready });

const wide = window('2026-12-01T00:00:00Z', '2026-12-11T00:00:00Z', '2027-03-01T00:00:00Z');
const narrow = window('2026-12-08T00:00:00Z', '2026-12-10T00:00:00Z', '2026-12-13T00:00:00Z');

describe('what was told', () => {
  it('ends with what is told now, and counts the later of two of a day', () => {
    const rows = rowsOf(
      piece(
        [
          told('2026-11-02T08:00:00Z', wide),
          told('2026-11-20T08:00:00Z', wide),
          told('2026-11-20T08:05:00Z', narrow),
          told('2026-11-25T08:00:00Z', wide),
        ],
        narrow,
      ),
      now,
    );
    expect(rows.map((row) => [row.at.slice(0, 10), row.ready === narrow, row.now])).toEqual([
      ['2026-11-02', false, false],
      ['2026-11-20', true, false],
      ['2026-11-25', true, true],
    ]);
  });
  it('shows the latest where there are many', () => {
    const many = Array.from({ length: 12 }, (_, i) =>
      told(`2026-11-${String(i + 1).padStart(2, '0')}T08:00:00Z`, wide),
    );
    const rows = rowsOf(piece(many, narrow), now);
    expect(rows).toHaveLength(8);
    expect(rows[0]?.at).toContain('2026-11-06');
  });
  it('is not squeezed by one long tail, and has no span where nothing has a date', () => {
    const span = spanOf(rowsOf(piece([told('2026-11-02T08:00:00Z', wide)], narrow), now));
    expect(span?.[0]).toBe(Date.UTC(2026, 11, 1));
    expect(span?.[1]).toBe(Date.UTC(2026, 11, 23));
    expect(spanOf(rowsOf(piece([], window(null, null, null)), now))).toBeNull();
  });
});
