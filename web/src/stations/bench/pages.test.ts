import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

import type { Schema } from '../../api/client';
import { keys } from '../../api/queries';
import { route } from '../../shell/router';
import { FAMILY, REFERENCE } from '../../testing/bench';
import { inDays } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import { FakeServer } from '../../testing/server';
import { Desk } from './desk.svelte';
import Limits from './Limits.svelte';
import Lot from './Lot.svelte';
import Plan from './Plan.svelte';
import Recipes from './Recipes.svelte';

describe('the limits that are shipped and the maker’s own', () => {
  const profile = (changes: Partial<Schema['LimitProfileIn']> = {}): Schema['LimitProfileIn'] => ({
    id: 'us', name: 'USA', source: 'a book', as_of: '2025-01', check: 'Ask your authority.', counted_as: 'sodium salt',
    minced: { nitrite_mg_per_kg: 156, nitrate_mg_per_kg: 1718 }, intact: { nitrite_mg_per_kg: 625, nitrate_mg_per_kg: 2187 },
    belly: { nitrite_mg_per_kg: 200.25, nitrate_mg_per_kg: 0 },
    degree_hours: { unit: 'F', threshold: 60, steps: [{ below: 90, limit: 1200 }, { up_to: 100, limit: 1000 }, { limit: 900 }] },
    sources: {}, residual_as: 'ion', residual_nitrite_mg_per_kg: null, listeria_zero: true, unchilled: '', does_not_know: [],
    made_by: '', ...changes,
  }); // prettier-ignore
  const page = (...profiles: Schema['LimitProfileIn'][]): Drawn =>
    drawn(Limits, {}, [[keys.limits, profiles]]);

  it('stand as they were published, goods by goods', () => {
    const found = page(profile());
    expect(found.texts('tbody tr')).toEqual(['Minced 156 1718', 'Whole muscle 625 2187', 'Belly 200.3 0']);
    expect(found.one('caption').text).toBe('counted as sodium salt');
    expect(found.text).toContain('Ask your authority.');
  });

  it('say the degree-hours step by step, with what lies on a bound', () => {
    expect(page(profile()).text).toContain(
      'Degree-hours over 60 °F: 1200 below 90 °F, 1000 up to 100 °F, 900 when hotter',
    );
  });

  it('say what may be left, or that nothing limits it, and what of listeria', () => {
    expect(page(profile()).text).toContain('no limit for nitrite left · no listeria at all');
    const eu = page(profile({ residual_nitrite_mg_per_kg: 50, listeria_zero: false }));
    expect(eu.text).toContain('nitrite left at most 50 mg/kg as ion · listeria up to 100 in a gram');
  });

  it('own up to what they do not know, and to where each of them stands', () => {
    const found = page(
      profile({ does_not_know: ['Game.', 'Horse.'], sources: { listeria: 'part 2', other: 'part 3' } }),
    );
    expect(found.text).toContain('What these limits do not know: Game. Horse.');
    expect(found.texts('details li')).toEqual(['listeria: part 2', 'other: part 3']);
    expect(page(profile()).all('details')).toHaveLength(0);
  });

  it('are each a beginning of limits of one’s own; the form comes when one was picked', () => {
    const found = page(profile(), profile({ id: 'eu', name: 'EU' }));
    expect(found.all('section').map((one) => one.getAttribute('aria-label'))).toEqual(['USA', 'EU']);
    expect(found.texts('section button')).toEqual(Array(2).fill('Limits of your own, starting from these'));
    expect(found.all('form')).toHaveLength(0);
  });
});

describe('where a lot went', () => {
  const pack = (changes: Partial<Schema['PackOut']> = {}): Schema['PackOut'] =>
    ({ id: 3, left: 2, net_g: 250, keep_at: 'fridge', events: [], ...changes }) as Schema['PackOut'];
  const out = (changes: object): Schema['PackEventOut'] =>
    ({ id: 1, at: inDays(-2), kind: 'out', how: 'sold', number: 1, to_whom: 'the inn', struck_reason: null, ...changes }) as Schema['PackEventOut']; // prettier-ignore
  const held = (changes: Partial<Schema['HeldPiece']> = {}): Schema['HeldPiece'] => ({
    piece_id: 7, tag: 'J-21-02', state: 'hanging', place: 'Cellar', packs: [], ...changes,
  }); // prettier-ignore
  const lot = (...batches: Schema['RecallBatch'][]): Drawn =>
    drawn(Lot, {}, [[keys.lot(5), { batches, code: 'L-77', kind: 'salt', lot_id: 5, what: 'curing salt' }]]);
  const batch = (pieces: Schema['HeldPiece'][]): Schema['RecallBatch'] => ({
    batch: 'J-21', batch_id: 3, grams: 12.5, made_at: inDays(-30), product: 'Juniper salame', pieces,
  }); // prettier-ignore
  beforeEach(() => {
    route.params = { id: '5' };
  });
  afterEach(() => {
    route.params = {};
  });

  it('waits for its answer, and says when it went nowhere', () => {
    route.params = { id: '6' };
    expect(drawn(Lot, {}).all('h1')).toHaveLength(0);
    route.params = { id: '5' };
    const nowhere = lot();
    expect(nowhere.one('h1').text).toContain('L-77');
    expect(nowhere.all('section')).toHaveLength(0);
    expect(nowhere.one('a[download]').getAttribute('href')).toBe('/api/lots/5/recall.pdf');
  });

  it('names every batch with how much went in, and every piece with where it is', () => {
    const found = lot(batch([held(), held({ tag: 'J-21-03', state: 'gone', place: null })]));
    expect(found.text).toContain('J-21 Juniper salame');
    expect(found.text).toContain('12.5 g');
    expect(found.texts('li')[0]).toContain('hangs Cellar');
    expect(found.texts('li')[1]).toContain('gone');
  });

  it('tells of packs what is left and where, and what went to whom; not what was only moved or struck', () => {
    const packs = [
      pack({ events: [out({}), out({ id: 2, how: 'moved', to_whom: '' }), out({ id: 3, struck_reason: 'wrong pack', to_whom: 'nobody' })] }),
      pack({ id: 4, left: 0, events: [out({ id: 5, number: 3, to_whom: '' })] }),
    ]; // prettier-ignore
    const told = lot(batch([held({ state: 'kept', packs })])).texts('li')[0];
    expect(told).toContain('2 × 250 g in stock, fridge');
    expect(told).toContain('1 sold to the inn 22 Nov');
    expect(told).toContain('3 sold 22 Nov');
    expect(told).not.toContain('nobody');
    expect(told?.match(/in stock/g)).toHaveLength(1);
  });
});

const OFFERED: Schema['ReferenceOut'] = {
  ...REFERENCE,
  families: [
    { ...FAMILY, before_hanging: 'warm box', hanging: 'five weeks' },
    { ...FAMILY, id: 'thin', name: 'Thin sausage' },
  ],
  schools: {
    salt_basis: [
      { id: 'inclusive', name: 'salt covers the curing salt', brings: 'the curing salt is taken off' },
      { id: 'on_top', name: 'salt stands beside it', brings: 'nothing is taken off' },
    ],
  },
};

function desk(): Desk {
  new FakeServer().on('/api/bench/work', { body: { lines: [], problems: [], consequences: null } });
  return new Desk(OFFERED);
}

describe('the plan of a sheet', () => {
  beforeEach(() => localStorage.clear());

  it('begins with what is usual for the goods, and says how they are usually made', () => {
    const found = drawn(Plan, { desk: desk() });
    expect(found.one('p.quiet').text).toContain('warm box · five weeks');
    expect(found.all('option[selected]').map((one) => one.text.trim())).toEqual(
      expect.arrayContaining(['pork', 'raw', 'weight', 'natural']),
    );
  });

  it('a school is named whole, with what it brings beside it', () => {
    const made = desk();
    made.sheet.salt_basis = 'on_top';
    const found = drawn(Plan, { desk: made });
    expect(found.texts('dd')[0]).toContain('salt covers the curing salt salt stands beside it');
    expect(found.texts('dd')[0]).toContain('nothing is taken off');
  });

  it('a slab has a thickness, what is round a diameter', () => {
    const round = drawn(Plan, { desk: desk() }).texts('label').join();
    const flat = desk();
    flat.sheet.plan.shape = 'slab';
    expect(drawn(Plan, { desk: flat }).texts('label').join()).not.toBe(round);
  });
});

describe('recipes and their versions', () => {
  const version = (number: number, reason = ''): Schema['VersionOut'] =>
    ({ number, reason, at: inDays(-30 + number), by: 'Ida', sheet: {} }) as unknown as Schema['VersionOut'];
  const shown = (recipes: Schema['RecipeOut'][], opened?: { id: number; version: number }): Drawn => {
    const made = desk();
    if (opened) made.recipe = { ...opened, name: 'Juniper' } as never;
    made.product = 'Juniper';
    return drawn(Recipes, { desk: made, recipes } as never, [[keys.recipes, recipes]]);
  };
  beforeEach(() => localStorage.clear());
  afterEach(() => vi.restoreAllMocks());

  it('offer every version, the last one first', () => {
    const found = shown([{ id: 4, name: 'Juniper', versions: [version(1), version(2, 'less salt')] }]);
    expect(found.texts('option').filter((text) => text.startsWith('Juniper'))).toEqual([
      expect.stringContaining('2'), expect.stringContaining('1'),
    ]); // prettier-ignore
  });

  it('an opened one of several versions tells why each was made, and asks why for the next', () => {
    const recipes = [{ id: 4, name: 'Juniper', versions: [version(1), version(2, 'less salt')] }];
    const found = shown(recipes, { id: 4, version: 2 });
    expect(found.texts('details li')[0]).toContain('less salt');
    expect(found.texts('details li')[0]).toContain('Ida');
    expect(found.all('details li button')).toHaveLength(1); // the first one has nothing before it
    expect(found.one('a[download]').getAttribute('href')).toBe('/api/recipes/4/file?version=2');
    expect(
      shown([{ id: 4, name: 'Juniper', versions: [version(1)] }], { id: 4, version: 1 }).all('details'),
    ).toHaveLength(0);
  });

  it('nothing is kept without a name', () => {
    const made = desk();
    made.product = ' ';
    const found = drawn(Recipes, { desk: made, recipes: [] } as never, [[keys.recipes, []]]);
    expect(found.one('button.btn').hasAttribute('disabled')).toBe(true);
    expect(shown([]).one('button.btn').hasAttribute('disabled')).toBe(false);
  });
});
