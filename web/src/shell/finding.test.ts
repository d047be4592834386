import { describe, expect, it } from 'vitest';

import { leadsTo, stepped } from './finding.svelte';

const found = {
  id: 3,
  title: 'J-20-01',
  detail: '',
  batch_id: 7,
  piece_id: 9,
  at: null,
  by: null,
  struck: false,
};

describe('what was found', () => {
  it('leads to where it is looked at', () => {
    expect(leadsTo({ ...found, kind: 'batch' })).toBe('/book/batch/3');
    expect(leadsTo({ ...found, kind: 'piece' })).toBe('/t/J-20-01');
    expect(leadsTo({ ...found, kind: 'lot' })).toBe('/bench/lot/3');
    expect(leadsTo({ ...found, kind: 'note' })).toBe('/book/batch/7');
    expect(leadsTo({ ...found, kind: 'person', title: 'Ida & Co' })).toBe('/book?words=Ida%20%26%20Co');
  });
  it('is walked round and round by arrow keys', () => {
    expect([stepped(0, 1, 3), stepped(2, 1, 3), stepped(0, -1, 3), stepped(0, 1, 0)]).toEqual([1, 0, 2, 0]);
  });
});
