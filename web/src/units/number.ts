// Numbers as they are written and typed: the mark between the whole and its parts is that of the language.
import { shows } from './shows';

const mark = (1.5).toLocaleString(shows.language).charAt(1);

/** A number with so many digits after its mark; thousands set apart where a sign for that is given. */
export function numberText(value: number, digits: number, apart = ''): string {
  const [whole = '', parts] = Math.abs(value).toFixed(digits).split('.');
  const grouped = apart && whole.length > 3 ? whole.replace(/\B(?=(\d{3})+$)/g, apart) : whole;
  const text = parts ? `${grouped}${mark}${parts}` : grouped;
  // what rounds to nothing has no sign
  return value < 0 && /[1-9]/.test(text) ? `\u2212${text}` : text;
}

/** A number without useless zeros. */
export const tidyNumber = (value: number, digits: number): string =>
  String(Number(value.toFixed(digits))).replace('.', mark);

/** A number as typed: decimal comma accepted; null when it is none. */
export function typedNumber(text: string): number | null {
  const tidy = text.trim().replace(/\s/g, '').replace(',', '.').replace('\u2212', '-');
  if (tidy === '' || !/^-?\d*\.?\d+$|^-?\d+\.$/.test(tidy)) return null;
  return Number(tidy);
}
