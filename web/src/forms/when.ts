// A moment as people say it, read in the workshop's time zone: "yesterday 18:00", "12 Oct", "2026-10-12 7:30".
// Works without a connection. What can be read in two ways is asked, never guessed.

import { words } from '../words';

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const DAYS = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat'];
/** Of a day without a time: the morning, as it is said beside it. */
const MORNING: Time = { hour: 9, minute: 0 };
const DAY_MS = 86_400_000;
/** By which a clock may be ahead and it still counts as now. */
const AHEAD_MS = 5 * 60_000;

interface Day {
  year: number;
  month: number;
  day: number;
}
interface Time {
  hour: number;
  minute: number;
}

/** Understood; or one of two days, to be asked; or not understood. */
export type Understood = { at: Date } | { either: [Date, Date] } | { fault: 'unread' | 'no_such_day' };

export function readWhen(
  text: string,
  now: Date,
  zone: string,
  reads: (typed: string) => string = words.when.reads,
): Understood | null {
  const typed = text.trim().toLowerCase().replace(/,/g, ' ').replace(/\s+/g, ' ');
  const said = reads(typed);
  if (said === '' || said === 'now') return null;
  const iso = /^\d{4}-\d{2}-\d{2}t\d{2}:\d{2}(:\d{2}(\.\d+)?)?(z|[+-]\d{2}:?\d{2})$/.test(said);
  if (iso) return { at: new Date(said.toUpperCase()) };
  const ago = /^(\d+) ?(min|minutes?|h|hours?|d|days?|weeks?) ago$/.exec(said);
  if (ago) return { at: new Date(now.getTime() - Number(ago[1]) * spanOf(ago[2] ?? '')) };
  const [rest, time] = splitTime(said);
  if (time === undefined) return { fault: 'unread' };
  return readDay(rest, time, now, zone);
}

function spanOf(unit: string): number {
  if (unit.startsWith('min')) return 60_000;
  if (unit.startsWith('h')) return 3_600_000;
  return unit.startsWith('w') ? 7 * DAY_MS : DAY_MS;
}

/** What is left of the text without its time, and the time; undefined where a time cannot be. */
function splitTime(said: string): [string, Time | null | undefined] {
  const found =
    /(?:^| )(?:at )?(\d{1,2})[:.h](\d{2})(?: ?([ap])m)?$/.exec(said) ??
    /(?:^| )(?:at )?(\d{1,2})() ?([ap])m$/.exec(said);
  // "12.10" alone is a day, "12.10 7:30" a day and a time
  if (!found || (/^\d{1,2}\.\d{1,2}$/.test(said) && Number(found[2]) <= 12)) return [said, null];
  let hour = Number(found[1]);
  const minute = Number(found[2] || 0);
  if (found[3] === 'p' && hour < 12) hour += 12;
  if (found[3] === 'a' && hour === 12) hour = 0;
  if (hour > 23 || minute > 59) return [said, undefined];
  return [said.slice(0, found.index).trim(), { hour, minute }];
}

function readDay(said: string, time: Time | null, now: Date, zone: string): Understood {
  const today = dayIn(now, zone);
  const at = (day: Day, of: Time | null = time): Date => moment(day, of ?? MORNING, zone);
  if (said === '' || said === 'today') {
    if (time === null) return { at: now };
    // the time alone: today's, or yesterday's where that is still to come
    const found = at(today);
    return { at: said === '' && found.getTime() > now.getTime() + AHEAD_MS ? at(shift(today, -1)) : found };
  }
  if (said === 'yesterday') return { at: at(shift(today, -1)) };
  if (said === 'the day before yesterday') return { at: at(shift(today, -2)) };
  const weekday = /^(?:last |on )?(sun|mon|tue|wed|thu|fri|sat)[a-z]*$/.exec(said);
  if (weekday) {
    const back = (7 + weekdayOf(today) - DAYS.indexOf(weekday[1] ?? '')) % 7 || 7;
    return { at: at(shift(today, -back)) };
  }
  const numbers = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/.exec(said);
  if (numbers)
    return plain({ year: Number(numbers[1]), month: Number(numbers[2]), day: Number(numbers[3]) }, at);
  const named =
    /^(\d{1,2})\.? ?(?:of )?([a-z]{3,9})\.?(?: (\d{4}|\d{2}))?$/.exec(said) ??
    swapped(/^([a-z]{3,9})\.? (\d{1,2})(?:st|nd|rd|th)?(?: (\d{4}))?$/.exec(said));
  if (named) {
    const month = MONTHS.indexOf((named[2] ?? '').slice(0, 3)) + 1;
    if (month === 0) return { fault: 'unread' };
    return plain(withYear(Number(named[1]), month, named[3], today), at);
  }
  const parts = /^(\d{1,2})([/.-])(\d{1,2})(?:[/.-](\d{4}|\d{2})?)?\.?$/.exec(said);
  if (!parts) return { fault: 'unread' };
  const [first, second] = [Number(parts[1]), Number(parts[3])];
  const dayFirst = plain(withYear(first, second, parts[4], today), at);
  // a full stop is written after the day; a stroke is written either way
  if (parts[2] === '.' || first === second || second > 12) {
    return second > 12 ? plain(withYear(second, first, parts[4], today), at) : dayFirst;
  }
  const monthFirst = plain(withYear(second, first, parts[4], today), at);
  if ('at' in dayFirst && 'at' in monthFirst) return { either: [dayFirst.at, monthFirst.at] };
  return dayFirst;
}

const swapped = (found: RegExpExecArray | null): (string | undefined)[] | null =>
  found && [found[0], found[2], found[1], found[3]];

function plain(day: Day, at: (day: Day) => Date): Understood {
  const there = new Date(Date.UTC(day.year, day.month - 1, day.day));
  const real = there.getUTCMonth() === day.month - 1 && there.getUTCDate() === day.day;
  return real ? { at: at(day) } : { fault: 'no_such_day' };
}

/** A day without a year is the last one of that name. */
function withYear(day: number, month: number, year: string | undefined, today: Day): Day {
  if (year) return { year: Number(year) + (year.length === 2 ? 2000 : 0), month, day };
  const later = month > today.month || (month === today.month && day > today.day);
  return { year: today.year - (later ? 1 : 0), month, day };
}

function shift(day: Day, days: number): Day {
  const moved = new Date(Date.UTC(day.year, day.month - 1, day.day + days));
  return { year: moved.getUTCFullYear(), month: moved.getUTCMonth() + 1, day: moved.getUTCDate() };
}

const weekdayOf = (day: Day): number => new Date(Date.UTC(day.year, day.month - 1, day.day)).getUTCDay();

function partsIn(at: Date, zone: string): Record<string, number> {
  const format = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
    hour: 'numeric',
    minute: 'numeric',
    hourCycle: 'h23',
  });
  return Object.fromEntries(format.formatToParts(at).map((part) => [part.type, Number(part.value)]));
}

function dayIn(at: Date, zone: string): Day {
  const { year = 0, month = 1, day = 1 } = partsIn(at, zone);
  return { year, month, day };
}

/** The moment of a day and time in a zone; an hour that a clock change leaves out is taken an hour later. */
function moment(day: Day, time: Time, zone: string): Date {
  const wanted = Date.UTC(day.year, day.month - 1, day.day, time.hour, time.minute);
  let found = wanted;
  for (let i = 0; i < 2; i++) {
    const p = partsIn(new Date(found), zone);
    const shown = Date.UTC(p.year ?? 0, (p.month ?? 1) - 1, p.day ?? 1, p.hour ?? 0, p.minute ?? 0);
    found += wanted - shown;
  }
  return new Date(found);
}
