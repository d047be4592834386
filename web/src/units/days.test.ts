import { describe, expect, it } from 'vitest';

import { dayOf, daysLater, nearest, noonOf } from './days';

describe('days of the workshop', () => {
  it.each([
    ['Europe/Rome', '2026-12-20T11:00:00.000Z'],
    ['Europe/Rome', '2026-07-20T10:00:00.000Z'],
    ['UTC', '2026-12-20T12:00:00.000Z'],
    ['America/New_York', '2026-12-20T17:00:00.000Z'],
    ['Asia/Kolkata', '2026-12-20T06:30:00.000Z'],
    ['Pacific/Auckland', '2026-12-19T23:00:00.000Z'],
    ['Pacific/Kiritimati', '2026-12-19T22:00:00.000Z'],
  ])('noon in %s is %s', (zone, noon) => {
    const day = noon.includes('-07-') ? '2026-07-20' : '2026-12-20';
    expect(noonOf(day, zone)?.toISOString()).toBe(noon);
    expect(dayOf(noon, zone)).toBe(day);
  });

  it('is none of what is no day', () => {
    expect(noonOf('', 'UTC')).toBeNull();
    expect(noonOf('2026-13-40', 'UTC')).toBeNull();
  });

  it('counts days', () => {
    expect(daysLater('2026-12-20T11:00:00Z', -7)).toBe('2026-12-13T11:00:00.000Z');
  });

  it('finds the day nearest to a moment', () => {
    const days = ['2026-12-01T12:00:00Z', '2026-12-02T12:00:00Z', '2026-12-03T12:00:00Z'].map((start) => ({
      start,
    }));
    expect(nearest(days, '2026-12-02T20:00:00Z')).toBe(1);
    expect(nearest(days, '2027-12-02T20:00:00Z')).toBe(2);
    expect(nearest([], '2026-12-02T20:00:00Z')).toBe(0);
  });
});
