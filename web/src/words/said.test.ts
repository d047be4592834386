import { expect, it } from 'vitest';

import server from '../../../docs/formats/sentences.json';
import { codes, said } from './said';

it('has a sentence for every code that the server can send, and none besides', () => {
  expect([...codes].sort()).toEqual([...server].sort());
});

it('tells values with their units, and how many more there are', () => {
  expect(said({ code: 'slip.swapped', values: { expected_g: 740, meant_g: 741 } })).toBe(
    'expected about 740\u00a0g; digits swapped? 741\u00a0g',
  );
  expect(said({ code: 'today.ready', values: { tags: 'J-1, J-2, J-3', more: 4 } })).toBe(
    'Ready by weight, feel and take down: J-1, J-2, J-3 and 4 more',
  );
  expect(said({ code: 'against.hurdle', values: { hurdle: 'core_salt', state: 'unknown' } })).toBe(
    'core salt: not known',
  );
});

it('shows a code it does not know rather than nothing', () => {
  expect(said({ code: 'today.from_tomorrow', values: {} })).toBe('today.from_tomorrow');
});
