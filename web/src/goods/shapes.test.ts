import { expect, it } from 'vitest';

import { boxOf, type Figure, outline } from './shapes';

const figures: Figure[] = ['salame', 'links', 'neck', 'round', 'leg', 'belly', 'breast'];

it.each(figures)('draws a %s inside its box, and smaller when it has dried', (figure) => {
  const size = (girth: number): { width: number; height: number } => {
    const numbers = (
      outline(figure, 300, 60, girth)
        .replace(/A\S+ \S+ 0 0 1/g, 'A')
        .match(/-?[\d.]+/g) ?? []
    ).map(Number);
    const xs = numbers.filter((_, i) => i % 2 === 0);
    const ys = numbers.filter((_, i) => i % 2 === 1);
    return { width: Math.max(...xs) - Math.min(...xs), height: Math.max(...ys) };
  };
  const box = boxOf(figure, 300, 60);
  const fresh = size(1);
  const dry = size(0.8);
  expect(fresh.width).toBeLessThanOrEqual(box.width * 1.2);
  expect(dry.height).toBeLessThanOrEqual(fresh.height + 0.5);
  expect(outline(figure, 300, 60, 0.8)).not.toContain('NaN');
});
