// A table as a spreadsheet puts it on the clipboard: its cells, and what its columns seem to hold.
import { typedNumber } from '../units/number';

/** What was pasted, where it is more than one cell; it is then kept from the field it was pasted into. */
export function pastedTable(event: ClipboardEvent): string | null {
  const text = event.clipboardData?.getData('text/plain').replace(/\s+$/, '') ?? '';
  if (!/[\t\n]/.test(text)) return null;
  event.preventDefault();
  return text;
}

/** Rows of cells, those with nothing in them left out. The reader of tables is fetched when one is pasted. */
export async function cellsOf(text: string): Promise<string[][]> {
  const { default: papa } = await import('papaparse');
  const rows = papa.parse<string[]>(text, { delimiter: '\t' }).data;
  return rows.map((row) => row.map((cell) => cell.trim())).filter((row) => row.some((cell) => cell !== ''));
}

/** For `onpaste`: a table that is pasted goes to `take` as cells; anything else goes where it was pasted. */
export const pasting =
  (take: (cells: string[][]) => void) =>
  async (event: ClipboardEvent): Promise<void> => {
    const text = pastedTable(event);
    if (text) take(await cellsOf(text));
  };

export interface Column {
  /** What the field is called here, and other words that a head may have for it. */
  name: string;
  also: readonly string[];
  numeric: boolean;
}
export interface Understood<Role extends string> {
  head: string[] | null;
  rows: string[][];
  /** What each column holds; null where it is left out. */
  roles: (Role | null)[];
}

/** Whether the head of a column has a word: as a word of its own, or within one where it is long enough to mean it. */
function heads(head: string, word: string): boolean {
  const [all, sought] = [head.toLowerCase(), word.toLowerCase()];
  return sought.length > 2 || sought === '%'
    ? all.includes(sought)
    : all.split(/[^\p{L}]+/u).includes(sought);
}
/** Whether a cell is a number, with a unit or without. */
const isFigure = (cell: string): boolean => typedNumber(cell.replace(/[^\d.,\s\u2212-]+$/u, '')) !== null;

/** What a table holds: by the words of its head where it has one, else by what is a number and what is not. */
export function understand<Role extends string>(
  cells: string[][],
  columns: Partial<Record<Role, Column>>,
): Understood<Role> {
  const first = cells[0] ?? [];
  const headed =
    cells.length > 1 && !first.some(isFigure) && cells.slice(1).some((row) => row.some(isFigure));
  const rows = headed ? cells.slice(1) : cells;
  const open = new Set(Object.keys(columns) as Role[]);
  const width = Math.max(...cells.map((row) => row.length));
  const take = (fits: (role: Role) => boolean): Role | null => {
    const role = [...open].find(fits) ?? null;
    if (role) open.delete(role);
    return role;
  };
  // "diameter, mm" is a diameter
  const namesOf = (role: Role): string[] => [
    columns[role]?.name.split(',')[0] ?? '',
    ...(columns[role]?.also ?? []),
  ];
  const byHead = (i: number): Role | null => {
    const head = headed ? (first[i] ?? '') : '';
    return head ? take((role) => namesOf(role).some((word) => heads(head, word))) : null;
  };
  const byKind = (i: number): Role | null => {
    const told = rows.map((row) => row[i] ?? '').filter((cell) => cell !== '');
    const figures = told.filter(isFigure).length * 2 > told.length;
    return take((role) => columns[role]?.numeric === figures);
  };
  const places = Array.from({ length: width }, (_, i) => i);
  const named = places.map(byHead);
  const roles = named.every((role) => role === null) ? places.map(byKind) : named;
  return { head: headed ? first : null, rows, roles };
}
