// Numbers that may be left out.
import { ProblemError } from '../api/client';
import { typedNumber } from '../units/format';
import { words } from '../words/en';

/** A number as typed, null for nothing. What is no number is refused, never dropped: throws a ProblemError. */
export function optionalNumber(text: string, where: string | null = null): number | null {
  if (text.trim() === '') return null;
  const number = typedNumber(text);
  if (number === null) throw new ProblemError('unread', words.errors.isNoNumber(text.trim()), where);
  return number;
}
