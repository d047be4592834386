// Sentences that the server sends as a code with its values: its catalogue comes with `make types`; here the values get
// the units of the reader and are written as numbers and times are read here.
import type { Schema } from '../api/client';
import { dayAndYear, weekdayAndYear } from '../units/format';
import { tidyNumber } from '../units/number';
import {
  lengthAsTyped,
  muchWeight,
  perKgText,
  temperatureAsTyped,
  warmthAsTyped,
  weightAsTyped,
} from '../units/quantity';
import { server, words } from './index';

type Value = Schema['SaidOut']['values'][string];

/** What is named by a code of its own: quantities, states, hurdles; by the name of the value. */
export const names: Record<string, Record<string, string>> = server.names;

/** How a value is written: by what follows its name in the sentence, as in `{worst:c}`, or else by how its name ends. */
const WRITTEN: Record<string, (value: number) => string> = {
  g: weightAsTyped,
  mm: lengthAsTyped,
  c: temperatureAsTyped,
  k: warmthAsTyped,
  kg: (value) => muchWeight(value * 1000),
  per_kg: perKgText,
  s: (value) => weekdayAndYear(new Date(value * 1000)),
  day_s: (value) => dayAndYear(new Date(value * 1000)),
};
const ENDINGS = ['day_s', 's', 'g', 'c', 'mm'];
const endOf = (name: string): string => ENDINGS.find((one) => name.endsWith(`_${one}`)) ?? '';

function shown(name: string, value: Value | undefined, way: string | undefined): string {
  if (typeof value !== 'number') {
    const named = names[name]?.[String(value)];
    return named === undefined ? String(value ?? '') : filled(named);
  }
  const write = WRITTEN[way ?? endOf(name)];
  return write ? write(value) : tidyNumber(value, 6);
}

/** A sentence on its own: begun with a capital, but for pH, and ended with a stop where it has none. */
export function whole(text: string): string {
  const begun = text.startsWith('pH') ? text : text.charAt(0).toUpperCase() + text.slice(1);
  return /[.?!:]$/.test(begun) ? begun : `${begun}.`;
}

/** A text of the server with its values; a number in place of a name stands for itself, as in `{5:c}`. */
export const filled = (text: string, values: Record<string, Value | undefined> = {}): string =>
  text.replace(/\{(-?[\w.]+)(?::(\w+))?\}/g, (_, name: string, way: string | undefined) => {
    const number = Number(name);
    const written = shown(name, Number.isNaN(number) ? values[name] : number, way);
    return name === 'tags' && values.more ? words.andMore(written, Number(values.more)) : written;
  });

/** A sentence in words; a code from a newer server is shown as it is rather than nothing. */
export const said = (of: Schema['SaidOut']): string => {
  const sentences: Record<string, string> = server.sentences;
  return filled(sentences[of.code] ?? of.code, of.values);
};
