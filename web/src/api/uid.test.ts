import { expect, it } from 'vitest';

import { newUid, Unsent } from './uid';

it('makes identities that differ', () => {
  const made = Array.from({ length: 500 }, newUid);
  expect(new Set(made).size).toBe(500);
  expect(made.every((uid) => /^[0-9a-f]{18}$/.test(uid))).toBe(true);
});

it('keeps the identity of what did not get through, and gives another thing another', () => {
  const unsent = new Unsent();
  const first = unsent.of(['turn', [1, 2]]);
  expect(unsent.of(['turn', [1, 2]])).toBe(first); // sent again over a weak line
  const other = unsent.of(['turn', [1, 3]]);
  expect(other).not.toBe(first);
  unsent.through();
  expect(unsent.of(['turn', [1, 3]])).not.toBe(other); // turned once more, a day later
});
