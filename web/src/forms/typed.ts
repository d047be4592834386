// Numbers that may be left out, and the parts of a tare.
import { ProblemError } from '../api/client';
import { typedGrams, typedNumber } from '../units/format';
import { words } from '../words/en';

/** A number as typed, null for nothing. What is no number is refused, never dropped: throws a ProblemError. */
export function optionalNumber(text: string, where: string | null = null): number | null {
  if (text.trim() === '') return null;
  const number = typedNumber(text);
  if (number === null) throw new ProblemError('unread', words.errors.isNoNumber(text.trim()), where);
  return number;
}

/** The same of grams, which millilitres of a liquid are too. */
export function optionalGrams(text: string): number | null {
  if (text.trim() === '') return null;
  const number = typedGrams(text);
  if (number === null) throw new ProblemError('unread', words.errors.isNoNumber(text.trim()), null);
  return number;
}

type Part = 'casing' | 'net' | 'string' | 'coat';

/** The parts of a tare in grams, nothing where nothing is typed. Throws a ProblemError for what is no number. */
export function tareParts(typed: Record<Part, string>): Record<`${Part}_g`, number> {
  return {
    casing_g: optionalNumber(typed.casing) ?? 0,
    net_g: optionalNumber(typed.net) ?? 0,
    string_g: optionalNumber(typed.string) ?? 0,
    coat_g: optionalNumber(typed.coat) ?? 0,
  };
}
