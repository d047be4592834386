// Numbers that may be left out, and the parts of a tare.
import { ProblemError } from '../api/client';
import { typedNumber } from '../units/number';
import { type Quantity, typedAs } from '../units/quantity';
import { words } from '../words';

/** A number as typed, null for nothing. What is no number is refused, never dropped: throws a ProblemError. */
export function optionalNumber(text: string, where: string | null = null): number | null {
  if (text.trim() === '') return null;
  const number = typedNumber(text);
  if (number === null) throw new ProblemError('unread', words.errors.isNoNumber(text.trim()), where);
  return number;
}

/** The same of a weight, a temperature, a length, in the units of whoever types, as it is kept. */
export function optionalAs(quantity: Quantity, text: string, where: string | null = null): number | null {
  if (text.trim() === '') return null;
  const number = typedAs(quantity, text);
  if (number === null) throw new ProblemError('unread', words.errors.isNoNumber(text.trim()), where);
  return number;
}

type Part = 'casing' | 'net' | 'string' | 'coat';

/** The parts of a tare in grams, nothing where nothing is typed. Throws a ProblemError for what is no number. */
export function tareParts(typed: Record<Part, string>): Record<`${Part}_g`, number> {
  return {
    casing_g: optionalAs('mass', typed.casing) ?? 0,
    net_g: optionalAs('mass', typed.net) ?? 0,
    string_g: optionalAs('mass', typed.string) ?? 0,
    coat_g: optionalAs('mass', typed.coat) ?? 0,
  };
}
