// What a piece's tag says in each layer.
import type { Schema } from '../../api/client';
import { daysSince, percent } from '../../units/format';
import { words } from '../../words';

export type Layer = keyof typeof words.hang.layers;

export function tagText(
  piece: Schema['PieceCard'],
  layer: Layer,
  now: number,
  air: Schema['HookOut'] | undefined = undefined,
): string {
  const say = words.hang;
  if (layer === 'air') return air ? say.airTag(air.air) : say.airUnknown;
  if (layer === 'pace') return say.paceTag(piece.pace_percent_per_day);
  if (layer === 'progress')
    return piece.target_loss_percent === null
      ? words.done.lost(percent(piece.loss_percent, 0))
      : (piece.scale ? '' : '~') + say.progressTag(piece.loss_percent, piece.target_loss_percent);
  if (layer === 'weighed') {
    if (!piece.last_weighed_at) return daysSince(piece.hung_at, now) < 1 ? say.new : say.never;
    const days = Math.floor(daysSince(piece.last_weighed_at, now));
    return days < 1 ? say.today : say.daysAgo(days);
  }
  if (piece.state === 'ready') return say.tags.ready;
  if (piece.state === 'over') return say.tags.over;
  if (piece.state === 'likely') return say.tags.likely;
  if (piece.state === 'hold') return say.tags.hold;
  if (piece.state === 'feel') return say.tags.feel;
  if (piece.state === 'felt') return say.tags.felt;
  if (piece.state === 'stalled' || !piece.days_left) return say.tags.stalled;
  return say.days(piece.days_left.value, piece.days_left.unit, piece.days_left.about);
}

/** Everything about a piece in one sentence, for those who listen instead of look. */
export function spoken(piece: Schema['PieceCard'], now: number, seen = tagText(piece, 'days', now)): string {
  const parts = [
    `${piece.tag} ${seen}, ${piece.product}, ${words.hang.where(piece.rod, piece.hook)}`,
    piece.target_loss_percent === null
      ? words.done.lost(percent(piece.loss_percent, 0))
      : words.hang.lostOf(piece.loss_percent, piece.target_loss_percent),
    words.hang.states[piece.state],
    ...piece.wants.map((want) => words.hang.wants[want]),
  ];
  return parts.join(', ');
}
