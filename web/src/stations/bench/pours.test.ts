import { describe, expect, it } from 'vitest';

import { tidyNumber } from '../../units/number';
import { gramDigits, recipeNumber } from '../../units/quantity';
import { isFar } from './pours';

describe('a far weight', () => {
  const thing = { target_g: 12.5, weighed_g: null };
  it('is one that no hand pours by mistake of a gram', () => {
    expect([12.5, 11, 14, 23].map((g) => isFar(thing, g))).toEqual([false, false, false, false]);
    expect([125, 1.2, 24].map((g) => isFar(thing, g))).toEqual([true, true, true]);
  });
  it('counts what is in the bowl already', () => {
    expect(isFar({ target_g: 500, weighed_g: 200 }, 300)).toBe(false);
    expect(isFar({ target_g: 500, weighed_g: 500 }, 500)).toBe(true);
  });
});

describe('grams of a recipe', () => {
  it('have the digits that their size deserves', () => {
    expect([1.25, 12.54, 61.57, 123.4, 5167.4].map(recipeNumber)).toEqual([
      '1.25',
      '12.5',
      '61.6',
      '123',
      '5\u2009167',
    ]);
    expect([0.5, 40, 900].map(gramDigits)).toEqual([2, 1, 0]);
    expect(tidyNumber(2.7, 3)).toBe('2.7');
  });
});
