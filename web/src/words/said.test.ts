import { expect, it } from 'vitest';

import { filled, said } from './said';

it('tells values with their units, and how many more there are', () => {
  expect(said({ code: 'slip.swapped', values: { expected_g: 740, meant_g: 741 } })).toBe(
    'expected about 740\u00a0g; digits swapped? 741\u00a0g',
  );
  expect(said({ code: 'today.ready', values: { tags: 'J-1, J-2, J-3', more: 4 } })).toBe(
    'Ready by weight, feel and take down: J-1, J-2, J-3 and 4 more',
  );
  expect(said({ code: 'against.hurdle', values: { hurdle: 'core_salt', state: 'unknown' } })).toBe(
    'salt in the core: not known',
  );
});

it('shows a code it does not know rather than nothing', () => {
  expect(said({ code: 'today.from_tomorrow', values: {} })).toBe('today.from_tomorrow');
});

it("fills the ledger's sentences, which the server says, with times and weights as they are read here", () => {
  expect(said({ code: 'hurdle.target.short', values: { gross_g: 640 } })).toBe(
    '640\u00a0g on the scale: not at its target',
  );
  const settled = said({ code: 'settles.core_by', values: { at_s: 1_788_447_600, limit_c: 5 } });
  expect(settled).toMatch(/^keep it at 5 °C or under until Thursday 3 September 2026 15:00$/);
});

it('writes a value as its sentence says, a number for itself, and a word with its plural', () => {
  expect(filled('{worst:k} off, under {5:c}, {most:kg} at most', { worst: 2.5, most: 60 })).toBe(
    '2.5 °C off, under 5 °C, 60 kg at most',
  );
  expect(filled('{n} {n|piece|pieces}', { n: 1 })).toBe('1 piece');
  expect(filled('{n} {n|piece|pieces}', { n: 3 })).toBe('3 pieces');
  expect(filled('{low} to {high}{unit}', { low: 3, high: 400, unit: ' mm' })).toBe('3 to 400 mm');
});
