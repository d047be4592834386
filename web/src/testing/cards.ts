// Answers of the server as tests begin with them: a salame halfway, of whom nothing is unusual.
import type { Schema } from '../api/client';

export const NOW = Date.parse('2026-11-24T10:00:00Z');
const DAY_MS = 86_400_000;
/** A moment so many days from now. */
export const inDays = (days: number): string => new Date(NOW + days * DAY_MS).toISOString();

const LIFE: Schema['LifeOut'] = { kind: 'hanging', how: '', by: 'Ida', place: 'Cellar', since: inDays(-20) };

export const card = (changes: Partial<Schema['PieceCard']> = {}): Schema['PieceCard'] => ({
  id: 7, tag: 'J-21-02', product: 'Juniper salame', batch: 'J-21', kind: 'salame', shape: 'cylinder', rod: 1, hook: 2,
  hung_at: inDays(-20), state: 'drying', wants: [], done_by: 'weight', done_days: null, feel_from: null, feel_to: null,
  days_left: { value: 12, unit: 'd', about: true }, ready: { p10: inDays(9), p50: inDays(12), p90: inDays(16) },
  over_at: null, life: LIFE, last_weighed_at: null, length_mm: 300, width_mm: 60, girth_now: 0.9, girth_target: 0.84,
  loss_percent: 24, aim_percent: 36, target_loss_percent: 36, target_weight_g: 640, start_weight_g: 1000,
  weight_now_g: 760, tare_g: 0, tag_g: null, model_loss_percent: 24, model_loss_low_percent: 20,
  model_loss_high_percent: 28, model_weight_g: 760, pace_percent_per_day: 0.8, safe_percent_per_day: 1.4, ring_risk: 0,
  scale: null, ...changes,
}); // prettier-ignore

export const weighing = (changes: Partial<Schema['WeighingOut']> = {}): Schema['WeighingOut'] => ({
  id: 1, at: inDays(-5), by: 'Ida', gross_g: 790, loss_percent: 21, confirmed: false, doubt: null, imported: false,
  kept: false, struck_at: null, struck_by: null, struck_reason: null, ...changes,
}); // prettier-ignore

export const noClimate: Schema['ClimateOut'] = {
  at_s: [], bucket_s: 3600, rh_max_percent: [], rh_min_percent: [], rh_percent: [], temperature_c: [],
  temperature_max_c: [], temperature_min_c: [],
}; // prettier-ignore

/** The air of the days before now, a mean for each. */
export const climate = (temperature_c: number[], rh_percent: (number | null)[]): Schema['ClimateOut'] => ({
  at_s: temperature_c.map((_, i) => NOW / 1000 - (temperature_c.length - i) * 86_400), bucket_s: 86_400,
  temperature_c, temperature_max_c: temperature_c, temperature_min_c: temperature_c,
  rh_percent, rh_max_percent: rh_percent, rh_min_percent: rh_percent,
}); // prettier-ignore

export const piece = (changes: Partial<Schema['PieceOut']> = {}): Schema['PieceOut'] => ({
  card: card(), batch_id: 3, place_id: 1, hangs: true, outside: false, air_ahead: { temperature_c: 13, rh_percent: 78 },
  setpoint: { temperature_c: 13, rh_percent: 78 }, assumed: [], bone: null, skin: null, casing: 'natural',
  climate: noClimate, corrections: [], cuts: [], dates_being_made: false, declared_length_mm: null, diameter_mm: 60,
  thickness_mm: null, fat_percent: 25, salt_percent: 2.6, expected_low_g: 740, expected_high_g: 780, hangings: [],
  made: [], reaches: null, states: [], told: [], weighings: [],
  curve: {
    at: [inDays(-20), inDays(-10), inDays(0), inDays(12), inDays(20)],
    low: [0, 12, 20, 32, 37], middle: [0, 14, 24, 36, 40], high: [0, 16, 28, 40, 43],
  },
  inside: {
    core_feels: 'yielding', core_water_percent: 58, depth_share: [0.2, 0.6, 1], rim_feels: 'firm', rim_water_percent: 40,
    ring: 'even', ring_index: 0.1, water_percent: [40, 50, 58],
  },
  ...changes,
}); // prettier-ignore

export const hurdle = (changes: Partial<Schema['HurdleOut']> = {}): Schema['HurdleOut'] => ({
  name: 'salt', state: 'pass', known: 'measured', blocks: false, cautions: [], entries: [], evidence: [], limit: null,
  pieces: null, settles: null, signable: false, signed: null, source: '', unit: '%', value: 2.6, was_fail: null,
  why: null, ...changes,
}); // prettier-ignore

export const said = (code: string, values: Schema['SaidOut']['values'] = {}): Schema['SaidOut'] => ({
  code,
  values,
});

export const ledger = (changes: Partial<Schema['LedgerOut']> = {}): Schema['LedgerOut'] => ({
  asks_what_went_in: false, check: said('check.usual'), code: 'J-21', done_by: 'weight', ends: inDays(10),
  goods: 'minced', hurdles: [], keeping: [], keeping_by: 'estimate', lab_units: {}, laboratory: [], made: [],
  made_here: true, meat: [], parasites: [], people: null, ready: false, species: ['pork'], stages: [], steps: [],
  use: 'raw', verdict: 'under_way', why: [],
  profile: {
    as_of: '2025-01', check: '', does_not_know: [], id: 'us', made_by: 'Zymon', milder: [], name: 'USA', source: '',
  },
  ...changes,
}); // prettier-ignore

export const chore = (changes: Partial<Schema['ChoreOut']> = {}): Schema['ChoreOut'] => ({
  id: 'turn-1', station: 'salt', place: null, title: said('chore.turn', { tag: 'N-04-01' }), detail: null, cost: null,
  due_from: inDays(-1), best: inDays(0), latest: inDays(1), last: null, missed: 0, elasticity: 'elastic', when: 'now',
  link: null, action: null, ...changes,
}); // prettier-ignore

export const inSalt = (changes: Partial<Schema['SaltCard']> = {}): Schema['SaltCard'] => ({
  id: 4, tag: 'N-04-01', batch: 'N-04', batch_id: 4, product: 'Neck', kind: 'whole_muscle', shape: 'irregular',
  geometry: 'cylinder', across_mm: 90, way: 'measured', way_name: 'weighed salt in a bag', percent: 3, dose_known: true,
  in_at: inDays(-6), out_at: null, earliest: inDays(4), best: inDays(8), latest: inDays(20), state: 'early',
  out_is_early: true, core_at: [], core_percent: 0.4, core_share: 0.1, mean_percent: 1.6, mean_low_percent: 1.2,
  mean_high_percent: 2, settles_percent: 2.9, profile: [0.4, 1.5, 3.5], radius: [0.1, 0.5, 0.9], raw_g: 2000,
  weight_g: null, weight_verdict: null, expected_low_g: 1900, expected_high_g: 1960, shed_g: 60, shed_low_g: 40,
  shed_high_g: 90, gain: null, cold: { state: 'pending', says: null }, care: [], container: null, place: 'Fridge',
  place_id: 1, free_salt: false, open_salt: false, pierced: false, after: 'rinse', leads: 'diffusion', waits: 'elastic',
  waits_says: '', ...changes,
}); // prettier-ignore

export const ferments = (changes: Partial<Schema['WarmCard']> = {}): Schema['WarmCard'] => ({
  batch: 'J-21', batch_id: 3, product: 'Juniper salame', place: 'Warm box', place_id: 2, pinch_place: null,
  state: 'falling', stuffed_at: inDays(-1), ended_at: null, culture: 'medium', dextrose_percent: 0.4, salt_percent: 2.6,
  setpoint_c: 22, start_ph: 5.8, target_ph: 5, ph_now: 5.5, last_ph: 5.52, last_at: inDays(-0.2), measured_at: null,
  measure_next: inDays(0.2), meters_differ: null, causes: [], possible: [],
  crosses: { p10: inDays(0.2), p50: inDays(0.3), p90: inDays(0.5) },
  reaches_target: { p10: inDays(0.6), p50: inDays(0.8), p90: inDays(1.2) },
  allowance: {
    used: 140, limit: 660, unit: '°C h', profile: 'USA', share: 140 / 660, runs_out: inDays(2), at_c: 22, gaps: 0,
  },
  ...changes,
}); // prettier-ignore
