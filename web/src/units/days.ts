// Days in the workshop's time zone: which day a moment falls on, and the noon of a day.

const HOUR_MS = 3_600_000;
export const DAY_MS = 24 * HOUR_MS;

/** The day of a moment, as a date box has it: 2026-12-20. */
export function dayOf(at: string | Date, zone: string): string {
  return new Intl.DateTimeFormat('en-CA', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  }).format(new Date(at));
}

/** Noon of a day in a time zone; null for what is no day. */
export function noonOf(day: string, zone: string): Date | null {
  const utc = new Date(`${day}T12:00:00Z`);
  if (Number.isNaN(utc.getTime())) return null;
  const hour = Number(
    new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', hour12: false }).format(utc),
  );
  const minute = Number(new Intl.DateTimeFormat('en-GB', { timeZone: zone, minute: '2-digit' }).format(utc));
  const away = (hour - 12) * HOUR_MS + (minute > 0 ? minute * 60_000 : 0);
  const noon = new Date(utc.getTime() - away);
  // far from Greenwich that is noon of the day beside it
  const off = Math.round((Date.parse(`${dayOf(noon, zone)}T12:00:00Z`) - utc.getTime()) / DAY_MS);
  return new Date(noon.getTime() - off * DAY_MS);
}

/** So many days later. */
export const daysLater = (at: string | Date, days: number): string =>
  new Date(new Date(at).getTime() + days * DAY_MS).toISOString();

/** Which of some days begins nearest to a moment; 0 of none. */
export function nearest(days: readonly { start: string }[], at: string): number {
  const away = (day: { start: string } | undefined): number =>
    day ? Math.abs(Date.parse(day.start) - Date.parse(at)) : Infinity;
  return days.reduce((best, day, i) => (away(day) < away(days[best]) ? i : best), 0);
}
