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

it('notes where the meat lay and until when, or how warm it was mixed', async () => {
  const path = '/api/batches/7/meat';
  const server = new FakeServer().on(path, { status: 201, body: {} });
  const settling = new Settling(() => 7, vi.fn());
  settling.open('cold_mix', 'meat', ledger);
  expect(settling.lay).toBe('mix');
  settling.typed.c = '3,5';
  settling.place = 4; // chosen before, and of no concern to a temperature
  await settling.send();
  settling.open('cold_cure', 'meat', ledger);
  expect(settling.lay).toBe('cold');
  settling.when.type('2026-09-01 18:00');
  settling.until.type('2026-09-02 7:00');
  settling.typed.c = '';
  await settling.send();
  expect(server.bodies(path)).toMatchObject([
    { kind: 'mix', temperature_c: 3.5, place_id: null, to_at: null },
    { kind: 'cold', temperature_c: null, place_id: 4, to_at: expect.stringMatching(/^2026-09-0/) as string },
  ]);
});
