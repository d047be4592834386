// In which language and units this browser shows and reads: kept in a cookie, so that what the server writes for it
// (labels, records, refusals) is in the same. Chosen before anything is drawn; another choice loads the page anew.

export interface Shows {
  language: string;
  /** Grams and kilograms, or ounces and pounds. */
  mass: 'g' | 'oz';
  temperature: 'C' | 'F';
  length: 'mm' | 'in';
  liquid: 'ml' | 'floz';
  hours: '24' | '12';
  /** Day on which a week begins, as Sunday 0 to Saturday 6. */
  week: '0' | '1' | '6';
}

/** The languages there are a catalogue of, each named in itself. A third is a folder here, one on the server, and a line. */
export const languages: Record<string, string> = { en: 'English', it: 'Italiano' };

export const usual: Shows = {
  language: 'en',
  mass: 'g',
  temperature: 'C',
  length: 'mm',
  liquid: 'ml',
  hours: '24',
  week: '1',
};

const CHOICES: { [K in keyof Shows]: readonly Shows[K][] } = {
  language: Object.keys(languages),
  mass: ['g', 'oz'],
  temperature: ['C', 'F'],
  length: ['mm', 'in'],
  liquid: ['ml', 'floz'],
  hours: ['24', '12'],
  week: ['0', '1', '6'],
};

const COOKIE = 'zymon_shows';
const YEAR_S = 365 * 86_400;

/** What was chosen, from text such as "language=it&mass=oz"; what is missing or unknown stays as it is usual. */
export function readShows(text: string, otherwise: Shows = usual): Shows {
  const typed = new URLSearchParams(text);
  const entries = Object.entries(CHOICES).map(([name, choices]) => {
    const value = typed.get(name);
    const known = value !== null && (choices as readonly string[]).includes(value);
    return [name, known ? value : otherwise[name as keyof Shows]];
  });
  return Object.fromEntries(entries) as unknown as Shows;
}

export const writeShows = (shows: Shows): string => new URLSearchParams({ ...shows }).toString();

/** What a browser that was never asked shows: the language it asks for, where there is one, and metric. */
export function firstShows(asked: readonly string[]): Shows {
  const language = asked.map((one) => one.slice(0, 2).toLowerCase()).find((one) => one in languages);
  return { ...usual, language: language ?? usual.language };
}

function remembered(): Shows {
  if (typeof document === 'undefined') return usual;
  const kept = document.cookie.split('; ').find((one) => one.startsWith(`${COOKIE}=`));
  const first = firstShows(navigator.languages);
  return kept ? readShows(decodeURIComponent(kept.slice(COOKIE.length + 1)), first) : first;
}

/** What is shown until the page is loaded anew. */
export const shows: Shows = remembered();

/**
 * Keep a choice in this browser; true where it differs from what is shown, so that the page must be loaded anew. A browser
 * that keeps no cookies would come back as it went.
 */
export function keepShows(chosen: Shows): boolean {
  const text = encodeURIComponent(writeShows(chosen));
  document.cookie = `${COOKIE}=${text}; path=/; max-age=${YEAR_S}; samesite=lax`;
  return writeShows(remembered()) !== writeShows(shows);
}

// the server writes in the language that a first visit shows, too
if (typeof document !== 'undefined') keepShows(shows);
