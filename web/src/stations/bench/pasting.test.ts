import { describe, expect, it } from 'vitest';

import type { Desk } from './desk.svelte';
import { amountOf, basisOf, isCuring, isSalt, lineFault, partOf, roleOf, takeLines } from './pasting';

describe('an amount of a line', () => {
  it.each([
    ['0.3 %', 'absolute', { basis: 'percent', amount: 0.3 }],
    ['0,25g/kg', 'percent', { basis: 'per_kg', amount: 0.25 }],
    ['15 g', 'percent', { basis: 'absolute', amount: 15 }],
    ['1.5 kg', 'percent', { basis: 'absolute', amount: 1500 }],
    ['3', 'percent', { basis: 'percent', amount: 3 }],
    ['3', 'per_kg', { basis: 'per_kg', amount: 3 }],
    ['3', 'absolute', { basis: 'absolute', amount: 3 }],
  ] as const)('%s with bare numbers as %s', (text, bare, read) => {
    expect(amountOf(text, bare)).toEqual(read);
  });
  it.each(['', 'some', '3 mm', '1.2.3 g', '% 3'])('is none in "%s"', (text) => {
    expect(amountOf(text, 'percent')).toBeNull();
  });
  it('has bare numbers as the head of its column says', () => {
    expect(basisOf('g/kg')).toBe('per_kg');
    expect(basisOf('share, %')).toBe('percent');
    expect(basisOf('Grams')).toBe('absolute');
    expect(basisOf('weight (g)')).toBe('absolute');
    expect(basisOf('amount')).toBe('percent');
    expect(basisOf(undefined)).toBe('percent');
  });
});

describe('a line', () => {
  it('is told by its name', () => {
    expect([isSalt('Sea  salt'), isSalt('Sale fino'), isSalt('Salted anchovies'), isSalt('Garlic')]).toEqual([
      true,
      true,
      false,
      false,
    ]);
    expect([isCuring('Curing salt no. 2'), isCuring('Sodium nitrite'), isCuring('Curry')]).toEqual([
      true,
      true,
      false,
    ]);
    expect([roleOf('Dextrose'), roleOf('Starter culture'), roleOf('Garlic')]).toEqual([
      'sugar',
      'culture',
      'spice',
    ]);
  });
  it('cannot be taken without a name or a number, nor as a curing salt, which is counted in its own place', () => {
    expect(lineFault({ name: 'Garlic', amount: '2' }, 'per_kg', 5000)).toBeNull();
    expect(lineFault({ amount: '2' }, 'percent', 5000)).toContain('called');
    expect(lineFault({ name: 'Garlic', amount: 'a bit' }, 'percent', 5000)).toContain('a bit');
    expect(lineFault({ name: 'Garlic' }, 'percent', 5000)).toContain('Type a number'); // no such column
    expect(lineFault({ name: 'Garlic', amount: '-2' }, 'percent', 5000)).toContain('-2');
    expect(lineFault({ name: 'Curing salt', amount: '0.25' }, 'percent', 5000)).toContain('nitrite');
  });
  it('of salt in grams waits for the meat, of which it is kept as a share', () => {
    expect(lineFault({ name: 'Salt', amount: '140 g' }, 'percent', 0)).toContain('meat first');
    expect(lineFault({ name: 'Salt', amount: '140 g' }, 'percent', 5000)).toBeNull();
    expect(lineFault({ name: 'Salt', amount: '2.8' }, 'percent', 0)).toBeNull();
  });
  it('goes beneath those that are there; salt goes to its own place, not beside it', () => {
    const desk = {
      sheet: { salt_percent: 2.7, lines: [{ name: 'Pepper' }] },
      changed: () => undefined,
      setSaltGrams: (grams: number) => (desk.sheet.salt_percent = grams / 50),
    } as unknown as Desk;
    takeLines(
      desk,
      [
        { name: 'Salt', amount: '28 g/kg' },
        { name: ' Garlic ', amount: '2', note: 'fresh' },
      ],
      'per_kg',
    );
    expect(desk.sheet.salt_percent).toBeCloseTo(2.8);
    expect(desk.sheet.lines?.map((line) => [line.name, line.basis, line.amount, line.note])).toEqual([
      ['Pepper', undefined, undefined, undefined],
      ['Garlic', 'per_kg', 2, 'fresh'],
    ]);
    takeLines(desk, [{ name: 'Salt', amount: '150 g' }], 'percent');
    expect(desk.sheet.salt_percent).toBe(3);
    takeLines(desk, [{ name: 'Salt', amount: '2.6' }], 'percent');
    expect(desk.sheet.salt_percent).toBe(2.6);
  });
});

describe('a part of the meat', () => {
  it('is read with its fat, or with the 10 % of a new part', () => {
    expect(partOf({ name: 'Shoulder', weight: '3.8 kg', fat: '8 %', lot: 'A1' })).toEqual({
      name: 'Shoulder',
      weight_g: 3800,
      fat_percent: 8,
      lot: 'A1',
    });
    expect(partOf({ name: 'Belly', weight: '900' })).toMatchObject({ weight_g: 900, fat_percent: 10 });
  });
  it.each([
    [{ weight: '900' }, 'called'],
    [{ name: 'Belly' }, 'Type a number'],
    [{ name: 'Belly', weight: 'much' }, 'much'],
    [{ name: 'Belly', weight: '-1' }, '-1'],
    [{ name: 'Belly', weight: '900', fat: '101' }, '101'],
  ])('cannot be read in %o', (row, said) => {
    expect(partOf(row)).toContain(said);
  });
});
