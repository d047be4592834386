// The weeks ahead as a line: where a moment lies on it, the marks of its weeks, and the outline of a batch along it.
import { DAY_MS } from '../../units/days';
import { shows } from '../../units/shows';

export interface Weeks {
  from: number;
  to: number;
  width: number;
}

export const weeksFrom = (now: string, weeks: number, width: number): Weeks => {
  const from = new Date(now).getTime();
  return { from, to: from + weeks * 7 * DAY_MS, width };
};

/** Where a moment lies, in pixels; what lies beyond an end lies at it. */
export const at = (weeks: Weeks, moment: string | number): number => {
  const ms = typeof moment === 'number' ? moment : new Date(moment).getTime();
  const share = (ms - weeks.from) / (weeks.to - weeks.from);
  return Math.min(Math.max(share, 0), 1) * weeks.width;
};

/** How many days so many pixels are, to whole days. */
export const daysOf = (weeks: Weeks, pixels: number): number =>
  Math.round((pixels / weeks.width) * ((weeks.to - weeks.from) / DAY_MS));

/** Where the weeks begin, on the day that the reader begins them, in a time zone's days as good as any: marks to read by. */
export function weekStarts(weeks: Weeks, day = Number(shows.week)): number[] {
  const first = new Date(weeks.from);
  first.setUTCHours(0, 0, 0, 0);
  const missing = (7 + day - first.getUTCDay()) % 7;
  const found: number[] = [];
  for (let ms = first.getTime() + missing * DAY_MS; ms < weeks.to; ms += 7 * DAY_MS)
    if (ms > weeks.from) found.push(ms);
  return found;
}

/** The outline of goods along time: thick where they are fresh, thinner where they are dry. */
export function outline(from: number, to: number, thick: number, thin: number, middle: number): string {
  const end = Math.max(to, from + 10);
  const r = Math.min(5, (end - from) / 2);
  const [a, b] = [thick / 2, thin / 2];
  return (
    `M${from + r},${middle - a} L${end - r},${middle - b} Q${end},${middle - b} ${end},${middle - b + r}` +
    ` L${end},${middle + b - r} Q${end},${middle + b} ${end - r},${middle + b} L${from + r},${middle + a}` +
    ` Q${from},${middle + a} ${from},${middle + a - r} L${from},${middle - a + r}` +
    ` Q${from},${middle - a} ${from + r},${middle - a} Z`
  );
}

/** What a chance is in words that a customer uses: eight times in ten. */
export const tenths = (chance: number): number => Math.round(chance * 10);
