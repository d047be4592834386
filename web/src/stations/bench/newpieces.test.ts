import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { FakeServer } from '../../testing/server';
import { NewPieces } from './newpieces.svelte';

const PIECES = '/api/batches/4/pieces';

function making(plan: object = {}): NewPieces {
  const usual = {
    goods: 'minced',
    shape: 'cylinder',
    target_loss_percent: 35,
    done_by: 'weight',
    loss_basis: 'hung',
  };
  const batch = { id: 4, sheet: { plan: { ...usual, ...plan } } } as unknown as Schema['BatchOut'];
  return new NewPieces(() => batch, 'natural');
}
const sent = (server: FakeServer): Schema['MadePieceIn'][] =>
  server.bodies(PIECES).flatMap((body) => (body as { pieces: Schema['MadePieceIn'][] }).pieces);

describe('pieces as they are made', () => {
  it('are sent with what holds for all of them, and the fields are free for the next one', async () => {
    const server = new FakeServer().on(PIECES, { status: 201, body: {} });
    const pieces = making();
    Object.assign(pieces.tare, { casing: '8', string: '5,5' });
    Object.assign(pieces.one, { gross: '812', across: '61', length: '400' });
    expect(await pieces.add()).not.toBeNull();
    expect(sent(server)).toEqual([
      {
        tag: null,
        mix_id: null,
        gross_g: 812,
        casing_g: 8,
        net_g: 0,
        string_g: 5.5,
        coat_g: 0,
        raw_g: null,
        cured_g: null,
        diameter_mm: 61,
        thickness_mm: null,
        length_mm: 400,
        casing: 'natural',
        target_loss_percent: 35,
        loss_basis: 'hung',
      },
    ]);
    expect(pieces.one).toMatchObject({ gross: '', across: '61', length: '400' }); // measures stay for the next
  });
  it('that are flat have a thickness, and no target where they are done by feel', async () => {
    const server = new FakeServer().on(PIECES, { status: 201, body: {} });
    await making({ shape: 'slab', done_by: 'feel' }).addAll([{ tag: ' B-1 ', across: '38' }]);
    expect(sent(server)[0]).toMatchObject({
      tag: 'B-1',
      gross_g: null,
      diameter_mm: null,
      thickness_mm: 38,
      target_loss_percent: null,
    });
  });
  it('are not sent where a number cannot be read, and say which', async () => {
    const server = new FakeServer();
    const pieces = making();
    for (const [gross, said] of [
      ['', 'Type a number'],
      ['8l2', '8l2'],
    ]) {
      pieces.one.gross = gross as string;
      expect(await pieces.add()).toBeNull();
      expect(pieces.problem).toContain(said);
    }
    expect(pieces.fault({ gross: '812', across: 'wide' })).toContain('wide');
    expect(pieces.fault({ gross: '812', across: '61' })).toBeNull();
    expect(server.bodies(PIECES)).toEqual([]);
  });
  it('that are refused stand in their fields again, with the reason', async () => {
    new FakeServer().on(PIECES, { status: 409, body: { code: 'clash', detail: 'the tag J-1 is taken' } });
    const pieces = making();
    Object.assign(pieces.one, { gross: '812', tag: 'J-1' });
    expect(await pieces.add()).toBeNull();
    expect(pieces.one).toMatchObject({ gross: '812', tag: 'J-1' });
    expect(pieces.problem).toContain('J-1 is taken');
    expect(pieces.busy).toBe(false);
  });
  it('are sent once, however quickly Enter is struck', async () => {
    const server = new FakeServer().on(PIECES, { status: 201, body: {} });
    const pieces = making();
    pieces.one.gross = '812';
    await Promise.all([pieces.add(), pieces.add()]);
    expect(sent(server)).toHaveLength(1);
  });
});
