import { describe, expect, it } from 'vitest';

import { at, daysOf, weekStarts, outline, weeksFrom } from './weeks';

describe('the weeks ahead', () => {
  const weeks = weeksFrom('2026-11-28T09:00:00Z', 12, 840);

  it('a day is ten pixels here', () => {
    expect(at(weeks, '2026-11-28T09:00:00Z')).toBe(0);
    expect(at(weeks, '2026-12-05T09:00:00Z')).toBeCloseTo(70);
    expect(daysOf(weeks, 34)).toBe(3);
    expect(daysOf(weeks, -36)).toBe(-4);
  });

  it('what lies beyond its ends lies at them', () => {
    expect(at(weeks, '2025-01-01T00:00:00Z')).toBe(0);
    expect(at(weeks, '2029-01-01T00:00:00Z')).toBe(840);
  });

  it('marks each Monday ahead', () => {
    const marks = weekStarts(weeks).map((ms) => new Date(ms).toISOString().slice(0, 10));
    expect(marks[0]).toBe('2026-11-30');
    expect(marks).toHaveLength(12);
    expect(weekStarts(weeksFrom('2026-11-30T09:00:00Z', 2, 1)).map((ms) => new Date(ms).getUTCDay())).toEqual(
      [1, 1],
    );
  });

  it('goods have a body however short their time', () => {
    expect(outline(10, 10, 16, 10, 20)).toContain('20,');
    expect(outline(10, 200, 16, 10, 20)).toMatch(/^M15,12 L195,15/);
  });
});
