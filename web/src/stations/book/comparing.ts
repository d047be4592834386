// Which batches are laid beside each other, and how a fact is written.
import type { Schema } from '../../api/client';
import { tidyNumber } from '../../units/format';
import { words } from '../../words/en';

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

export const factShown = (value: number | string | null | undefined): string =>
  value === null || value === undefined
    ? words.book.compare.unknown
    : typeof value === 'number'
      ? tidyNumber(value, 2)
      : ((words.casings as Record<string, string>)[value] ?? value);
