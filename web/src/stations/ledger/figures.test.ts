import { expect, it } from 'vitest';

import { figure, standing } from './figures';

it.each<[number | string | null, string, string]>([
  [null, '%', ''],
  [0.8534, '', '0.853'],
  [35.27, '%', '35.3\u00a0%'],
  ['not_a_word_of_ours', '', 'not_a_word_of_ours'],
])('%s %s is told as %s', (value, unit, told) => {
  expect(figure(value, unit)).toBe(told);
});

it.each([
  [{ state: 'pass', known: 'measured', cautions: [] }, 'passed'],
  [{ state: 'pass', known: 'not known', cautions: [] }, 'nothing against it'],
  [{ state: 'pass', known: 'measured', cautions: ['one'] }, 'passed, with a caution'],
  [{ state: 'fail', known: 'measured', cautions: ['one'] }, 'failed'],
] as const)('%o stands as %s', (hurdle, told) => {
  expect(standing({ ...hurdle, cautions: [...hurdle.cautions] })).toBe(told);
});
