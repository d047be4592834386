// How a hurdle stands and what it measured, in words: of a batch here, or of a file.
import type { Schema } from '../../api/client';
import { tidyNumber } from '../../units/number';
import { temperatureText } from '../../units/quantity';
import { words } from '../../words';
import { nameOf } from '../../words/said';

const say = words.ledger;

/** A value with its unit; nothing where there is none. A word of the ledger is told by its name. */
export function figure(value: number | string | null, unit: string, digits = unit === '' ? 3 : 1): string {
  if (value === null) return '';
  if (typeof value === 'string') return nameOf('figure', value);
  if (unit === '°C') return temperatureText(value, digits).replace(/[.,]0+ /, ' ');
  return `${tidyNumber(value, digits)}${unit ? `\u00a0${unit}` : ''}`;
}

interface Hurdle extends Pick<Schema['HurdleOut'], 'state' | 'known'> {
  cautions: unknown[];
}

/** How it stands: passed is not the same as measured, nor as free of cautions. */
export function standing(hurdle: Hurdle): string {
  if (hurdle.state === 'pass' && hurdle.known === 'not known') return say.nothingAgainst;
  if (hurdle.state === 'pass' && hurdle.cautions.length) return say.passedWith;
  return say.states[hurdle.state] ?? hurdle.state;
}
