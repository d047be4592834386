// What a model tells over time, drawn: its window as a band and the middle of it as a line.
import { area, curveMonotoneX, line } from 'd3-shape';

/** What is told of one moment. */
export interface Told {
  t: Date;
  low: number;
  mid: number;
  high: number;
}

/** Moments with what is told of each, from columns of equal length. */
export function toldOf(at: string[], low: number[], mid: number[], high: number[]): Told[] {
  return at.map((t, i) => ({ t: new Date(t), low: low[i] ?? 0, mid: mid[i] ?? 0, high: high[i] ?? 0 }));
}

/** Paths of a band and of its middle, on whatever the scales are when they are drawn. */
export function paths(
  x: (t: Date) => number,
  y: (value: number) => number,
): { band: (told: Told[]) => string; mid: (told: Pick<Told, 't' | 'mid'>[]) => string } {
  const band = area<Told>(
    (d) => x(d.t),
    (d) => y(d.low),
    (d) => y(d.high),
  ).curve(curveMonotoneX);
  const mid = line<Pick<Told, 't' | 'mid'>>(
    (d) => x(d.t),
    (d) => y(d.mid),
  ).curve(curveMonotoneX);
  return { band: (told) => band(told) ?? '', mid: (told) => mid(told) ?? '' };
}
