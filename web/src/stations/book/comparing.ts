// Which batches are laid beside each other, and how a fact is written.
import type { Schema } from '../../api/client';
import { tidyNumber } from '../../units/number';
import { inUnits, quantityOf } from '../../units/quantity';
import { words } from '../../words';

/** The batches that an address names, each once, six at most. */
export const chosen = (text: string | null): number[] =>
  [...new Set((text ?? '').split(',').map(Number))]
    .filter((id) => Number.isInteger(id) && id > 0)
    .slice(0, 6);

/** The fall of pH by hours since the first reading, as a line among others; nothing of fewer than two. */
export function fallOf(name: string, batch: number, ph: Schema['StoryPh'][]) {
  const read = ph
    .filter((r) => !r.struck)
    .map((r) => ({ t: new Date(r.at).getTime(), ph: r.ph }))
    .sort((a, b) => a.t - b.t);
  const begin = read[0]?.t ?? 0;
  return read.length > 1
    ? [{ name, batch, x: read.map((r) => (r.t - begin) / 3_600_000), y: read.map((r) => r.ph) }]
    : [];
}

function inReadersUnits(fact: string, value: number): string {
  const quantity = quantityOf(fact);
  return tidyNumber(quantity === null ? value : inUnits(quantity, value), 2);
}

/** A fact in the units of the reader, which stand beside its name. */
export const factShown = (fact: string, value: number | string | null | undefined): string =>
  value === null || value === undefined
    ? words.book.compare.unknown
    : typeof value === 'number'
      ? inReadersUnits(fact, value)
      : ((words.casings as Record<string, string>)[value] ?? value);
