import { beforeEach, describe, expect, it, vi } from 'vitest';

import type { Schema } from '../../api/client';
import { REFERENCE } from '../../testing/bench';
import { inDays, said } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import { FakeServer } from '../../testing/server';
import Consequences from './Consequences.svelte';
import CuringLine from './CuringLine.svelte';
import { Desk } from './desk.svelte';
import Gauge from './Gauge.svelte';
import Holds from './Holds.svelte';
import LineRow from './LineRow.svelte';
import MeatBlock from './MeatBlock.svelte';
import NextTime from './NextTime.svelte';
import Yield from './Yield.svelte';

const figure = (value: number): Schema['FigureOut'] => ({
  name: 'salt', value, unit: said('unit.percent'), formula: said('f'), inputs: said('i'), source: said('s'),
}); // prettier-ignore
const gauge = (value: number, limit: number, standing: Schema['GaugeOut']['standing'] = 'pass'): Schema['GaugeOut'] => ({
  figure: figure(value), limit, standing, says: said('says'),
}); // prettier-ignore
const CONSEQUENCES: Schema['ConsequencesOut'] = {
  acid: null, casing_mm: 4200, cautions: [], cost: null, cost_per_finished_kg: null, finished_g: 3300, pieces: 5,
  nitrate: gauge(0, 1718), nitrite: gauge(120, 156), salt: gauge(2.7, 2.5),
  outlooks: [
    { loss_percent: 35, firmness: 'firm', keeps: 'max_10_c', moisture_protein_ratio: 1.64, water_activity: 0.9, water_activity_sd: 0.01, water_phase_salt_percent: 6 },
    { loss_percent: 40, firmness: 'hard', keeps: 'no_chill', moisture_protein_ratio: 1.3, water_activity: 0.87, water_activity_sd: 0.01, water_phase_salt_percent: 7 },
  ],
}; // prettier-ignore
const worked = (consequences: Schema['ConsequencesOut'] | null): Schema['WorkedOut'] => ({
  meat_g: 5000, fat_percent: 26.5, total_g: 5170, problems: [], consequences,
  lines: [{ key: 'line-0', name: 'pepper', grams: 15, percent_of_meat: 0.3, basis: 'percent', amount: 0.3, scale_g: 1, worst_error_percent: 1 }],
}); // prettier-ignore

async function desk(consequences: Schema['ConsequencesOut'] | null = CONSEQUENCES): Promise<Desk> {
  new FakeServer().on('/api/bench/work', { body: worked(consequences) });
  const made = new Desk(REFERENCE);
  await vi.waitFor(() => expect(made.worked).not.toBeNull());
  return made;
}
beforeEach(() => localStorage.clear());

describe('a figure on a string', () => {
  const shown = (given: Schema['GaugeOut'], least = false): Drawn =>
    drawn(Gauge, { name: 'nitrite', gauge: given, least });
  const share = (drawing: Drawn, part: string): number =>
    Number(/([\d.]+)%/.exec(drawing.one(part).getAttribute('style') ?? '')?.[1]);

  it('lies under its knot where it is under its limit, and past it where it is over', () => {
    const under = shown(gauge(120, 156));
    expect(share(under, '.fill')).toBeLessThan(share(under, '.knot'));
    const over = shown(gauge(200, 156, 'fail'));
    expect(share(over, '.fill')).toBeGreaterThan(share(over, '.knot'));
    expect(share(over, '.fill')).toBeLessThan(100);
    expect(over.text).toContain('not so');
    expect(under.text).toContain('fine');
  });

  it('of a least says so, and of no limit has no knot', () => {
    expect(shown(gauge(2.7, 2.5), true).text).toContain('at least');
    expect(shown(gauge(120, 156)).text).toContain('limit 156');
    const none = shown(gauge(0, 0));
    expect(none.all('.knot')).toHaveLength(0);
    expect(share(none, '.fill')).toBe(0);
  });
});

describe('what a sheet will mean', () => {
  const told = async (changes: Partial<Schema['ConsequencesOut']> | null = {}): Promise<Drawn> => {
    const made = await desk(changes && { ...CONSEQUENCES, ...changes });
    return drawn(Consequences, { desk: made, places: [] });
  };

  it('waits until there is meat and salt', async () => {
    expect((await told(null)).text).toContain('Fill in the meat and the salt');
  });

  it('is how it stands to the limits, by whose they are', async () => {
    const all = await told();
    expect(all.all('details.gauge')).toHaveLength(3);
    expect(all.text).toContain('Check with your authority.');
  });

  it('says what a caution rests on, and that it holds the batch only where it does', async () => {
    const caution = { says: said('caution.by_estimate'), source: said('source'), where: 'salt', hold: false };
    expect((await told({ cautions: [caution] })).all('.cautions .hold')).toHaveLength(0);
    expect((await told({ cautions: [{ ...caution, hold: true }] })).all('.cautions .hold')).toHaveLength(1);
    expect((await told()).all('.cautions')).toHaveLength(0);
  });

  it('foretells a pH only where the model holds', async () => {
    const acid = { figure: { ...figure(4.92), value: 4.92 }, instead: null, notes: [] };
    expect((await told({ acid })).texts('summary strong.text-lg').at(-1)).toBe('4.9');
    const instead = await told({ acid: { ...acid, instead: said('caution.by_estimate') } });
    expect(instead.texts('.text-warning')).toEqual(['by estimate: not a test.']);
    expect(instead.text).not.toContain('4.9');
  });

  it('tells each loss with how sure its water activity is, the target among them', async () => {
    const rows = (await told()).texts('tbody tr');
    expect(rows[0]).toBe('35 % firm 0.90 ± 0.01 1.6 under 10 °C');
    expect(rows[1]).toContain('unchilled');
    expect((await told()).all('tr.target')).toHaveLength(1);
  });

  it('costs what was given, or says that no prices were', async () => {
    expect((await told()).text).toContain('no prices given');
    expect((await told({ cost: 54.5, cost_per_finished_kg: 16.5 })).text).toContain(
      '54.50 in the bowl, 16.50 a kg for 3.3 kg finished',
    );
    expect((await told()).text).toContain('4.2 m of casing');
    expect((await told({ casing_mm: null })).text).not.toContain('m of casing');
  });
});

describe('the sheet as a table', () => {
  it('has a cell each for share and grams; a part alone cannot be taken away', async () => {
    const made = await desk();
    const [first, second] = made.sheet.parts;
    made.sheet.parts.splice(1);
    expect(drawn(MeatBlock, { desk: made }).all('button.off')).toHaveLength(0);
    made.sheet.parts.push(second ?? { ...first!, name: 'Back fat' });
    const two = drawn(MeatBlock, { desk: made });
    expect(two.all('button.off')).toHaveLength(2);
    expect(two.all('tbody tr').length).toBeGreaterThanOrEqual(2);
  });

  it('says what is wrong with a cell where it stands', async () => {
    const made = await desk();
    const line: Schema['SheetLine'] = {
      name: 'pepper',
      amount: 0.3,
      basis: 'percent',
      note: '',
      role: 'spice',
      salt_percent: 0,
    };
    const row = drawn(LineRow, { desk: made, line, i: 0 });
    expect(row.all('input').map((one) => one.getAttribute('value'))).toEqual(
      expect.arrayContaining(['0.3', '15']),
    );
    expect(row.all('[role=alert]')).toHaveLength(0);
    expect(row.label('button.off')).toContain('pepper');
    const salted = drawn(LineRow, { desk: made, line: { ...line, role: 'salted', salt_percent: 10 }, i: 0 });
    expect(salted.all('input').length).toBe(row.all('input').length + 1);
  });

  it('knows a curing salt by what is in it, and asks for that of one of your own', async () => {
    const made = await desk();
    const chosen = (): string | undefined =>
      drawn(CuringLine, { desk: made }).all('option[selected]')[0]?.getAttribute('value');
    made.sheet.curing = {
      name: 'Short type',
      percent: 0.25,
      nitrite_fraction: 0.0625,
      nitrate_fraction: 0,
      by_spoon: false,
    };
    expect(chosen()).toBe('short');
    made.sheet.curing.nitrite_fraction = 0.05; // another one that has its name
    expect(chosen()).toBe('own');
    expect(drawn(CuringLine, { desk: made }).text).toContain('nitrite');
    made.sheet.curing = null;
    expect(chosen()).toBe('none');
    expect(drawn(CuringLine, { desk: made }).all('input')).toHaveLength(0);
  });
});

describe('a red hold', () => {
  const hold: Schema['HoldOut'] = {
    id: 1, at: inDays(-2), text: 'nitrite lies above the limit', says: null, source: 'limits USA', answered_at: null,
    answered_by: null, reason: null, legal_basis: null,
  }; // prettier-ignore
  it('wants a reason and its legal basis, and keeps both with who gave them', () => {
    const open = drawn(Holds, { holds: [hold], took: () => undefined });
    expect(open.all('input[required]')).toHaveLength(2);
    const answered = {
      ...hold,
      answered_at: inDays(-1),
      answered_by: 'Ida',
      reason: 'weighed again',
      legal_basis: 'permit 4',
    };
    const told = drawn(Holds, { holds: [answered], took: () => undefined });
    expect(told.text).toContain('weighed again · permit 4');
    expect(told.text).toContain('Ida');
    expect(told.all('form')).toHaveLength(0);
    expect(drawn(Holds, { holds: [], took: () => undefined }).text).toBe('');
  });
});

describe('what came of a batch', () => {
  const YIELD: Schema['YieldOut'] = {
    batch: 'J-21', batch_id: 3, product: 'Juniper salame', pieces: 5, discarded: 0, thrown_g: 0, made: [], costs: [],
    ingredients_cost: null, cost_per_finished_kg: null, cost_per_usable_kg: null,
    steps: [{ step: 'bowl', grams: 5000, share: 1 }, { step: 'finished', grams: 3200, share: 0.64 }, { step: 'usable', grams: null, share: null }],
  }; // prettier-ignore
  const told = (changes: Partial<Schema['YieldOut']> = {}): Drawn =>
    drawn(Yield, { batch: 3 }, [[['yield', 3], { ...YIELD, ...changes }]]);

  it('is what was there at each step, or that nobody weighed it', () => {
    expect(told().texts('dd')).toEqual(['5 000 g 100 %', '3 200 g 64 %', 'not weighed']);
    expect(told().text).toContain('no prices on its sheet');
    expect(told({ discarded: 1 }).text).toContain('5 pieces, 1 thrown away and in no total');
  });

  it('costs by the finished kilogram and by what is for the table', () => {
    const cost = {
      id: 1,
      amount: 12,
      at: inDays(-1),
      by: 'Ida',
      kind: 'casing' as const,
      note: 'hog',
      struck_reason: null,
    };
    const priced = told({
      cost_per_finished_kg: 16.5,
      cost_per_usable_kg: 18,
      ingredients_cost: 40,
      costs: [cost, { ...cost, id: 2, struck_reason: 'twice' }],
    });
    expect(priced.text).toContain('16.50 a finished kg, 18.00 a kg for the table');
    expect(priced.texts('.line-through')).toEqual(['casing 12.00']);
    expect(priced.text).toContain('struck: twice');
  });
});

it('what the last cuts taught of a recipe is shown with the piece that taught it', () => {
  const note: Schema['NextTimeOut'] = {
    id: 1, at: inDays(-9), batch: 'J-20', by: 'Ida', piece_id: 7, product: 'Juniper salame', says: said('today.no_copy'), tag: 'J-20-01', version: 2,
  }; // prettier-ignore
  const told = drawn(NextTime, { recipe: 4 }, [[['recipes', 4, 'next time'], [note]]]);
  expect(told.one('a').getAttribute('href')).toBe('/rest/cut/7');
  expect(told.text).toContain('J-20-01');
  expect(drawn(NextTime, { recipe: 4 }, [[['recipes', 4, 'next time'], []]]).text).toBe('');
});
