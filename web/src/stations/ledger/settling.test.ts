import { beforeEach, expect, it, vi } from 'vitest';

import type { Schema } from '../../api/client';
import { session } from '../../shell/session.svelte';
import { FakeServer } from '../../testing/server';
import { Settling } from './settling.svelte';

const ledger = {
  use: 'raw',
  done_by: 'weight',
  species: ['beef'],
  lab_units: {
    water_activity: [''],
    salt: ['%'],
    listeria: ['cfu/g', 'in 25 g'],
    staphylococcal_enterotoxin: [''],
  },
} as unknown as Schema['LedgerOut'];
beforeEach(() => (session.who = 'Ida'));

it('opens with what the batch is known to be, in the units that the server takes', () => {
  const settling = new Settling(() => 7, vi.fn());
  settling.open('parasite', 'parasites', ledger);
  expect([settling.species, settling.hurdle]).toEqual(['beef', 'parasite']);
  settling.open('salt', 'laboratory', ledger);
  expect([settling.what, settling.unit, settling.isFound]).toEqual(['salt', '%', false]);
  settling.pick('listeria');
  expect(settling.unit).toBe('cfu/g');
  settling.open('degree_hours', 'laboratory', ledger);
  expect([settling.what, settling.isFound]).toEqual(['staphylococcal_enterotoxin', true]);
});

it('sends what went in, and leaves out what nobody said', async () => {
  const path = '/api/batches/7/went-in';
  const server = new FakeServer().on(path, { status: 201, body: { code: 'J-1' } });
  const took = vi.fn();
  const settling = new Settling(() => 7, took);
  settling.open('nitrite_in', 'went_in', ledger);
  settling.curing = 'weighed';
  Object.assign(settling.typed, { curing: '0,25', nitrite: '6.25' });
  await settling.send();
  expect(server.bodies(path)).toMatchObject([
    {
      species: null,
      fat_percent: null,
      curing: 'weighed',
      curing_salt: { percent: 0.25, nitrite_fraction: 0.0625, nitrate_fraction: 0 },
      by: 'Ida',
    },
  ]);
  expect(took).toHaveBeenCalledOnce();
  expect(settling.entry).toBeNull();
});

it('says what is wrong and keeps what is typed', async () => {
  const path = '/api/batches/7/laboratory';
  const server = new FakeServer().on(path, { status: 201, body: {} });
  const settling = new Settling(() => 7, vi.fn());
  settling.open('dry_enough', 'laboratory', ledger);
  settling.typed.value = 'much';
  await settling.send();
  expect([server.bodies(path).length, settling.fault, settling.entry]).toEqual([
    0,
    expect.any(String),
    'laboratory',
  ]);
});

it('asks about an odd pH and sends it as sure when it is kept', async () => {
  const settling = new Settling(() => 7, vi.fn());
  settling.open('acid', 'measure_ph', ledger);
  settling.typed.value = '3,6';
  const path = '/api/batches/7/ph';
  const doubt = { status: 409, body: { code: 'doubtful', detail: 'is that right?' } };
  const server = new FakeServer().on(path, doubt, { status: 201, body: {} });
  await settling.send();
  expect([settling.asked, settling.fault]).toEqual([true, 'is that right?']);
  await settling.send(true);
  expect(server.bodies(path)).toMatchObject([{ sure: false }, { sure: true }]);
  expect(settling.entry).toBeNull();
});
