import { beforeEach, describe, expect, it, vi } from 'vitest';

import type { Schema } from '../../api/client';
import { words } from '../../words';
import { FakeServer } from '../../testing/server';
import { Correcting } from './correcting.svelte';

const CORRECT = '/api/pieces/4/correct';
const piece = {
  card: { id: 4, hung_at: '2026-09-01T08:00:00Z', start_weight_g: 842, tare_g: 10, target_loss_percent: 35 },
  casing: 'natural',
  diameter_mm: null,
} as Schema['PieceOut'];
const refresh = vi.fn();
let server: FakeServer;
let form: Correcting;

beforeEach(() => {
  server = new FakeServer().on(CORRECT, { body: piece });
  refresh.mockClear();
  form = new Correcting(() => piece, refresh);
});

describe('correcting what was declared', () => {
  it('sends a weight as a number, a comma too, and says why', async () => {
    form.begin('start_weight_g');
    expect(form.text).toBe('842');
    form.text = '824,5';
    form.reason = 'typing slip';
    await form.send();
    expect(server.bodies(CORRECT)).toMatchObject([
      { field: 'start_weight_g', value: 824.5, reason: 'typing slip' },
    ]);
    expect([form.field, refresh.mock.calls.length]).toEqual([null, 1]);
  });

  it('sends nothing for a measure that is not known', async () => {
    form.begin('diameter_mm');
    form.reason = 'never measured';
    await form.send();
    expect(server.bodies(CORRECT)).toMatchObject([{ field: 'diameter_mm', value: null }]);
  });

  it('refuses what is no number without asking the server', async () => {
    form.begin('tare_g');
    form.text = 'ten';
    await form.send();
    expect([form.problem, server.bodies(CORRECT).length]).toEqual([words.errors.noNumber, 0]);
  });

  it('takes the moment it was hung, and wants one', async () => {
    form.begin('hung_at');
    expect(form.hung.open).toBe(true);
    await form.send();
    expect(form.problem).toBe(words.declared.whenHung);
    form.hung.type('2026-08-30 7:30');
    form.reason = 'a day early';
    await form.send();
    expect(server.bodies(CORRECT)).toMatchObject([
      { field: 'hung_at', value: form.hung.at ?? expect.any(String) },
    ]);
  });

  it('asks about what is odd, and sends it again when it is so', async () => {
    server.on(
      CORRECT,
      { status: 409, body: { code: 'doubtful', detail: 'its batch was made after that' } },
      { body: piece },
    );
    form.begin('hung_at');
    form.hung.type('2026-08-01 7:30');
    await form.send();
    expect([form.question, form.field]).toEqual(['its batch was made after that', 'hung_at']);
    await form.send(true);
    expect(server.bodies(CORRECT)).toMatchObject([{ sure: false }, { sure: true }]);
    expect([form.question, form.field]).toEqual([null, null]);
  });
});
