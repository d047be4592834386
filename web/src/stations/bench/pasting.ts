// Lines and parts of a sheet as they stand in a spreadsheet: a name and an amount with its unit.
import { typedNumber } from '../../units/number';
import { typedAs, unit } from '../../units/quantity';
import { words } from '../../words';
import type { Desk, Line } from './desk.svelte';

export type Basis = 'percent' | 'per_kg' | 'absolute';
type Part = NonNullable<Desk['sheet']['parts']>[number];

const plain = (text: string): string => text.toLowerCase().replace(/\s+/g, ' ').trim();
const say = words.bench.pasted;
// what such things are called in spreadsheets, whatever the language of the page
const SALTS = ['salt', 'sea salt', 'fine salt', 'sale', 'sale marino', 'sale fino'];
const CURING = ['curing', 'cure #', 'nitrit', 'nitrat', 'saltpet', 'salnitro', 'conciante'];
const SUGARS = ['dextrose', 'sugar', 'lactose', 'glucose', 'destrosio', 'zucchero', 'lattosio', 'glucosio'];
const CULTURES = ['culture', 'starter', 'coltura', 'fermenti'];

/** Whether a line is the salt itself, or a curing salt: those have a place of their own on the sheet. */
export function isSalt(name: string): boolean {
  return [plain(words.bench.salt), ...SALTS].includes(plain(name));
}
export function isCuring(name: string): boolean {
  return CURING.some((word) => plain(name).includes(word));
}

/** The role a name tells, as far as it tells one. */
export function roleOf(name: string): NonNullable<Line['role']> {
  const holds = (list: readonly string[]): boolean => list.some((word) => plain(name).includes(word));
  return holds(SUGARS) ? 'sugar' : holds(CULTURES) ? 'culture' : 'spice';
}

/** An amount as typed: "0.3 %", "3 g/kg", "15 g"; without a unit it is of the basis told. Null for what is none. */
export function amountOf(text: string, bare: Basis): { basis: Basis; amount: number } | null {
  const tidy = text.trim();
  const share = /^(.*?)\s*(%|g\/kg|‰)$/.exec(tidy);
  if (share) {
    const amount = typedNumber(share[1] ?? '');
    return amount === null ? null : { basis: share[2] === '%' ? 'percent' : 'per_kg', amount };
  }
  const number = typedNumber(tidy);
  if (number !== null && bare === 'percent') return { basis: bare, amount: number };
  const amount = typedAs(number !== null && bare === 'per_kg' ? 'dose' : 'mass', tidy);
  return amount === null ? null : { basis: number === null ? 'absolute' : bare, amount };
}

/** What the head of the column of amounts says that its bare numbers are. */
export function basisOf(head: string | undefined): Basis {
  if (!head) return 'percent';
  if (/g\/kg|‰/.test(head) || head.includes(unit.dose)) return 'per_kg';
  return /%/.test(head)
    ? 'percent'
    : /\b(g|oz|grams|grammi|weight|peso)\b/i.test(head)
      ? 'absolute'
      : 'percent';
}

type Row = Partial<Record<'name' | 'amount' | 'note', string>>;

/** What is said of a cell that holds no number that can be, or nothing. */
const unread = (cell = ''): string =>
  cell.trim() ? words.errors.isNoNumber(cell.trim()) : words.errors.noNumber;

/** What is wrong with a row of lines, or null. */
export function lineFault(row: Row, bare: Basis, meat_g: number): string | null {
  if (!row.name?.trim()) return say.noName;
  if (isCuring(row.name)) return say.curingApart;
  const read = amountOf(row.amount ?? '', bare);
  if (read === null || read.amount < 0) return unread(row.amount);
  // salt is kept as a share: without meat its grams would be lost
  return isSalt(row.name) && read.basis === 'absolute' && meat_g <= 0 ? say.meatFirst : null;
}

/** Put rows on the sheet: salt to its own place, the others beneath the lines that are there. */
export function takeLines(desk: Desk, rows: Row[], bare: Basis): void {
  for (const row of rows) {
    const read = amountOf(row.amount ?? '', bare);
    if (!read) continue;
    const name = row.name?.trim() ?? '';
    if (isSalt(name)) {
      if (read.basis === 'absolute') desk.setSaltGrams(read.amount);
      else desk.sheet.salt_percent = read.basis === 'percent' ? read.amount : read.amount / 10;
      continue;
    }
    desk.sheet.lines = [
      ...(desk.sheet.lines ?? []),
      { name, role: roleOf(name), ...read, note: row.note?.trim() ?? '', salt_percent: 0 },
    ];
  }
  desk.changed();
}

type PartRow = Partial<Record<'name' | 'weight' | 'fat' | 'lot', string>>;

/** A part of the meat block as a row tells it; what it does not say is 10 % fat, as with a new part. Text: a fault. */
export function partOf(row: PartRow): Part | string {
  const weight_g = typedAs('block', row.weight ?? '');
  if (!row.name?.trim()) return say.noName;
  if (weight_g === null || weight_g < 0) return unread(row.weight);
  const fat = row.fat?.trim() ? typedNumber(row.fat.replace('%', '')) : 10;
  if (fat === null || fat < 0 || fat > 100) return unread(row.fat);
  return { name: row.name.trim(), weight_g, fat_percent: fat, lot: row.lot?.trim() ?? '' };
}
