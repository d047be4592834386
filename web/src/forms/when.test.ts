import { describe, expect, it } from 'vitest';

import { reads } from '../words/it/moments';
import { readWhen } from './when';

const ROME = 'Europe/Rome';
/** Friday 27 November 2026, 14:30 in Rome. */
const NOW = new Date('2026-11-27T13:30:00Z');
const at = (text: string, zone = ROME): string => {
  const said = readWhen(text, NOW, zone);
  return said && 'at' in said ? said.at.toISOString() : JSON.stringify(said);
};

describe('a moment as people say it', () => {
  it.each([
    ['yesterday 18:00', '2026-11-26T17:00:00.000Z'],
    ['Yesterday at 6:00 pm', '2026-11-26T17:00:00.000Z'],
    ['12 Oct', '2026-10-12T07:00:00.000Z'], // summer time, nine in the morning
    ['12 October 2025, 7:30', '2025-10-12T05:30:00.000Z'],
    ['Oct 12 7.30', '2026-10-12T05:30:00.000Z'],
    ['2026-10-12 7:30', '2026-10-12T05:30:00.000Z'],
    ['12.10.', '2026-10-12T07:00:00.000Z'],
    ['12.10.2026 18:05', '2026-10-12T16:05:00.000Z'],
    ['25/6', '2026-06-25T07:00:00.000Z'],
    ['6/25/26', '2026-06-25T07:00:00.000Z'],
    ['7:30', '2026-11-27T06:30:00.000Z'],
    ['18:00', '2026-11-26T17:00:00.000Z'], // still to come today: yesterday's
    ['today 12:00', '2026-11-27T11:00:00.000Z'],
    ['tue 8:00', '2026-11-24T07:00:00.000Z'],
    ['friday', '2026-11-20T08:00:00.000Z'], // the last one, not today
    ['3 days ago', '2026-11-24T13:30:00.000Z'],
    ['90 min ago', '2026-11-27T12:00:00.000Z'],
    ['24 Dec', '2025-12-24T08:00:00.000Z'], // the last one of that name
    ['2026-10-12T07:30:00Z', '2026-10-12T07:30:00.000Z'],
  ])('%s', (text, iso) => expect(at(text)).toBe(iso));

  it('is now when nothing is said', () => {
    for (const text of ['', '  ', 'now']) expect(readWhen(text, NOW, ROME)).toBeNull();
  });

  it('asks where a day can be read in two ways, and never guesses', () => {
    const said = readWhen('5/6 18:00', NOW, ROME);
    expect(said).toEqual({
      either: [new Date('2026-06-05T16:00:00Z'), new Date('2026-05-06T16:00:00Z')],
    });
    expect(at('5/5')).toBe('2026-05-05T07:00:00.000Z'); // the same either way
  });

  it.each(['tomorrow week', '31 Feb', '25:00', '12 Foo', '99/99', 'ieri alle 18'])(
    'does not take %s',
    (text) => expect(at(text)).toContain('fault'),
  );

  it('reads in the zone of the workshop, over its clock changes too', () => {
    expect(at('25 Oct 2026 3:30')).toBe('2026-10-25T02:30:00.000Z'); // after the clock went back
    expect(at('29 Mar 2026 12:00')).toBe('2026-03-29T10:00:00.000Z'); // on the day it went forward
    expect(at('12 Oct', 'America/New_York')).toBe('2026-10-12T13:00:00.000Z');
  });
});

describe('a moment as Italians say it', () => {
  it.each([
    ['ieri 18:00', '2026-11-26T17:00:00.000Z'],
    ['ieri alle 18', '2026-11-26T17:00:00.000Z'],
    ['l’altro ieri ore 7.30', '2026-11-25T06:30:00.000Z'],
    ["ieri l'altro", '2026-11-25T08:00:00.000Z'],
    ['oggi alle 7 e mezza', '2026-11-27T06:30:00.000Z'],
    ['12 ott', '2026-10-12T07:00:00.000Z'],
    ['12 ottobre 2025, 7:30', '2025-10-12T05:30:00.000Z'],
    ['1° maggio', '2026-05-01T07:00:00.000Z'],
    ['3 ago 8:00', '2026-08-03T06:00:00.000Z'],
    ['12 mar', '2026-03-12T08:00:00.000Z'], // in March
    ['mar 8:00', '2026-11-24T07:00:00.000Z'], // on a Tuesday
    ['martedì scorso', '2026-11-24T08:00:00.000Z'],
    ['sabato', '2026-11-21T08:00:00.000Z'],
    ['domenica alle 10', '2026-11-22T09:00:00.000Z'],
    ['3 giorni fa', '2026-11-24T13:30:00.000Z'],
    ['2 ore fa', '2026-11-27T11:30:00.000Z'],
    ["un'ora fa", '2026-11-27T12:30:00.000Z'],
    ['2026-10-12 7:30', '2026-10-12T05:30:00.000Z'],
    ['yesterday 18:00', '2026-11-26T17:00:00.000Z'], // nothing of the other way is lost
  ])('%s', (text, iso) => {
    const said = readWhen(text, NOW, ROME, reads);
    expect(said && 'at' in said ? said.at.toISOString() : said).toBe(iso);
  });
  it.each(['domani', 'martello', '12 fuffa'])('does not take %s', (text) =>
    expect(readWhen(text, NOW, ROME, reads)).toHaveProperty('fault'),
  );
  it('is now when it is said so', () => expect(readWhen('adesso', NOW, ROME, reads)).toBeNull());
});
