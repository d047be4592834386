// The rows of what was told of a piece, and the span of days they cover.
import type { Schema } from '../../api/client';
import { fullDay } from '../../units/format';

export interface Row {
  at: string;
  ready: Schema['Ready'];
  now: boolean;
}

const SHOWN = 7;

/** What was told, oldest first, and last what is told now; two of one day count as the later, those of today as now. */
export function rowsOf(piece: Schema['PieceOut'], now: number): Row[] {
  const today: Row = { at: new Date(now).toISOString(), ready: piece.card.ready, now: true };
  const byDay = new Map<string, Row>();
  for (const told of piece.told) byDay.set(fullDay(told.at), { ...told, now: false });
  byDay.delete(fullDay(today.at));
  return [...[...byDay.values()].slice(-SHOWN), today];
}

/** From the earliest to the latest day any window reaches; a long tail does not squeeze the rest. Null without dates. */
export function spanOf(rows: Row[]): [number, number] | null {
  const days = (key: 'p10' | 'p50' | 'p90'): number[] =>
    rows.flatMap((row) => (row.ready[key] ? [new Date(row.ready[key]).getTime()] : []));
  const from = Math.min(...days('p10'));
  const middle = Math.max(...days('p50'));
  const to = Math.max(...days('p90'));
  return Number.isFinite(from)
    ? [from, Math.min(to, middle + 1.2 * Math.max(middle - from, 86_400_000))]
    : null;
}
