// Which piece comes next when an arrow key is pressed: along the rod, then to the next rod; up and down by nearest hook.
import type { Schema } from '../../api/client';

type Place = Pick<Schema['PieceCard'], 'id' | 'rod' | 'hook'>;
export type Direction = 'ArrowLeft' | 'ArrowRight' | 'ArrowUp' | 'ArrowDown';

export function neighbour(
  pieces: readonly Place[],
  from: number | null,
  direction: Direction,
): number | null {
  const sorted = [...pieces].sort((a, b) => a.rod - b.rod || a.hook - b.hook);
  const here = sorted.findIndex((piece) => piece.id === from);
  const current = sorted[here];
  if (!current) return sorted[0]?.id ?? null;
  if (direction === 'ArrowLeft') return sorted[Math.max(0, here - 1)]?.id ?? null;
  if (direction === 'ArrowRight') return sorted[Math.min(sorted.length - 1, here + 1)]?.id ?? null;
  const rods = [...new Set(sorted.map((piece) => piece.rod))];
  const rod = rods[rods.indexOf(current.rod) + (direction === 'ArrowUp' ? -1 : 1)];
  if (rod === undefined) return current.id;
  const there = sorted.filter((piece) => piece.rod === rod);
  const distance = (piece: Place): number => Math.abs(piece.hook - current.hook);
  return there.reduce((best, piece) => (distance(piece) < distance(best) ? piece : best)).id;
}

/** The first free hook of a room, in walking order, or null when it is full. */
export function firstFreeHook(
  rods: readonly Schema['RodOut'][],
  pieces: readonly Place[],
): { rod: Schema['RodOut']; hook: number } | null {
  const taken = new Set(pieces.map((piece) => `${piece.rod}/${piece.hook}`));
  for (const rod of rods)
    for (let hook = 1; hook <= rod.hooks; hook++)
      if (!taken.has(`${rod.number}/${hook}`)) return { rod, hook };
  return null;
}

/** The tag after the last one of a batch: J-21-08 is followed by J-21-09. */
export function nextTag(batch: string, pieces: readonly { tag: string }[]): string {
  const used = pieces
    .map((piece) => piece.tag)
    .filter((tag) => tag.startsWith(`${batch}-`))
    .map((tag) => Number.parseInt(tag.slice(batch.length + 1), 10))
    .filter(Number.isFinite);
  return `${batch}-${String(Math.max(0, ...used) + 1).padStart(2, '0')}`;
}
