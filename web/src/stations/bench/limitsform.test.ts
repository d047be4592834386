import { beforeEach, describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { FakeServer } from '../../testing/server';
import { LimitsForm, shortName } from './limitsform.svelte';

const SHIPPED: Schema['LimitProfileIn'] = {
  id: 'us', name: 'Shipped', source: 'a book', as_of: '2026-11', check: 'ask', counted_as: 'ion',
  minced: { nitrite_mg_per_kg: 156, nitrate_mg_per_kg: 1718 },
  intact: { nitrite_mg_per_kg: 625, nitrate_mg_per_kg: 2187 },
  belly: { nitrite_mg_per_kg: 200, nitrate_mg_per_kg: 0 },
  degree_hours: { unit: 'F', threshold: 60, steps: [{ below: 90, limit: 1200 }, { up_to: 100, limit: 1000 }, { limit: 900 }] },
  sources: {},
  residual_as: 'sodium salt',
  listeria_zero: true,
  unchilled: '',
  does_not_know: [],
  made_by: '',
}; // prettier-ignore

describe('limits of the maker’s own', () => {
  let form: LimitsForm;
  beforeEach(() => {
    form = new LimitsForm();
    form.like(SHIPPED);
    form.name = 'Höfe, Blatt 7';
    form.source = 'the office';
    form.asOf = '2026-11';
  });

  it('begin as those they start from, under a name of their own', () => {
    const body = form.body();
    expect(body?.id).toBe('hofe-blatt-7');
    expect(body?.degree_hours).toEqual(SHIPPED.degree_hours);
    expect(body?.belly).toEqual(SHIPPED.belly);
    expect(body?.source).toBe('the office');
  });

  it('are not sent while a figure is missing', async () => {
    const server = new FakeServer();
    form.amounts.minced.nitrite = 'many';
    expect(await form.add()).toBe(false);
    expect(form.fault).not.toBeNull();
    expect(server.bodies('/api/limits')).toHaveLength(0);
  });

  it('take a step more before the last, and let it go again', () => {
    form.addStep();
    expect(form.body()).toBeNull();
    Object.assign(form.steps[2] ?? {}, { limit: '950', to: '104' });
    expect(form.body()?.degree_hours.steps).toHaveLength(4);
    form.dropStep(2);
    expect(form.body()?.degree_hours).toEqual(SHIPPED.degree_hours);
  });

  it('have short names that the records can hold', () => {
    expect(shortName('7 of the valley')).toBe('of-the-valley');
    expect(shortName('x'.repeat(40))).toHaveLength(19);
  });
});
