import { beforeEach, expect, test } from 'vitest';

import { FakeServer } from '../../testing/server';
import { Round, type RoundPiece } from './round.svelte';

const piece = (id: number): RoundPiece => ({
  id,
  tag: `J-0${id}`,
  batch: 'J',
  product: 'Salame',
  rod: 1,
  hook: id,
  start_weight_g: 850,
  tare_g: 11,
  target_weight_g: 550,
  last_g: 700,
  last_at: null,
  expected_low_g: 640,
  expected_high_g: 660,
  ask_low_g: 610,
  ask_high_g: 705,
  why: null,
});
interface Sent {
  entries: { uid: string; piece_id: number; gross_g: number; confirmed: boolean }[];
}
const settled = (): Promise<void> => new Promise((done) => setTimeout(done, 15));
/** A server that answers whatever it is sent. */
class Scale extends FakeServer {
  line = true;
  refuse = new Set<number>();
  override async answer(request: Request): Promise<Response> {
    if (!this.line) throw new TypeError('no connection');
    const body = (await request.clone().json()) as Sent;
    this.on('/api/round', {
      body: {
        answers: (body.entries ?? []).map((e, i) => ({
          uid: e.uid,
          piece_id: e.piece_id,
          tag: '',
          outcome: this.refuse.has(e.piece_id) ? 'refused' : 'stored',
          text: '',
          weighing_id: 70 + i,
          loss_percent: 20,
          ready: null,
          state: 'drying',
          wants: [],
        })),
      },
    });
    return super.answer(request);
  }
}
const enter = (round: Round, text: string): void => {
  round.text = text;
  round.enter();
};

beforeEach(() => localStorage.clear());

test('weights go on in order, a far one is asked about and noted when entered twice', async () => {
  const server = new Scale();
  const round = new Round(1, [piece(1), piece(2), piece(3)]);
  enter(round, '651,5');
  expect(round.piece?.tag).toBe('J-02');
  enter(round, '560');
  expect([round.question, round.piece?.tag]).toEqual(['far', 'J-02']);
  round.enter();
  expect(round.piece?.tag).toBe('J-03');
  enter(round, '9');
  expect(round.question).toBe('tare');
  round.text = '';
  round.enter(); // skipped
  expect(round.over).toBe(true);
  await settled();
  const sent = (server.bodies('/api/round') as Sent[]).flatMap((b) => b.entries);
  expect(sent.map((e) => [e.piece_id, e.gross_g, e.confirmed])).toEqual([
    [1, 651.5, false],
    [2, 560, true],
  ]);
});

test('without a connection weights stay on the device and are sent once when it is back', async () => {
  const server = new Scale();
  server.line = false;
  const round = new Round(1, [piece(1), piece(2)], undefined, 5);
  enter(round, '650');
  enter(round, '648');
  await settled();
  expect(round.waiting).toBe(2);
  server.line = true;
  await settled();
  await settled();
  expect(round.waiting).toBe(0);
  const sent = (server.bodies('/api/round') as Sent[]).flatMap((b) => b.entries.map((e) => e.uid));
  expect(new Set(sent).size).toBe(2);
  round.finish();
  expect(localStorage.getItem('zymon.round.1')).toBeNull();
});

test('a reload goes on where the round was, with what it still holds', async () => {
  const server = new Scale();
  server.line = false;
  const before = new Round(1, [piece(1), piece(2)], undefined, 60_000);
  enter(before, '650');
  await settled();
  server.line = true;
  const after = new Round(1, [piece(1), piece(2)]);
  expect(after.piece?.tag).toBe('J-02');
  await settled();
  expect(after.waiting).toBe(0);
});

test('back takes the weight back and strikes what was stored', async () => {
  const server = new Scale();
  server.on('/api/weighings/70/strike', { body: {} });
  const round = new Round(1, [piece(1), piece(2)]);
  enter(round, '650');
  await settled();
  await round.back();
  expect([round.piece?.tag, round.text, round.entries.length]).toEqual(['J-01', '650', 0]);
  expect(server.bodies('/api/weighings/70/strike')).toHaveLength(1);
});

test('a refused weight is said and not sent again', async () => {
  const server = new Scale();
  server.refuse.add(1);
  const round = new Round(1, [piece(1)]);
  enter(round, '650');
  await settled();
  expect(round.entries[0]?.state).toBe('refused');
  await round.send();
  expect(server.bodies('/api/round')).toHaveLength(1);
});
