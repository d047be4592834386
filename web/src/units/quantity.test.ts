import { afterEach, describe, expect, it, vi } from 'vitest';

import { type Shows, usual } from './shows';

/** The units as somebody has them who reads so. */
async function reading(differently: Partial<Shows> = {}) {
  vi.resetModules();
  vi.doMock('./shows', () => ({ shows: { ...usual, ...differently } }));
  return import('./quantity');
}
afterEach(() => vi.doUnmock('./shows'));

const AMERICAN: Partial<Shows> = { mass: 'oz', temperature: 'F', length: 'in', liquid: 'floz' };

describe('metric', () => {
  it('is shown as it is kept', async () => {
    const q = await reading();
    expect(q.weightText(1643.6)).toBe('1\u2009644\u00a0g');
    expect(q.weightRange(738.4, 1259.8)).toBe('738–1\u2009260\u00a0g');
    expect(q.weightAsTyped(612.35)).toBe('612.4\u00a0g');
    expect(q.weightAsTyped(612)).toBe('612\u00a0g');
    expect(q.temperatureText(12.94)).toBe('12.9 °C');
    expect(q.temperatureAsTyped(5)).toBe('5 °C');
    expect(q.warmthText(2.5)).toBe('2.5 °C');
    expect(q.lengthText(55)).toBe('55 mm');
    expect(q.muchWeight(12_340)).toBe('12.3\u00a0kg');
    expect([q.recipeNumber(2.506), q.recipeNumber(25.06), q.recipeNumber(1250.6)]).toEqual([
      '2.51',
      '25.1',
      '1\u2009251',
    ]);
    expect(q.fieldText('mass', 612.34)).toBe('612.3');
    expect(q.fieldText('mass', null)).toBe('');
  });

  it('reads the unit that stands beside a number, and only of its own kind', async () => {
    const q = await reading();
    expect(q.typedAs('mass', '1.75 kg')).toBe(1750);
    expect(q.typedAs('mass', '2 lb 3 oz')).toBeCloseTo(35 * 28.349523125, 9);
    expect(q.typedAs('mass', '3,5 lbs')).toBeCloseTo(3.5 * 453.59237, 9);
    expect(q.typedAs('liquid', '210 ml')).toBe(210);
    expect(q.typedAs('liquid', '70,5ML')).toBe(70.5);
    expect(q.typedAs('liquid', '2 fl. oz')).toBeCloseTo(2 * 29.5735295625, 9);
    expect(q.typedAs('length', '2.5in')).toBe(63.5);
    expect(q.typedAs('length', '5.5 cm')).toBe(55);
    expect(q.typedAs('temperature', '55 °F')).toBeCloseTo(12.7778, 4);
    expect(q.typedAs('temperature', '13 c')).toBe(13);
    for (const wrong of ['ml', '60 mm', '12 stone', '2 lb 17 oz', '2 lb -1 oz', '13 °C', ''] as const)
      expect(q.typedAs('mass', wrong)).toBeNull();
    for (const wrong of ['60 g', '12 °C'] as const) expect(q.typedAs('length', wrong)).toBeNull();
    expect(q.typedAs('temperature', 'warm c')).toBeNull();
  });
});

describe('ounces, Fahrenheit and inches', () => {
  it('are shown', async () => {
    const q = await reading(AMERICAN);
    expect(q.weightText(612)).toBe('21.6\u00a0oz');
    expect(q.weightRange(738, 760)).toBe('26.0–26.8\u00a0oz');
    expect(q.weightAsTyped(453.59237)).toBe('16\u00a0oz');
    expect(q.muchWeight(4535.9237)).toBe('10.0\u00a0lb');
    expect(q.temperatureText(12.78)).toBe('55.0 °F');
    expect(q.temperatureAsTyped(5)).toBe('41 °F');
    expect(q.warmthText(2)).toBe('3.6 °F');
    expect(q.lengthText(63.5)).toBe('2.50 in');
    expect(q.farLengthText(3048)).toBe('10.0 ft');
    expect(q.recipeWeight(2.5)).toBe('0.088 oz');
    expect(q.priceText(10)).toBe('4.54');
    expect(q.unit).toMatchObject({
      mass: 'oz',
      bulk: 'lb',
      temperature: '°F',
      length: 'in',
      liquid: 'fl oz',
    });
  });

  it('are kept exactly as they were typed', async () => {
    const q = await reading(AMERICAN);
    expect(q.typedAs('mass', '21.6')).toBe(21.6 * 28.349523125);
    expect(q.typedAs('mass', '500 g')).toBe(500);
    expect(q.typedAs('liquid', '2')).toBeCloseTo(59.147, 3);
    for (const quantity of ['mass', 'temperature', 'length', 'liquid', 'dose', 'per_kg', 'bulk'] as const)
      for (const typed of [0.5, 21.6, 55, 104])
        expect(q.inUnits(quantity, q.fromUnits(quantity, typed))).toBeCloseTo(typed, 9);
    for (const typed of ['55', '21.6', '2.25'] as const) {
      expect(q.fieldText('mass', q.typedAs('mass', typed))).toBe(typed);
      expect(q.fieldText('length', q.typedAs('length', typed), 0)).toBe(typed);
    }
    expect(q.fieldText('temperature', q.typedAs('temperature', '55.4'))).toBe('55.4');
  });

  it('count a curing salt as the trade does: an ounce to 25 pounds is 2.5 grams a kilogram', async () => {
    const q = await reading(AMERICAN);
    expect(q.inUnits('dose', 2.5)).toBeCloseTo(4, 9);
    expect(q.unit.dose).toBe('oz/100 lb');
  });
});

it('tells by the end of a name in which units its value is read', async () => {
  const q = await reading();
  expect(['start_weight_g', 'length_mm', 'mix_c', 'cost_per_kg', 'salt_percent'].map(q.quantityOf)).toEqual([
    'mass',
    'length',
    'temperature',
    'per_kg',
    null,
  ]);
});

describe('how thick a block is when it is frozen', () => {
  it('is said in centimetres, or in inches, and kept in millimetres', async () => {
    const metric = await reading();
    expect([metric.unit.thick, metric.typedAs('thick', '15'), metric.fieldText('thick', 150)]).toEqual([
      'cm',
      150,
      '15',
    ]);
    const inches = await reading(AMERICAN);
    expect([inches.unit.thick, inches.typedAs('thick', '6'), inches.fieldText('thick', 152.4)]).toEqual([
      'in',
      expect.closeTo(152.4, 9),
      '6',
    ]);
  });

  it('is a length, whichever unit is typed with it, and no weight', async () => {
    const q = await reading();
    expect(['150 mm', '15 cm', '15'].map((typed) => q.typedAs('thick', typed))).toEqual([150, 150, 150]);
    expect(q.typedAs('thick', '6 in')).toBeCloseTo(152.4, 9);
    expect(q.typedAs('thick', '15 g')).toBeNull();
  });
});
