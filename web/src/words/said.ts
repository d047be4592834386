// Sentences that the server sends as a code with its values: its catalogue comes with `make types`; here the values get
// their units and are written as numbers and times are read here.
import type { Schema } from '../api/client';
import { dayAndYear, gramsAsTyped, weekdayAndYear } from '../units/format';
import server from './server.en.json';

type Value = Schema['SaidOut']['values'][string];

const sentences: Record<string, string> = server.sentences;
/** What is named by a code of its own: quantities, states, hurdles; by the name of the value. */
export const names: Record<string, Record<string, string>> = server.names;

function shown(name: string, value: Value | undefined): string {
  if (typeof value !== 'number') return names[name]?.[String(value)] ?? String(value ?? '');
  if (name.endsWith('_day_s')) return dayAndYear(new Date(value * 1000));
  if (name.endsWith('_s')) return weekdayAndYear(new Date(value * 1000));
  return name.endsWith('_g') ? gramsAsTyped(value) : String(value);
}

/** A sentence on its own: begun with a capital, but for pH, and ended with a stop where it has none. */
export function whole(text: string): string {
  const begun = text.startsWith('pH') ? text : text.charAt(0).toUpperCase() + text.slice(1);
  return /[.?!:]$/.test(begun) ? begun : `${begun}.`;
}

/** A sentence in words; a code from a newer server is shown as it is rather than nothing. */
export function said(of: Schema['SaidOut']): string {
  return (sentences[of.code] ?? of.code).replace(/\{(\w+)\}/g, (_, name: string) => {
    const text = shown(name, of.values[name]);
    return name === 'tags' && of.values.more ? `${text} and ${of.values.more} more` : text;
  });
}
