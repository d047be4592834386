import { expect, it } from 'vitest';

import { optionalNumber } from './typed';

it('reads a number, takes nothing for nothing, and refuses what is neither', () => {
  expect(optionalNumber(' 58,5 ')).toBe(58.5);
  expect(optionalNumber('1 250')).toBe(1250);
  expect(optionalNumber('  ')).toBeNull();
  for (const text of ['6o', '12.3.4', '5 mm', '--2', '1e3', 'NaN']) {
    expect(() => optionalNumber(text, 'diameter_mm')).toThrow(`“${text}” is no number`);
  }
});
