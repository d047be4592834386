// What a resting piece's tag says, and the same for those who listen.
import type { Schema } from '../../api/client';
import { words } from '../../words';

type Card = Schema['RestCard'];
const DAY = 86_400_000;

/** Days left until it is likely even, in weeks where the window is wide; what it is where that is known. */
export function tagText(card: Card, now: number): string {
  const say = words.rest.tags;
  if (card.state !== 'evening') return say[card.state];
  if (!card.best || !card.earliest || !card.late) return say.never;
  const days = Math.max(1, Math.round((new Date(card.best).getTime() - now) / DAY));
  const window = (new Date(card.late).getTime() - new Date(card.earliest).getTime()) / DAY;
  if (window > 18 && days >= 21) return words.hang.days(Math.round(days / 7), 'wk', true);
  return words.hang.days(days, 'd', window > 10);
}

export function spoken(card: Card, now: number): string {
  const where = card.place ?? words.rest.shelf;
  return [`${card.tag} ${tagText(card, now)}`, card.product, where, words.rest.states[card.state]].join(', ');
}
