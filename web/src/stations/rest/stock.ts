// What a pack's tag says, and how it is drawn.
import type { Schema } from '../../api/client';
import { words } from '../../words';

type Pack = Schema['PackOut'];
const DAY = 86_400_000;
const DAYS_TO_WEEKS = 21;

/** How long it may wait: opened, past, days or weeks to its day; "no day" where no period was given. */
export function clock(pack: Pack, now: number): string {
  const say = words.stock.tag;
  if (pack.id === null) return words.stock.forms.whole;
  if (pack.use_by === null) return say.noDay;
  const days = Math.floor((new Date(pack.use_by).getTime() - now) / DAY);
  if (days < 0) return say.past;
  if (pack.opened.length) return say.opened;
  return days >= DAYS_TO_WEEKS ? say.weeks(Math.round(days / 7)) : say.days(days);
}

/** Whether it wants to be used: opened, past its day, or within a week of it. */
export const urgent = (pack: Pack, now: number): boolean =>
  pack.use_by !== null && (pack.opened.length > 0 || new Date(pack.use_by).getTime() - now < 7 * DAY);

export const keyOf = (pack: Pack): string => (pack.id === null ? `piece-${pack.piece_id}` : String(pack.id));

export const spoken = (pack: Pack, now: number): string =>
  [
    `${pack.left}× ${pack.tag} ${clock(pack, now)}`,
    pack.product,
    words.stock.forms[pack.form],
    words.stock.keepAt[pack.keep_at],
  ].join(', ');
