// Every text on screen, in the language that this browser shows: only that language is fetched, before anything is drawn.
import { shows } from '../units/shows';
import type { server as inEnglishByServer, words as inEnglish } from './en';

/** A catalogue of the shape of the English one, with words of its own. */
type Wording<T> = T extends (...given: infer Given) => string
  ? (...given: Given) => string
  : T extends string
    ? string
    : { [K in keyof T]: Wording<T[K]> };
export type Words = Wording<typeof inEnglish>;
interface Catalogue {
  words: Words;
  /** The sentences that the server sends as codes, and names of what is named by a code. */
  server: Wording<typeof inEnglishByServer>;
}

const english = (): Promise<Catalogue> => import('./en');
const catalogues: Record<string, () => Promise<Catalogue>> = {
  en: english,
  it: () => import('./it'),
};

export const { words, server } = await (catalogues[shows.language] ?? english)();
