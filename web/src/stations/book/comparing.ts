// Which batches are laid beside each other, and how a fact is written.
import { tidyNumber } from '../../units/format';
import { words } from '../../words/en';

/** The batches that an address names, each once, six at most. */
export const chosen = (text: string | null): number[] =>
  [...new Set((text ?? '').split(',').map(Number))]
    .filter((id) => Number.isInteger(id) && id > 0)
    .slice(0, 6);

export const factShown = (value: number | string | null | undefined): string =>
  value === null || value === undefined
    ? words.book.compare.unknown
    : typeof value === 'number'
      ? tidyNumber(value, 2)
      : ((words.casings as Record<string, string>)[value] ?? value);
