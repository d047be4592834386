// What can be said of a pour without asking the server.
import type { Schema } from '../../api/client';

type Thing = Schema['ThingOut'];

/** Grams beyond which a weight is asked about: twice the target and more, or less than half. */
export function isFar(thing: Pick<Thing, 'target_g' | 'weighed_g'>, grams: number): boolean {
  const total = (thing.weighed_g ?? 0) + grams;
  return total > 1.5 * thing.target_g + 5 || (grams > 0 && total < 0.5 * thing.target_g - 5);
}
