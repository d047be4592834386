import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { chore, inDays, said } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import ChoreLine from './ChoreLine.svelte';

type Chore = Schema['ChoreOut'];
const line = (changes: Partial<Chore> = {}, busy = false): Drawn =>
  drawn(ChoreLine, {
    chore: chore({ title: said('today.out_of_salt', { tag: 'N-04-01' }), ...changes }),
    busy,
    ondone: async () => undefined,
  });
const action = (changes: Partial<Schema['ActionOut']> = {}): Schema['ActionOut'] => ({
  station: 'salt', kinds: ['turn'], pieces: [4], takes_grams: false, ...changes,
}); // prettier-ignore

describe('a line of the round', () => {
  it('says what to do', () => {
    expect(line().text).toContain('Take N-04-01 out of the salt');
  });

  it.each<[Partial<Chore>, string]>([
    [{ elasticity: 'weight_led', latest: null }, 'by weight'],
    [{ elasticity: 'elastic', latest: null }, 'may wait'],
    [{ elasticity: 'elastic', latest: inDays(1) }, 'can wait until Wed 25 Nov 10:00'],
    [{ elasticity: 'firm', latest: inDays(1) }, 'by Wed 25 Nov 10:00'],
    [{ elasticity: 'firm', latest: inDays(-1), when: 'late' }, 'overdue'],
  ])('%o says until when: %s', (changes, until) => {
    expect(line(changes).texts('.until')).toEqual([until]);
  });

  it('overdue is louder where it cannot wait than where it may', () => {
    const late = { when: 'late', latest: inDays(-1) } as const;
    expect(line({ ...late, elasticity: 'firm' }).all('.until.text-error')).toHaveLength(1);
    expect(line({ ...late, elasticity: 'elastic' }).all('.until.text-warning')).toHaveLength(1);
    expect(line({ elasticity: 'firm', latest: inDays(1) }).all('.text-error, .text-warning')).toHaveLength(0);
  });

  it('left out is counted only of what is firm; of the rest it is told when it was done last', () => {
    expect(line({ missed: 1, elasticity: 'firm' }).text).toContain('left out once');
    expect(line({ missed: 3, elasticity: 'firm' }).text).toContain('left out 3 times');
    expect(line({ missed: 3, last: inDays(-4) }).text).toContain('done last Fri 20 Nov 10:00');
    expect(line({ missed: 3 }).text).toContain('not done yet');
    expect(line({ missed: 0, last: inDays(-4) }).text).not.toContain('done');
  });

  it('says what putting it off costs', () => {
    expect(line({ cost: said('hurdle.acid.not_yet') }).text).toContain(
      'Put off: pH 5.3 is not confirmed yet.',
    );
  });

  it('is done with one touch, named for those who listen', () => {
    const done = line({ action: action() });
    expect(done.texts('button')).toEqual(['Done']);
    expect(done.label('button')).toBe('Done: Take N-04-01 out of the salt');
    expect(done.all('input')).toHaveLength(0);
  });

  it('that can be done in several ways has a button for each', () => {
    expect(line({ action: action({ kinds: ['mould', 'vinegar'] }) }).texts('button')).toEqual([
      'Sown',
      'Wiped',
    ]);
  });

  it('of which something runs off takes how much', () => {
    expect(line({ action: action({ kinds: ['drain'], takes_grams: true }) }).all('input')).toHaveLength(1);
  });

  it('leads to where it is done, or only tells', () => {
    const there = line({ link: '/salt/4' });
    expect(there.one('a').getAttribute('href')).toBe('/salt/4');
    expect(there.all('button')).toHaveLength(0);
    expect(line().all('a, button')).toHaveLength(0);
    expect(line({ link: '/salt/4', action: action() }).all('a')).toHaveLength(0);
  });

  it('cannot be done twice while it is being done', () => {
    expect(line({ action: action() }, true).one('button').hasAttribute('disabled')).toBe(true);
  });
});
