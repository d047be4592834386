import { expect, it } from 'vitest';

import { pieceQuery, roomQuery } from './queries';

const asked = (query: typeof roomQuery | typeof pieceQuery, dates_being_made?: boolean): number | false =>
  query(1).refetchInterval({ state: dates_being_made === undefined ? {} : { data: { dates_being_made } } });

it('asks again within seconds for dates that are being made anew, whether or not it is told when they are', () => {
  expect(asked(roomQuery, true)).toBe(2_000);
  expect(asked(pieceQuery, true)).toBe(2_000);
});

it('leaves dates alone that are as new as the place, and what has not come yet', () => {
  expect(asked(pieceQuery, false)).toBe(false);
  expect(asked(pieceQuery)).toBe(false);
  expect(asked(roomQuery, false)).toBe(120_000);
  expect(asked(roomQuery)).toBe(120_000);
});
