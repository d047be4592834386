// What the Bench offers to pick from, as tests begin with it: one kind of goods, one curing salt, one set of limits.
import type { Schema } from '../api/client';

export const FAMILY = {
  id: 'salame', name: 'Salame', minced: true, belly: false, kind: 'salame', shape: 'cylinder', casing: 'natural',
  salting: 'in_the_mince', salt_percent: 2.7, curing_salt: 'short', curing_salt_percent: 0.25, before_hanging: '',
  warm: 'culture', temperature_c: 13, rh_percent: 80, target_loss_percent: 35, across_mm: 60, piece_g: 900,
  surface: 'mould', hanging: '', fat_percent: 27, species: 'pork',
} as Schema['FamilyOut']; // prettier-ignore
export const SHORT = {
  id: 'short',
  name: 'Short type',
  nitrite_fraction: 0.0625,
  nitrate_fraction: 0,
  says: '',
};
export const REFERENCE: Schema['ReferenceOut'] = {
  families: [FAMILY], curing_salts: [SHORT], schools: {},
  profiles: [{ id: 'us', name: 'USA', as_of: '2025-01', check: 'Check with your authority.', source: '' }],
}; // prettier-ignore
