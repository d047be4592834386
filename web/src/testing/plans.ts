// A plan as tests begin with it: twelve salami, begun in a week, in time eight times in ten.
import type { Schema } from '../api/client';
import { inDays, said } from './cards';

const when = (from: number, to = from): Schema['PlanOut']['done'] => ({
  p10: inDays(from), p50: inDays((from + to) / 2), p90: inDays(to),
}); // prettier-ignore

export const planned = (changes: Partial<Schema['PlanOut']> = {}): Schema['PlanOut'] => ({
  id: 5, product: 'Juniper salame', family: 'salame', kind: 'salame', shape: 'cylinder', minced: true, state: 'planned',
  occasion: '', by: 'Ida', pieces: 12, piece_g: 1000, hung_g: 1000, table_g: 640, meat_g: 12_000, across_mm: 60,
  casing_mm: 4200, target_loss_percent: 36, asked_chance: 0.8, chance: 0.83, start: inDays(7), hung: when(9),
  done: when(40, 54), table: when(40, 54), wanted: inDays(60), place: 'Cellar', place_id: 1, before: [],
  hanging: { place_id: 1, start: inDays(9), until: inDays(46), latest: inDays(54) }, steps: [], assumed: [], clash: null,
  slip: null, water: null, order_days: 0, rest_days: 0, wait_days: 0, frozen: false, stretches: false, setting_id: null,
  batch: null, batch_id: null, weigh_out_id: null, ...changes,
}); // prettier-ignore

export const step = (
  kind: Schema['PlanStep']['kind'], from: number, to: number, elasticity: Schema['PlanStep']['elasticity'] = 'elastic',
): Schema['PlanStep'] => ({ kind, elasticity, title: said('today.copy_old', { last_s: 0 }), when: when(from, to) }); // prettier-ignore

export const strip = (changes: Partial<Schema['StripOut']> = {}): Schema['StripOut'] => ({
  place_id: 1, name: 'Cellar', kind: 'chamber', hooks: true, room: 40, free: 28, goods: [], managed_g: 900,
  weeks: [0, 7, 14, 21].map((day, i) => ({ start: inDays(day), likely: 12 + 10 * i, most: 14 + 10 * i, water_g: 600 - 100 * i })),
  ...changes,
}); // prettier-ignore
