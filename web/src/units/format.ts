// Dates, spans and shares as a maker reads them. Times are shown in the workshop's time zone.
import { words } from '../words';
import { numberText } from './number';
import { shows } from './shows';

let zone = 'UTC';
const cache = new Map<string, Intl.DateTimeFormat>();

export function useTimeZone(name: string): void {
  if (name !== zone) {
    zone = name;
    cache.clear();
  }
}

/** The workshop's time zone, in which every time is shown and read. */
export const timeZone = (): string => zone;

/** The language with the customs of where it is spoken; days come before months. */
export const locale = shows.language === 'en' ? 'en-GB' : shows.language;
const HOURS: Intl.DateTimeFormatOptions =
  shows.hours === '12'
    ? { hour: 'numeric', minute: '2-digit', hour12: true }
    : { hour: '2-digit', minute: '2-digit', hour12: false };

function format(key: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  let made = cache.get(key);
  if (!made) {
    made = new Intl.DateTimeFormat(locale, { timeZone: zone, ...options });
    cache.set(key, made);
  }
  return made;
}

/** A day further away than this is told with its year. */
const YEAR_AFTER_MS = 180 * 86_400_000;
export const longDay = (at: string): string =>
  (Math.abs(new Date(at).getTime() - Date.now()) > YEAR_AFTER_MS
    ? format('long year', { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' })
    : format('long', { weekday: 'long', day: 'numeric', month: 'long' })
  )
    .format(new Date(at))
    .replace(',', '');
export const shortDay = (at: string | number | Date): string =>
  format('short', { day: 'numeric', month: 'short' }).format(new Date(at));
export const dayAndTime = (at: string): string =>
  format('time', { weekday: 'short', day: 'numeric', month: 'short', ...HOURS })
    .format(new Date(at))
    .replace(/,/g, '');
export const timeOfDay = (at: string | number | Date): string =>
  format('hours', { weekday: 'short', ...HOURS })
    .format(new Date(at))
    .replace(/,/g, '');
export const fullDay = (at: string): string =>
  format('full', { day: 'numeric', month: 'short', year: 'numeric' }).format(new Date(at));

/** A moment said back before it is stored: with weekday, year and time. */
export const weekdayAndYear = (at: Date | string): string =>
  format('said', {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    ...HOURS,
  })
    .format(new Date(at))
    .replace(/,/g, '')
    .replace(' at ', ' ');

/** A day with its weekday and year. */
export const dayAndYear = (at: Date | string): string =>
  format('day and year', { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' })
    .format(new Date(at))
    .replace(/,/g, '');

/** The window of a date, in words that repeat the month only where it changes. */
export function dayRange(from: string, to: string): string {
  const month = format('month', { month: 'numeric', year: 'numeric' });
  const year = format('year', { year: 'numeric' });
  const a = new Date(from);
  const b = new Date(to);
  if (year.format(a) !== year.format(b)) return `${fullDay(from)} – ${fullDay(to)}`;
  if (month.format(a) !== month.format(b)) return `${shortDay(a)} – ${shortDay(b)}`;
  const day = format('day', { day: 'numeric' });
  return day.format(a) === day.format(b) ? shortDay(a) : `${day.format(a)}–${shortDay(b)}`;
}

export const percent = (value: number, digits = 1): string => `${numberText(value, digits)}\u00a0%`;

/** Age of a reading, short. */
export function age(at: string, now: number): string {
  const minutes = Math.max(0, Math.round((now - new Date(at).getTime()) / 60_000));
  if (minutes < 90) return `${minutes} min`;
  if (minutes < 48 * 60) return `${Math.round(minutes / 60)} h`;
  return `${Math.round(minutes / 1440)} ${words.dayUnit}`;
}

/** The unit in which a span of days is told, and how many go into a day: hours where it is short. */
export const spanUnit = (days: number): ['hours' | 'days', number] =>
  days < 3 ? ['hours', 24] : ['days', 1];

export const daysSince = (at: string, now: number): number => (now - new Date(at).getTime()) / 86_400_000;

/** This moment, as it is sent. */
export const rightNow = (): string => new Date().toISOString();
