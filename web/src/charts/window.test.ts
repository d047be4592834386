import { scaleLinear } from 'd3-scale';
import { describe, expect, it } from 'vitest';

import { paths, toldOf } from './window';

const AT = ['2026-11-01T00:00:00Z', '2026-11-02T00:00:00Z', '2026-11-03T00:00:00Z'];
const DAY_MS = 86_400_000;
const days = (t: Date): number => (t.getTime() - new Date(AT[0] ?? '').getTime()) / DAY_MS;

describe('a window over time', () => {
  it('has each moment with what is told of it', () => {
    expect(
      toldOf(AT, [1, 2, 3], [4, 5, 6], [7, 8, 9]).map((one) => [days(one.t), one.low, one.mid, one.high]),
    ).toEqual([
      [0, 1, 4, 7],
      [1, 2, 5, 8],
      [2, 3, 6, 9],
    ]);
  });

  it('is drawn from low to high, its middle through each moment', () => {
    const { band, mid } = paths(days, (value) => 10 * value);
    const told = toldOf(AT, [0, 1, 2], [1, 2, 3], [2, 3, 4]);
    expect(mid(told)).toMatch(/^M0,10C.*,2,30$/);
    expect(band(told)).toMatch(/^M0,20C.*2,40L2,20C.*0,0Z$/);
    expect([mid([]), band([])]).toEqual(['', '']);
  });

  it('follows scales that change after it was made', () => {
    let y = scaleLinear([0, 1], [0, 100]);
    const { mid } = paths(days, (value) => y(value));
    const told = toldOf(AT.slice(0, 1), [0], [1], [2]);
    const before = mid(told);
    y = scaleLinear([0, 1], [0, 50]);
    expect([before, mid(told)]).toEqual(['M0,100Z', 'M0,50Z']);
  });
});
