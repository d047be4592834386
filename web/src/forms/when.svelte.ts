// The moment an entry is of: now unless something else is typed, said back with weekday and year before it is stored.
import { timeZone } from '../units/format';
import { ProblemError } from '../api/client';
import { words } from '../words';
import { readWhen, type Understood } from './when';

// a moment that nothing is derived from
const present = (): Date => new Date();

export class When {
  text = $state('');
  open = $state(false);
  /** Which of two days was meant, where it can be read in two ways. */
  private chosen = $state<string | null>(null);

  readonly understood = $derived<Understood | null>(readWhen(this.text, present(), timeZone()));

  type(text: string): void {
    this.text = text;
    this.chosen = null;
  }

  choose(at: Date): void {
    this.chosen = at.toISOString();
  }

  /** The moment as it is sent; null for now. Throws a ProblemError for what is not understood or still to be chosen. */
  get at(): string | null {
    const said = this.understood;
    if (said === null) return null;
    if ('at' in said) return said.at.toISOString();
    if ('either' in said && this.chosen !== null) return this.chosen;
    throw new ProblemError('when', 'either' in said ? words.when.which : words.when[said.fault], 'at');
  }

  get shown(): string | null {
    try {
      return this.at;
    } catch {
      return null;
    }
  }

  clear(): void {
    this.text = '';
    this.chosen = null;
    this.open = false;
  }
}
