// Sentences that the server sends as a code with its values: its catalogue comes with `make types`; here the values get
// the units of the reader and are written as numbers and times are read here.
import type { Schema } from '../api/client';
import { dayAndYear, weekdayAndYear } from '../units/format';
import { tidyNumber } from '../units/number';
import {
  lengthAsTyped,
  muchWeightAsTyped,
  perKgText,
  temperatureAsTyped,
  warmthAsTyped,
  weightAsTyped,
} from '../units/quantity';
import { shows } from '../units/shows';
import { server, words } from './index';

type Value = Schema['SaidOut']['values'][string];

/** What is named by a code of its own: quantities, states, hurdles; by the name of the value. */
export const names: Record<string, Record<string, string>> = server.names;

/** The name of what has a code of its own; the code where nothing names it. */
export function nameOf(kind: string, code: string): string {
  const named = names[kind]?.[code];
  return named === undefined ? code : filled(named);
}

/** All that has a name of a kind: its code and its name. */
export const namesOf = (kind: string): [string, string][] => Object.entries(names[kind] ?? {});

/** How a value is written: by what follows its name in the sentence, as in `{worst:c}`, or else by how its name ends. */
const WRITTEN: Record<string, (value: number) => string> = {
  g: weightAsTyped,
  mm: lengthAsTyped,
  c: temperatureAsTyped,
  k: warmthAsTyped,
  kg: (value) => muchWeightAsTyped(value * 1000),
  per_kg: perKgText,
  s: (value) => weekdayAndYear(new Date(value * 1000)),
  day_s: (value) => dayAndYear(new Date(value * 1000)),
};
const ENDINGS = ['day_s', 's', 'g', 'c', 'mm'];
const endOf = (name: string): string => ENDINGS.find((one) => name.endsWith(`_${one}`)) ?? '';

function shown(name: string, value: Value | undefined, way: string | undefined): string {
  if (typeof value !== 'number') return nameOf(name, String(value ?? ''));
  const write = WRITTEN[way ?? endOf(name)];
  return write ? write(value) : tidyNumber(value, 6);
}

/** A text of a table of the server, such as the name of a family, in the language of the reader. */
export const textOf = (text: string): string => names.text?.[text] ?? text;

/** An answer whose texts of tables are in the language of the reader. */
export function inWords<T>(answer: T): T {
  if (typeof answer === 'string') return textOf(answer) as T;
  if (Array.isArray(answer)) return answer.map(inWords) as T;
  if (answer === null || typeof answer !== 'object') return answer;
  return Object.fromEntries(Object.entries(answer).map(([key, value]) => [key, inWords(value)])) as T;
}

/** A sentence on its own: begun with a capital, but for pH, and ended with a stop where it has none. */
export function whole(text: string): string {
  const begun = text.startsWith('pH') ? text : text.charAt(0).toUpperCase() + text.slice(1);
  return /[.?!:]$/.test(begun) ? begun : `${begun}.`;
}

const GAP = /\{(-?[\w.]+)(?::(\w+)|\|([^|{}]*)\|([^|{}]*))?\}/g;
const plurals = new Intl.PluralRules(shows.language);
/** The unit of a limit, as the server names it, where the reader has another one for it. */
const WAY_OF_UNIT: Record<string, string> = { g: 'g', kg: 'kg', mm: 'mm', '°C': 'c' };
const LIMITS = ['low', 'high', 'value'];
const metric = shows.mass === 'g' && shows.temperature === 'C' && shows.length === 'mm';

/**
 * A text of the server with its values: a number in place of a name stands for itself, as in `{5:c}`, and words go with
 * a number's plural, as in `{n|piece|pieces}`.
 */
export function filled(text: string, given: Record<string, Value | undefined> = {}): string {
  const limits = metric ? undefined : WAY_OF_UNIT[String(given.unit ?? '').trim()];
  const values = limits ? { ...given, unit: '' } : given;
  return text.replace(GAP, (_, name: string, way?: string, one?: string, other?: string) => {
    if (one !== undefined) return (plurals.select(Number(values[name])) === 'one' ? one : other) ?? '';
    const number = Number(name);
    const value = Number.isNaN(number) ? values[name] : number;
    const written = shown(name, value, way ?? (LIMITS.includes(name) ? limits : undefined));
    return name === 'tags' && values.more ? words.andMore(written, Number(values.more)) : written;
  });
}

/** A sentence in words; a code from a newer server is shown as it is rather than nothing. */
export const said = (of: Schema['SaidOut']): string => {
  const sentences: Record<string, string> = server.sentences;
  return filled(sentences[of.code] ?? of.code, of.values);
};
