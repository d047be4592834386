import { beforeEach, expect, it } from 'vitest';

import { session } from '../../shell/session.svelte';
import { FakeServer } from '../../testing/server';
import { PlaceForm, type What } from './placeform.svelte';

const PLACES = '/api/places';
let server: FakeServer;
beforeEach(() => {
  session.who = 'Ida';
  server = new FakeServer().on(PLACES, { status: 201, body: { id: 4 } });
});

const sent = async (form: PlaceForm): Promise<unknown> => {
  form.name = 'Fridge';
  await form.make();
  return server.bodies(PLACES).at(-1);
};

it('a household fridge has a shelf, no rods, and nothing is set in it', async () => {
  const form = new PlaceForm();
  form.pick('household_fridge');
  expect([form.shelves, form.controlled, form.rods, form.temperature]).toEqual([true, false, '1', '']);
  expect(await sent(form)).toMatchObject({
    kind: 'chamber',
    sort: 'household_fridge',
    stirring: null,
    hooks_per_rod: [6],
    setpoint: { temperature_c: null, rh_percent: null },
  });
});

it.each<[What, object]>([
  [
    'drying_chamber',
    { kind: 'chamber', sort: 'drying_chamber', setpoint: { temperature_c: 13, rh_percent: 78 } },
  ],
  ['cellar', { kind: 'chamber', sort: 'cellar', setpoint: { temperature_c: null, rh_percent: null } }],
  ['salt', { kind: 'salt', sort: null, hooks_per_rod: [], setpoint: { temperature_c: 3, rh_percent: null } }],
  ['warm', { kind: 'warm', sort: null, hooks_per_rod: [], setpoint: { temperature_c: 24, rh_percent: 90 } }],
])('%s is sent as what it is', async (what, wanted) => {
  const form = new PlaceForm();
  form.pick(what);
  expect(await sent(form)).toMatchObject(wanted);
});

it('says how the air moves where somebody knows better than what is usual', async () => {
  const form = new PlaceForm();
  form.pick('cellar');
  form.stirring = 'still';
  expect(await sent(form)).toMatchObject({ sort: 'cellar', stirring: 'still' });
});

it('wants a number of rods that there can be', async () => {
  const form = new PlaceForm();
  form.rods = '0';
  await expect(form.make()).rejects.toThrow('1–40');
  expect(server.bodies(PLACES)).toHaveLength(0);
});
