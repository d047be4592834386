// What the time line of a batch is drawn from: one axis of time, the pieces thinning on it, what was told below.
import { scaleLinear, scaleUtc } from 'd3-scale';

import type { Schema } from '../../api/client';

type Story = Schema['StoryOut'];
export type Piece = Schema['StoryPiece'];

export interface Point {
  t: Date;
  loss: number;
}

/** A piece's weighings that count, from its hook on: its loss against time. */
export function lossOf(piece: Piece): Point[] {
  if (piece.hung_at === null || piece.start_g === null) return [];
  const weighed = piece.weights
    .filter((w) => w.struck_reason === null && w.loss_percent !== null)
    .map((w) => ({ t: new Date(w.at), loss: w.loss_percent ?? 0 }))
    .sort((a, b) => a.t.getTime() - b.t.getTime());
  return [{ t: new Date(piece.hung_at), loss: 0 }, ...weighed];
}

/** The piece that tells most of how the dates were: the one of which most was told. */
export const mostTold = (story: Story): Piece | undefined =>
  [...story.pieces].sort((a, b) => b.told.length - a.told.length)[0];

export const timeScale = (story: Story, left: number, right: number) =>
  scaleUtc([new Date(story.begins), new Date(story.ends)], [left, right]);

/** From no loss at the top to a little past the deepest, or the target. */
export function lossScale(pieces: Piece[], top: number, bottom: number) {
  const deep = Math.max(
    10,
    ...pieces.map((one) => one.target_loss_percent ?? 0),
    ...pieces.flatMap((one) => lossOf(one).map((d) => d.loss)),
  );
  return scaleLinear([0, deep * 1.08], [top, bottom]);
}

/** How thick a piece is drawn: thick when fresh, thin when it has lost much [px]. */
export const thickness = (loss: number): number => 7 * (1 - Math.min(Math.max(loss, 0), 60) / 75);

/** Stages that lie on the line, longest first, so that a short one is not hidden under a long one. */
export const strips = (stages: Schema['StoryStage'][]): Schema['StoryStage'][] =>
  [...stages].sort((a, b) => length(b) - length(a));
const length = (one: Schema['StoryStage']): number =>
  one.to_at === null ? Infinity : new Date(one.to_at).getTime() - new Date(one.from_at).getTime();
