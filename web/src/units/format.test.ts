import { expect, it } from 'vitest';

import { age, dayRange, longDay, spanUnit, useTimeZone } from './format';

it('writes days in the zone of the workshop', () => {
  useTimeZone('Europe/Rome');
  expect(longDay('2026-10-14T23:30:00Z')).toBe('Thursday 15 October');
  useTimeZone('UTC');
  expect(longDay('2026-10-14T23:30:00Z')).toBe('Wednesday 14 October');
});

it('says a window shortly', () => {
  expect(dayRange('2026-10-11T00:00:00Z', '2026-10-21T00:00:00Z')).toBe('11–21 Oct');
  expect(dayRange('2026-10-29T00:00:00Z', '2026-11-07T00:00:00Z')).toBe('29 Oct – 7 Nov');
  expect(dayRange('2026-10-11T01:00:00Z', '2026-10-11T09:00:00Z')).toBe('11 Oct');
});

it('writes ages', () => {
  const now = Date.parse('2026-10-11T12:00:00Z');
  expect(age('2026-10-11T11:58:00Z', now)).toBe('2 min');
  expect(age('2026-10-10T12:00:00Z', now)).toBe('24 h');
  expect(age('2026-10-01T12:00:00Z', now)).toBe('10 d');
});

it('tells a short window in hours', () => {
  expect(spanUnit(16.2)).toEqual(['days', 1]);
  expect(spanUnit(1.2)).toEqual(['hours', 24]);
});
