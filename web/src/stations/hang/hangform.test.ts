import { beforeEach, describe, expect, it, vi } from 'vitest';

import type { Schema } from '../../api/client';
import { FakeServer } from '../../testing/server';
import { HangForm } from './hangform.svelte';

const TAG = '/api/places/3/tag';
const said = (target_weight_g: number): Schema['TagPreview'] => ({ target_weight_g }) as Schema['TagPreview'];
const settled = (): Promise<unknown> => vi.advanceTimersByTimeAsync(400);

function filled(): HangForm {
  const form = new HangForm(3);
  Object.assign(form, {
    product: 'Juniper salame',
    batch: 'J-14',
    tag: 'J-14-03',
    start: '842',
    rodId: 7,
    hook: 2,
  });
  return form;
}

describe('hanging a piece', () => {
  beforeEach(() => {
    vi.useFakeTimers();
    return () => vi.useRealTimers();
  });

  it('asks what the tag would say once the keys are at rest, not at every one', async () => {
    const server = new FakeServer().on(TAG, { body: said(540) });
    const form = filled();
    for (const text of ['8', '84', '842']) {
      form.start = text;
      form.changed();
      await vi.advanceTimersByTimeAsync(50);
    }
    await settled();
    expect(server.bodies(TAG)).toHaveLength(1);
    expect(form.preview?.target_weight_g).toBe(540);
  });

  it('forgets a preview that the next keystroke overtook', async () => {
    const server = new FakeServer().on(TAG, { body: said(540) }, { body: said(700) });
    const form = filled();
    form.changed();
    await vi.advanceTimersByTimeAsync(180);
    form.start = '';
    form.changed();
    await settled();
    expect([form.preview, server.bodies(TAG).length]).toEqual([null, 1]);
  });

  it('refuses a measure that is no number instead of dropping it', async () => {
    const server = new FakeServer();
    const form = filled();
    form.diameter = '6o';
    expect(await form.hang()).toBeNull();
    expect(form.problem).toMatchObject({ where: 'diameter_mm', message: expect.stringContaining('“6o”') });
    form.diameter = '60';
    form.tare = '1l';
    expect(await form.hang()).toBeNull();
    expect(form.problem?.where).toBe('tare_g');
    form.start = '';
    form.tare = '11';
    expect(await form.hang()).toBeNull();
    expect(form.problem?.where).toBe('start_weight_g');
    expect(server.bodies('/api/pieces')).toEqual([]);
    expect(form.busy).toBe(false);
  });

  it('sends the measure that its shape has: thickness of a slab, diameter of the rest', async () => {
    const server = new FakeServer().on('/api/pieces', { status: 201, body: { card: { id: 5 } } });
    const form = filled();
    Object.assign(form, { diameter: '58', thickness: '35' });
    await form.hang();
    form.kind = 'belly';
    form.takeKind();
    await form.hang();
    expect(server.bodies('/api/pieces')).toMatchObject([
      { shape: 'cylinder', diameter_mm: 58, thickness_mm: null, casing: 'natural', target_loss_percent: 35 },
      { shape: 'slab', diameter_mm: null, thickness_mm: 35, casing: 'none', target_loss_percent: 28 },
    ]);
  });

  it('says what the server refused, at the field it means, and keeps what was typed', async () => {
    const refused = { status: 409, body: { code: 'clash', detail: 'J-14-03 hangs already', where: 'tag' } };
    new FakeServer().on('/api/pieces', refused);
    const form = filled();
    expect(await form.hang()).toBeNull();
    expect([form.problem?.message, form.problem?.where, form.start]).toEqual([
      'J-14-03 hangs already',
      'tag',
      '842',
    ]);
  });

  it('starts from a mate with the next tag, and from a piece of the Bench with its measures', () => {
    const form = new HangForm(3);
    form.like(
      { product: 'Neck', kind: 'whole_muscle', shape: 'irregular', batch: 'N-07', target_loss_percent: 36, tare_g: 14 } as Schema['PieceCard'],
      { casing: 'natural', fat_percent: 12, salt_percent: null } as Schema['PieceOut'],
      [{ tag: 'N-07-01' }, { tag: 'N-07-02' }],
    ); // prettier-ignore
    expect([form.tag, form.tare, form.fat, form.salt]).toEqual(['N-07-03', '14', '12', '']);
    form.takeWaiting({
      product: 'Flat belly', kind: 'belly', shape: 'slab', casing: 'none', batch: 'B-11', tag: 'B-11-02',
      gross_g: 1480, tare_g: 6, target_loss_percent: 27.4, diameter_mm: null, thickness_mm: 38, length_mm: null,
      fat_percent: 43, salt_percent: 2.6,
    } as Schema['WaitingPiece']); // prettier-ignore
    expect(form.body()).toMatchObject({
      tag: 'B-11-02',
      start_weight_g: 1480,
      thickness_mm: 38,
      length_mm: null,
    });
  });
});
