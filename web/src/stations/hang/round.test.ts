import { beforeEach, expect, test, vi } from 'vitest';

import { session } from '../../shell/session.svelte';
import { FakeServer } from '../../testing/server';
import { Outbox } from './outbox.svelte';
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
  tag_g: 550,
  last_g: 700,
  last_at: null,
  expected_low_g: 640,
  expected_high_g: 660,
  ask_low_g: 610,
  ask_high_g: 705,
  why: null,
});
interface Sent {
  by: string;
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
  const round = new Round(1, [piece(1), piece(2), piece(3)], new Outbox());
  enter(round, '651,5');
  expect(round.piece?.tag).toBe('J-02');
  enter(round, '560');
  expect([round.question, round.piece?.tag]).toEqual(['far', 'J-02']);
  round.enter();
  expect(round.piece?.tag).toBe('J-03');
  enter(round, '9');
  expect(round.question).toBe('tare');
  enter(round, 'six');
  expect(round.question).toBe('unread');
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
  const box = new Outbox(5);
  const round = new Round(1, [piece(1), piece(2)], box);
  enter(round, '650');
  enter(round, '648');
  await settled();
  expect([round.waiting, box.cut]).toEqual([2, true]);
  round.finish(); // the maker leaves the page: what waits is not forgotten
  server.line = true;
  await settled();
  await settled();
  expect([round.waiting, box.cut]).toEqual([0, false]);
  const sent = (server.bodies('/api/round') as Sent[]).flatMap((b) => b.entries.map((e) => e.uid));
  expect(new Set(sent).size).toBe(2);
  round.finish();
  expect(localStorage.length).toBe(0);
});

test('a reload sends what was left and goes on where the round was', async () => {
  const server = new Scale();
  server.line = false;
  enter(new Round(1, [piece(1), piece(2)], new Outbox(60_000)), '650');
  await settled();
  server.line = true;
  const box = new Outbox(); // no round was begun yet
  await settled();
  expect(box.waiting).toHaveLength(0);
  expect(new Round(1, [piece(1), piece(2)], box).piece?.tag).toBe('J-02');
  expect(new Round(2, [piece(1), piece(2)], box).piece?.tag).toBe('J-01'); // another place's round is its own
});

test('a round of last week is no part of today’s, but what never left the device is', async () => {
  const server = new Scale();
  const lastWeek = (): string => '2026-11-17T08:00:00Z';
  const before = new Outbox(60_000);
  enter(new Round(1, [piece(1)], before, lastWeek), '650');
  await settled();
  server.line = false;
  enter(new Round(1, [piece(2)], before, lastWeek), '648');
  await settled();
  const today = new Outbox(60_000, Date.parse('2026-11-24T08:00:00Z'));
  expect(today.of(1).map((e) => [e.piece_id, e.state])).toEqual([[2, 'waiting']]);
});

test('two pages of one device do not overwrite each other’s weights', async () => {
  const server = new Scale();
  server.line = false;
  const one = new Round(1, [piece(1)], new Outbox(60_000));
  const other = new Round(1, [piece(2)], new Outbox(60_000));
  enter(one, '650');
  enter(other, '648');
  await settled();
  expect(new Outbox(60_000).waiting.map((e) => e.piece_id).sort()).toEqual([1, 2]);
});

test('who weighed is who was named when it was typed', async () => {
  const server = new Scale();
  server.line = false;
  const box = new Outbox(60_000);
  const round = new Round(1, [piece(1), piece(2)], box);
  session.rename('Ida');
  enter(round, '650');
  session.rename('Berto');
  enter(round, '648');
  await settled();
  server.line = true;
  await box.send();
  expect((server.bodies('/api/round') as Sent[]).map((b) => b.by)).toEqual(['Ida', 'Berto']);
});

test('back takes the weight back and strikes what was stored', async () => {
  const server = new Scale();
  server.on('/api/weighings/70/strike', { body: {} });
  const round = new Round(1, [piece(1), piece(2)], new Outbox());
  enter(round, '650');
  await settled();
  await round.back();
  expect([round.piece?.tag, round.text, round.entries.length]).toEqual(['J-01', '650', 0]);
  expect(server.bodies('/api/weighings/70/strike')).toHaveLength(1);
});

test('a refused weight is said and not sent again', async () => {
  const server = new Scale();
  server.refuse.add(1);
  const box = new Outbox();
  const round = new Round(1, [piece(1)], box);
  enter(round, '650');
  await settled();
  expect(round.entries[0]?.state).toBe('refused');
  await box.send();
  expect(server.bodies('/api/round')).toHaveLength(1);
});

test('where the device has no room the weight stays in the page, is said so, and is sent all the same', async () => {
  const scale = new Scale();
  scale.line = false;
  const full = vi.spyOn(localStorage, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  const complain = vi.spyOn(session, 'complain');
  const round = new Round(3, [piece(1), piece(2)], new Outbox(5));
  enter(round, '651');
  expect(complain.mock.calls[0]?.[0]).toMatchObject({
    message: expect.stringContaining('no room left') as string,
  });
  expect([round.index, round.waiting]).toEqual([1, 1]);
  scale.line = true;
  await settled();
  expect(round.waiting).toBe(0);
  full.mockRestore();
  complain.mockRestore();
});
