import { expect, it } from 'vitest';

import { numberText, tidyNumber, typedNumber } from './number';

it('reads numbers as people type them', () => {
  expect(typedNumber('612,5')).toBe(612.5);
  expect(typedNumber(' 1 240 ')).toBe(1240);
  expect(typedNumber('\u22123.5')).toBe(-3.5);
  for (const wrong of ['', 'abc', '6,1,2', '12kg', '--4', ','] as const)
    expect(typedNumber(wrong)).toBeNull();
});

it('writes numbers with their digits, thousands apart where asked, and no sign on nothing', () => {
  expect(numberText(1643.6, 0, '\u2009')).toBe('1\u2009644');
  expect(numberText(1234567.25, 1, '\u2009')).toBe('1\u2009234\u2009567.3');
  expect(numberText(999, 0, '\u2009')).toBe('999');
  expect(numberText(-4.25, 1)).toBe('\u22124.3');
  expect(numberText(-0.04, 1)).toBe('0.0');
  expect(tidyNumber(2.7, 3)).toBe('2.7');
});
