import { beforeEach, describe, expect, it, vi } from 'vitest';

import type { Schema } from '../../api/client';
import { FakeServer } from '../../testing/server';
import { Desk } from './desk.svelte';

const SALAME: Schema['FamilyOut'] = {
  id: 'salame', name: 'Salame, cultured', minced: true, belly: false, kind: 'salame', shape: 'cylinder',
  casing: 'natural', salting: 'in_the_mince', salt_percent: 2.7, curing_salt: 'short', curing_salt_percent: 0.25,
  before_hanging: '', warm: 'culture', temperature_c: 13, rh_percent: 80, target_loss_percent: 35, across_mm: 60,
  piece_g: 900, surface: 'mould', hanging: '', fat_percent: 27,
  species: 'pork',
}; // prettier-ignore
const ROUND: Schema['FamilyOut'] = {
  ...SALAME,
  id: 'beef_round',
  name: 'Beef round',
  minced: false,
  warm: 'none',
  curing_salt: 'none',
};
const REFERENCE: Schema['ReferenceOut'] = {
  families: [SALAME, ROUND],
  curing_salts: [
    { id: 'short', name: 'Short type', nitrite_fraction: 0.0625, nitrate_fraction: 0, says: '' },
  ],
  schools: {},
  profiles: [],
};
const line = (key: string, grams: number): Schema['LineOut'] => ({
  key, name: key, grams, percent_of_meat: (100 * grams) / 5000, basis: 'percent', amount: 0, scale_g: 1,
  worst_error_percent: 1,
}); // prettier-ignore
const WORKED: Schema['WorkedOut'] = {
  meat_g: 5000, fat_percent: 26.5, total_g: 5170, problems: [], consequences: null,
  lines: [line('salt', 123), line('curing', 12.5), line('line-0', 15), line('line-1', 1.25)],
}; // prettier-ignore

describe('the sheet on the desk', () => {
  let server: FakeServer;
  beforeEach(() => {
    localStorage.clear();
    server = new FakeServer().on('/api/bench/work', { body: WORKED });
  });

  async function desk(): Promise<Desk> {
    const made = new Desk(REFERENCE);
    await vi.waitFor(() => expect(made.worked).not.toBeNull());
    return made;
  }

  it('starts with the usual sheet of the first family', async () => {
    const { sheet } = await desk();
    expect(sheet.plan).toMatchObject({ family: 'salame', goods: 'minced', target_loss_percent: 35 });
    expect(sheet.curing).toMatchObject({ percent: 0.25, nitrite_fraction: 0.0625 });
    expect(sheet.lines.map((one) => one.name)).toEqual(['Dextrose', 'Culture', 'Black pepper']);
  });

  it('brings the sheet before back as it was, typed changes and all', async () => {
    const made = await desk();
    made.product = 'My own';
    made.sheet.salt_percent = 2.55;
    const back = made.replaced(() => made.startFrom(ROUND));
    expect([made.product, made.sheet.plan.family]).toEqual(['Beef round', 'beef_round']);
    made.sheet.salt_percent = 9; // what is done to the new one is not done to the old
    back();
    expect([made.product, made.sheet.plan.family, made.sheet.salt_percent]).toEqual([
      'My own',
      'salame',
      2.55,
    ]);
    expect(new Desk(REFERENCE).product).toBe('My own'); // and is kept so
  });

  it('turns grams back into the share that a recipe keeps, by the basis of the line', async () => {
    const made = await desk();
    made.setGrams(0, 20);
    expect(made.sheet.lines[0]?.amount).toBeCloseTo(0.4);
    made.setGrams(1, 2);
    expect(made.sheet.lines[1]?.amount).toBeCloseTo(0.4); // g a kg
    made.setCuringGrams(10);
    expect(made.sheet.curing?.percent).toBeCloseTo(0.2);
  });

  it('moves the salt share by what the plain salt moved', async () => {
    const made = await desk();
    made.setSaltGrams(133);
    expect(made.sheet.salt_percent).toBeCloseTo(2.9);
  });

  it('keeps the grams when the basis of a line changes', async () => {
    const made = await desk();
    made.setBasis(0, 'absolute');
    expect(made.sheet.lines[0]).toMatchObject({ basis: 'absolute', amount: 15 });
    made.setShare(0, 0.5);
    expect(made.sheet.lines[0]?.amount).toBeCloseTo(25);
  });

  it('is there again after a reload, and survives a spoiled memory', async () => {
    const made = await desk();
    made.product = 'Juniper salame';
    made.setGrams(0, 20);
    expect((await desk()).product).toBe('Juniper salame');
    localStorage.setItem('zymon.sheet', '{not json');
    expect((await desk()).product).toBe('Salame, cultured');
  });

  it('gives whole muscle one part and no culture', async () => {
    const made = await desk();
    made.startFrom(ROUND);
    expect(made.sheet.parts).toHaveLength(1);
    expect(made.sheet.curing).toBeNull();
    expect(made.sheet.plan.goods).toBe('intact');
  });

  it('names faults by their field', async () => {
    const problems = [
      {
        where: 'salt_percent',
        said: {
          code: 'refused.not_between',
          values: { what: 'salt', low: 0, high: 15, value: 100, unit: ' %' },
        },
      },
    ];
    server.on('/api/bench/work', { body: { ...WORKED, problems } });
    const made = await desk();
    expect(made.faults['salt_percent']).toContain('got 100');
    server.on('/api/bench/work', 'unreachable');
    await made.work();
    expect(made.problem?.code).toBe('unreachable');
  });

  it('opens a version of a recipe without touching it', async () => {
    const made = await desk();
    const sheet = structuredClone(JSON.parse(JSON.stringify(made.sheet))) as Desk['sheet'];
    const recipe: Schema['RecipeOut'] = {
      id: 3,
      name: 'Juniper salame',
      versions: [{ number: 1, reason: '', by: 'Ida', at: '2026-11-23T10:00:00Z', sheet }],
    };
    made.open(recipe, 1);
    made.sheet.salt_percent = 3.1;
    expect(recipe.versions[0]?.sheet.salt_percent).toBe(2.7);
    expect(made.recipe).toEqual({ id: 3, version: 1 });
  });
});
