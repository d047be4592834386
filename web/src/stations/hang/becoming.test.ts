import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

import { FakeServer } from '../../testing/server';
import { Becoming, HOW, type Kind } from './becoming.svelte';

const PIECE = { id: 7, tag: 'J-21-02' };
const AGAINST = '/api/pieces/7/against';
const DOWN = '/api/pieces/7/take-down';
const THERE = '/api/pieces/7/become';

describe('taking a piece down', () => {
  let server: FakeServer;
  beforeEach(() => {
    server = new FakeServer().on(AGAINST, { body: { says: [] } }).on(DOWN, { body: { card: {} } });
  });
  afterEach(() => void vi.useRealTimers());

  it('asks for its weight or that it was not weighed, before anything is sent', async () => {
    const form = new Becoming(PIECE, true);
    expect(await form.go()).toBeNull();
    const missing = form.problem;
    form.weight = 'much';
    expect(await form.go()).toBeNull();
    expect(form.problem).not.toBe(missing);
    expect(server.bodies(DOWN)).toEqual([]);
    form.weight = '';
    form.notWeighed = true;
    expect(await form.go()).toEqual({ card: {} });
    expect(server.bodies(DOWN)).toMatchObject([{ gross_g: null, not_weighed: true, first_g: null }]);
  });

  it('sends its weight, where it goes and how', async () => {
    const form = new Becoming(PIECE, true);
    form.weight = '641,5';
    form.place = 3;
    form.note = 'firm all over';
    await form.go();
    expect(server.bodies(DOWN)).toMatchObject([
      { gross_g: 641.5, kind: 'resting', how: 'vacuum', place_id: 3, note: 'firm all over', sure: false },
    ]);
  });

  it('weighed a second time keeps what it weighed first', async () => {
    const form = new Becoming(PIECE, true);
    form.weight = '461';
    expect(form.firstShown).toBeNull();
    form.again();
    expect([form.weight, form.firstShown]).toEqual(['', expect.stringContaining('461')]);
    form.weight = '641';
    await form.go();
    expect(server.bodies(DOWN)).toMatchObject([{ gross_g: 641, first_g: 461 }]);
  });

  it('a weight that is doubted is a question, and counts once it is answered', async () => {
    const doubtful = { status: 409, body: { code: 'doubtful', detail: 'Far from the 640–660 g expected' } };
    server.on(DOWN, doubtful, { body: { card: {} } });
    const form = new Becoming(PIECE, true);
    form.weight = '461';
    expect(await form.go()).toBeNull();
    expect([form.question, form.problem]).toEqual(['Far from the 640–660 g expected', null]);
    expect(await form.go(true)).not.toBeNull();
    expect(server.bodies(DOWN)).toMatchObject([{ sure: false }, { sure: true }]);
  });

  it('that is refused or cut off says so and keeps what was typed', async () => {
    server.on(
      DOWN,
      { status: 409, body: { code: 'clash', detail: 'It was taken down already' } },
      'unreachable',
    );
    const form = new Becoming(PIECE, true);
    form.weight = '641';
    expect(await form.go()).toBeNull();
    expect([form.problem, form.weight, form.busy]).toEqual(['It was taken down already', '641', false]);
    expect(await form.go()).toBeNull();
    expect(form.problem).not.toBe('It was taken down already');
  });

  it('is sent once however often it is tapped', async () => {
    const form = new Becoming(PIECE, true);
    form.weight = '641';
    const [first, second] = await Promise.all([form.go(), form.go()]);
    expect([first !== null, second]).toEqual([true, null]);
    expect(server.bodies(DOWN)).toHaveLength(1);
  });

  it('looks at what stands against it at the weight that is typed, once the typing pauses', async () => {
    vi.useFakeTimers();
    const form = new Becoming(PIECE, true);
    form.notWeighed = true;
    form.weight = '64';
    form.typed();
    form.weight = '641';
    form.typed();
    expect(form.notWeighed).toBe(false);
    await vi.advanceTimersByTimeAsync(300);
    expect(server.bodies(AGAINST)).toHaveLength(2); // when it was opened, and once for both strokes
    expect(form.against).toEqual({ says: [] });
  });

  it('does without knowing what stands against it; it is asked again when it is taken down', async () => {
    server.on(AGAINST, 'unreachable');
    const form = new Becoming(PIECE, true);
    await form.look();
    expect([form.against, form.problem]).toEqual([null, null]);
  });
});

describe('what becomes of a piece that is down', () => {
  it('needs no weight, and is no taking down', async () => {
    const server = new FakeServer().on(THERE, { body: { card: {} } });
    const form = new Becoming(PIECE, false);
    form.pick('gone');
    expect(await form.go()).not.toBeNull();
    expect(server.bodies(THERE)).toMatchObject([{ kind: 'gone', how: 'eaten', place_id: null }]);
    expect(server.bodies(AGAINST)).toEqual([]);
  });

  it.each(Object.keys(HOW) as Kind[])('%s begins with its usual way', (kind) => {
    const form = new Becoming(PIECE, false);
    form.pick(kind);
    expect([form.kind, form.how]).toEqual([kind, HOW[kind][0]]);
  });
});
