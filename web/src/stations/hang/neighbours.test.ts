import { describe, expect, it } from 'vitest';

import { firstFreeHook, neighbour, nextTag } from './neighbours';

const pieces = [
  { id: 1, rod: 1, hook: 1 },
  { id: 2, rod: 1, hook: 4 },
  { id: 3, rod: 3, hook: 3 },
];
const rod = { hook_spacing_mm: null, close: [], short_mm: 0 };
const rods = [
  { id: 10, number: 1, hooks: 2, ...rod },
  { id: 11, number: 3, hooks: 4, ...rod },
];

describe('arrow keys', () => {
  it('start at the first piece and stop at the ends', () => {
    expect(neighbour(pieces, null, 'ArrowRight')).toBe(1);
    expect(neighbour(pieces, 1, 'ArrowLeft')).toBe(1);
    expect(neighbour(pieces, 2, 'ArrowRight')).toBe(3);
    expect(neighbour(pieces, 3, 'ArrowDown')).toBe(3);
    expect(neighbour([], null, 'ArrowUp')).toBeNull();
  });
  it('go up and down to the nearest hook, over an empty rod', () => {
    expect(neighbour(pieces, 3, 'ArrowUp')).toBe(2);
    expect(neighbour(pieces, 1, 'ArrowDown')).toBe(3);
  });
});

describe('hooks and tags', () => {
  it('find the first free hook, or none', () => {
    expect(firstFreeHook(rods, pieces)).toEqual({ rod: rods[0], hook: 2 });
    expect(firstFreeHook([rods[0]!], [...pieces, { id: 4, rod: 1, hook: 2 }])).toBeNull();
  });
  it('count a batch on', () => {
    expect(nextTag('J-21', [{ tag: 'J-21-08' }, { tag: 'J-210-40' }])).toBe('J-21-09');
    expect(nextTag('K-1', [])).toBe('K-1-01');
  });
});
