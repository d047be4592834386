import { describe, expect, it } from 'vitest';

import { lossOf, lossScale, mostTold, type Piece, thickness } from './storyline';

const piece = (more: Partial<Piece>): Piece => ({
  piece_id: 1,
  tag: 'J-1',
  life: null,
  hung_at: '2026-03-01T09:00:00Z',
  off_at: null,
  start_g: 800,
  target_loss_percent: 36,
  loss_percent: null,
  reached_at: null,
  weights: [],
  told: [],
  photos: [],
  ...more,
});
const weight = (at: string, loss_percent: number, struck_reason: string | null = null) => ({
  at,
  gross_g: 1,
  loss_percent,
  by: 'Ida',
  struck_reason,
});

describe('the time line of a batch', () => {
  it('begins each piece at its hook and leaves out what was struck', () => {
    const one = piece({
      weights: [
        weight('2026-03-20T09:00:00Z', 20),
        weight('2026-03-10T09:00:00Z', 12),
        weight('2026-03-15T09:00:00Z', 80, 'wrong piece'),
      ],
    });
    expect(lossOf(one).map((d) => d.loss)).toEqual([0, 12, 20]);
    expect(lossOf(piece({ start_g: null }))).toEqual([]);
  });
  it('goes as deep as the target, or as what lost most', () => {
    expect(lossScale([piece({})], 0, 100).invert(100)).toBeCloseTo(38.88);
    const far = piece({ weights: [weight('2026-03-20T09:00:00Z', 50)] });
    expect(lossScale([far], 0, 100).invert(100)).toBeCloseTo(54);
  });
  it('draws a fresh piece thicker than a dry one', () => {
    expect(thickness(0)).toBeGreaterThan(thickness(36));
    expect(thickness(90)).toBeGreaterThan(0);
  });
  it('tells the dates of the piece of which most was told', () => {
    const ready = { p10: null, p50: null, p90: null };
    const told = [{ at: '2026-03-01T09:00:00Z', ready }];
    const story = { pieces: [piece({}), piece({ tag: 'J-2', told })] } as never;
    expect(mostTold(story)?.tag).toBe('J-2');
  });
});
