// The one box: whether it is open, what is typed, and where what was found leads.
import type { Schema } from '../api/client';

type Found = Schema['FoundOut'];

class Finding {
  open = $state(false);
}
export const finding = new Finding();

/** Where something that was found leads. */
export function leadsTo(found: Found): string {
  const name = encodeURIComponent(found.title);
  const own: Partial<Record<Found['kind'], string>> = {
    batch: `/book/batch/${found.id}`,
    piece: `/t/${name}`,
    lot: `/bench/lot/${found.id}`,
    recipe: '/bench',
    place: `/hang/${found.id}`,
    person: `/book?words=${name}`,
  };
  return own[found.kind] ?? `/book/batch/${found.batch_id}`;
}

/** The next of a list by arrow key, round and round. */
export const stepped = (at: number, by: number, many: number): number =>
  many === 0 ? 0 : (at + by + many) % many;
