import { expect, it } from 'vitest';

import { firstShows, readShows, usual, writeShows } from './shows';

it('reads what it wrote', () => {
  const chosen = { ...usual, language: 'it', mass: 'oz', hours: '12', week: '0' } as const;
  expect(readShows(writeShows(chosen))).toEqual(chosen);
});

it('takes what is missing or unknown as it is usual', () => {
  expect(readShows('mass=stone&temperature=F&language=xx')).toEqual({ ...usual, temperature: 'F' });
  expect(readShows('')).toEqual(usual);
});

it('begins in the language that the browser asks for, where there is one', () => {
  expect(firstShows(['de-DE', 'it-IT', 'en']).language).toBe('it');
  expect(firstShows(['de', 'fr']).language).toBe('en');
  expect(firstShows(['en-US']).mass).toBe('g');
});
