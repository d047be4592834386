// Weights, temperatures, lengths and liquids in the units of whoever reads: exact inside (grams, degrees Celsius,
// millimetres), changed only here. A unit typed with a number counts before the usual one: "1.5 lb", "2 lb 3 oz".
import { numberText, tidyNumber, typedNumber } from './number';
import { shows } from './shows';

const G_PER_OZ = 28.349523125;
const G_PER_LB = 16 * G_PER_OZ;
const MM_PER_IN = 25.4;
/** A fluid ounce of the United States, of which a millilitre of brine or wine is taken as a gram. */
const ML_PER_FLOZ = 29.5735295625;

const imperial = shows.mass === 'oz';

/** The units as they stand beside a number or in a label. */
export const unit = {
  mass: imperial ? 'oz' : 'g',
  bulk: imperial ? 'lb' : 'kg',
  block: imperial ? 'lb' : 'g',
  temperature: shows.temperature === 'F' ? '°F' : '°C',
  length: shows.length === 'in' ? 'in' : 'mm',
  thick: shows.length === 'in' ? 'in' : 'cm',
  far: shows.length === 'in' ? 'ft' : 'm',
  liquid: shows.liquid === 'floz' ? 'fl oz' : imperial ? 'oz' : 'g',
  dose: imperial ? 'oz/100 lb' : 'g/kg',
};

export type Quantity =
  'mass' | 'block' | 'bulk' | 'temperature' | 'warmth' | 'length' | 'thick' | 'liquid' | 'dose' | 'per_kg';

interface Scale {
  shown: (kept: number) => number;
  kept: (shown: number) => number;
}
const by = (factor: number): Scale => ({ shown: (n) => n / factor, kept: (n) => n * factor });
const same = by(1);

const scales: Record<Quantity, Scale> = {
  mass: imperial ? by(G_PER_OZ) : same,
  /** A block of meat: grams, or pounds. */
  block: imperial ? by(G_PER_LB) : same,
  /** Kept in grams, shown in kilograms or pounds. */
  bulk: by(imperial ? G_PER_LB : 1000),
  temperature: shows.temperature === 'F' ? { shown: (c) => c * 1.8 + 32, kept: (f) => (f - 32) / 1.8 } : same,
  /** A difference of temperatures: without the offset of the scale. */
  warmth: shows.temperature === 'F' ? by(1 / 1.8) : same,
  length: shows.length === 'in' ? by(MM_PER_IN) : same,
  /** A block as it is frozen: kept in millimetres, shown in centimetres or inches. */
  thick: by(shows.length === 'in' ? MM_PER_IN : 10),
  liquid: shows.liquid === 'floz' ? by(ML_PER_FLOZ) : imperial ? by(G_PER_OZ) : same,
  /** Grams a kilogram; ounces a hundred pounds. */
  dose: imperial ? by(1 / 1.6) : same,
  /** A price a kilogram; a pound. */
  per_kg: imperial ? by(1000 / G_PER_LB) : same,
};

/** What the end of a name says of its value, as in `start_weight_g`; null where it says nothing. */
const BY_ENDING: readonly [string, Quantity][] = [
  ['_per_kg', 'per_kg'],
  ['_g', 'mass'],
  ['_mm', 'length'],
  ['_c', 'temperature'],
];
export const quantityOf = (name: string): Quantity | null =>
  BY_ENDING.find(([ending]) => name.endsWith(ending))?.[1] ?? null;

export const inUnits = (quantity: Quantity, kept: number): number => scales[quantity].shown(kept);
export const fromUnits = (quantity: Quantity, shown: number): number => scales[quantity].kept(shown);

/** Digits more than the metric figure has, so that nothing is lost where the unit is larger. */
const MORE: Record<Quantity, number> = {
  mass: imperial ? 2 : 0,
  block: imperial ? 3 : 0,
  bulk: 0,
  temperature: 0,
  warmth: 0,
  length: shows.length === 'in' ? 2 : 0,
  thick: 0,
  liquid: imperial || shows.liquid === 'floz' ? 2 : 0,
  dose: 0,
  per_kg: 0,
};
export const digitsOf = (quantity: Quantity, metric: number): number =>
  MORE[quantity] ? Math.max(MORE[quantity], metric + MORE[quantity] - 1) : metric;

/** A kept value as a field is filled with it. */
export const fieldText = (quantity: Quantity, kept: number | null, metric = 1): string =>
  kept === null ? '' : tidyNumber(inUnits(quantity, kept), digitsOf(quantity, metric));

const NARROW = '\u2009';
const HARD = '\u00a0';

/** A number without useless zeros, its thousands set apart. */
function apart(value: number, most: number): string {
  const tidy = Number(value.toFixed(most));
  return numberText(tidy, (String(tidy).split('.')[1] ?? '').length, NARROW);
}

const weightNumber = (g: number): string =>
  imperial ? numberText(g / G_PER_OZ, 1) : numberText(Math.round(g), 0, NARROW);
/** A weight of a piece. */
export const weightText = (g: number): string => `${weightNumber(g)}${HARD}${unit.mass}`;
/** Between which weights a piece is expected. */
export const weightRange = (lowG: number, highG: number): string =>
  `${weightNumber(lowG)}–${weightText(highG)}`;
/** A weight as the scale showed it: whole numbers as they are, parts where there were any. */
export function weightAsTyped(g: number): string {
  return `${apart(inUnits('mass', g), imperial ? 2 : 1)}${HARD}${unit.mass}`;
}
/** A number as it is, with its unit: whole where it is whole. */
const asIs = (value: number, most: number, units: string): string => `${tidyNumber(value, most)} ${units}`;
export const temperatureAsTyped = (c: number): string => asIs(inUnits('temperature', c), 1, unit.temperature);
export const warmthAsTyped = (c: number): string => asIs(inUnits('warmth', c), 1, unit.temperature);
export const lengthAsTyped = (mm: number): string =>
  asIs(inUnits('length', mm), digitsOf('length', 1), unit.length);
export const muchWeightAsTyped = (g: number): string => asIs(inUnits('bulk', g), 1, unit.bulk);
export const perKgText = (price: number): string => `${priceText(price)}/${unit.bulk}`;

/** Much weight, in kilograms or pounds. */
export const muchWeight = (g: number): string => `${numberText(inUnits('bulk', g), 1)}${HARD}${unit.bulk}`;

/** Digits that a weight deserves in a recipe: a pinch in hundredths, a block in whole grams. */
export const gramDigits = (g: number): number => (g < 10 ? 2 : g < 100 ? 1 : 0);
/** A weight of a recipe without its unit, where the unit stands at the head of its column. */
export const recipeNumber = (g: number): string =>
  apart(inUnits('mass', g), imperial ? gramDigits(g) + 1 : gramDigits(g));
export const recipeWeight = (g: number): string => `${recipeNumber(g)} ${unit.mass}`;

export const temperatureText = (c: number, digits = 1): string =>
  `${numberText(inUnits('temperature', c), digits)} ${unit.temperature}`;
/** A difference of temperatures, without the offset of the scale. */
export const warmthText = (c: number, digits = 1): string =>
  `${numberText(inUnits('warmth', c), digits)} ${unit.temperature}`;
export const lengthText = (mm: number, digits = 0): string =>
  `${numberText(inUnits('length', mm), digitsOf('length', digits))} ${unit.length}`;
/** A long length, in metres or feet. */
export const farLengthText = (mm: number): string =>
  `${numberText(shows.length === 'in' ? mm / (12 * MM_PER_IN) : mm / 1000, 1)} ${unit.far}`;

/** What a kilogram costs, or a pound, without the money's name. */
export const priceText = (perKg: number): string => numberText(inUnits('per_kg', perKg), 2);

const TYPED: Record<string, [Quantity, number]> = {
  g: ['mass', 1],
  kg: ['mass', 1000],
  oz: ['mass', G_PER_OZ],
  lb: ['mass', G_PER_LB],
  ml: ['liquid', 1],
  floz: ['liquid', ML_PER_FLOZ],
  mm: ['length', 1],
  cm: ['length', 10],
  in: ['length', MM_PER_IN],
  '"': ['length', MM_PER_IN],
};
const WEIGHED: readonly Quantity[] = ['mass', 'block', 'liquid', 'bulk'];
/** A liquid may be weighed; what is weighed is not poured: "1l" for a tare of 11 is a slip. */
const fits = (asked: Quantity, typed: Quantity): boolean =>
  asked === typed ||
  (asked === 'thick' && typed === 'length') ||
  (WEIGHED.includes(asked) && typed === 'mass');

/** A quantity as typed, as it is kept; null for what is none. A unit of another kind is none either. */
export function typedAs(quantity: Quantity, text: string): number | null {
  const plain = typedNumber(text);
  if (plain !== null) return fromUnits(quantity, plain);
  const degrees = /^(.*?)\s*°?\s*([cf])$/i.exec(text.trim());
  if (degrees && quantity === 'temperature') {
    const number = typedNumber(degrees[1] ?? '');
    if (number === null) return null;
    return degrees[2]?.toLowerCase() === 'f' ? (number - 32) / 1.8 : number;
  }
  const pounds = /^(.+?)\s*lbs?\s+(.+?)\s*oz$/i.exec(text.trim());
  if (pounds && WEIGHED.includes(quantity)) {
    const [lb, oz] = [typedNumber(pounds[1] ?? ''), typedNumber(pounds[2] ?? '')];
    return lb === null || oz === null || oz < 0 || oz >= 16 ? null : lb * G_PER_LB + oz * G_PER_OZ;
  }
  const found = /^(.*?)\s*(fl\.?\s?oz|kg|g|oz|lbs?|ml|mm|cm|in|")\.?$/i.exec(text.trim());
  const named = found && TYPED[(found[2] ?? '').toLowerCase().replace(/[.\s]/g, '').replace('lbs', 'lb')];
  const number = found && typedNumber(found[1] ?? '');
  if (!named || number === null || !fits(quantity, named[0])) return null;
  return number * named[1];
}
