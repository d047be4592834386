import { expect, it } from 'vitest';

import { optionalNumber, tareParts } from './typed';

it('reads a number, takes nothing for nothing, and refuses what is neither', () => {
  expect(optionalNumber(' 58,5 ')).toBe(58.5);
  expect(optionalNumber('1 250')).toBe(1250);
  expect(optionalNumber('  ')).toBeNull();
  for (const text of ['6o', '12.3.4', '5 mm', '--2', '1e3', 'NaN']) {
    expect(() => optionalNumber(text, 'diameter_mm')).toThrow(`“${text}” is no number`);
  }
});

it('adds up a tare from what was typed, and refuses it whole for one part that is no number', () => {
  const typed = { casing: '6', net: '', string: '1,5', coat: '' };
  expect(tareParts(typed)).toEqual({ casing_g: 6, net_g: 0, string_g: 1.5, coat_g: 0 });
  expect(() => tareParts({ ...typed, net: '1l' })).toThrow('“1l” is no number');
});
