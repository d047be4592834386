import { expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { spoken, tagText } from './said';

const NOW = Date.parse('2026-11-27T12:00:00Z');
const at = (changes: Partial<Schema['RestCard']>): Schema['RestCard'] =>
  ({
    tag: 'N-05-02',
    product: 'Neck',
    place: null,
    state: 'evening',
    earliest: '2026-12-06T12:00:00Z',
    best: '2026-12-07T12:00:00Z',
    late: '2026-12-10T12:00:00Z',
    ...changes,
  }) as Schema['RestCard'];

it('tells days as the window allows', () => {
  expect(tagText(at({}), NOW)).toBe('10 d');
  expect(tagText(at({ late: '2026-12-20T12:00:00Z' }), NOW)).toBe('~10 d');
  expect(tagText(at({ best: '2027-01-08T12:00:00Z', late: '2027-02-08T12:00:00Z' }), NOW)).toBe('~6 wk');
  expect(tagText(at({ best: '2026-11-27T12:30:00Z' }), NOW)).toBe('1 d');
  expect(tagText(at({ best: null, earliest: null, late: null }), NOW)).toBe('long');
});

it('says what it is where that is known, also to those who listen', () => {
  expect(tagText(at({ state: 'even' }), NOW)).toBe('even');
  expect(tagText(at({ state: 'leaks' }), NOW)).toBe('leaks');
  expect(spoken(at({ state: 'likely' }), NOW)).toBe(
    'N-05-02 squeeze, Neck, No place said, likely even, squeeze it',
  );
});
