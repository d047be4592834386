import { describe, expect, it, vi } from 'vitest';

import type { Schema } from '../../api/client';
import { session } from '../../shell/session.svelte';
import { FakeServer } from '../../testing/server';
import { WeighEntry } from './weigh.svelte';

const card = { id: 4, tag: 'J-14-03' } as Schema['PieceCard'];
const stored = { made: [{ what: 'weighing', id: 12 }] } as Schema['Weighed'];
const PATH = '/api/pieces/4/weighings';

describe('weighing a piece', () => {
  it('stores the typed weight, a decimal comma too, and can be undone', async () => {
    const server = new FakeServer().on(PATH, { status: 201, body: stored });
    server.on('/api/undo', { body: [] });
    const refresh = vi.fn();
    const entry = new WeighEntry(() => card, refresh);
    entry.text = '655,5';
    expect(await entry.store()).toBe(true);
    expect(server.bodies(PATH)).toMatchObject([{ gross_g: 655.5, sure: false }]);
    await session.undo();
    expect(server.bodies('/api/undo')).toMatchObject([{ made: stored.made, reason: 'undone at once' }]);
    expect(refresh).toHaveBeenCalledTimes(2);
  });

  it('undoes both readings where a second one confirmed the first', async () => {
    const doubt = { status: 409, body: { code: 'doubtful', detail: 'far off' } };
    const both = {
      made: [
        { what: 'weighing', id: 21 },
        { what: 'weighing', id: 22 },
      ],
    };
    const server = new FakeServer().on(PATH, doubt, { status: 201, body: both });
    server.on('/api/undo', { body: [] });
    const entry = new WeighEntry(() => card, vi.fn());
    entry.text = '612';
    await entry.store();
    entry.again();
    expect([entry.text, entry.first, entry.question]).toEqual(['', 612, null]);
    entry.text = '613';
    await entry.store();
    expect(server.bodies(PATH)[1]).toMatchObject({ gross_g: 613, first_g: 612 });
    expect(entry.first).toBeNull();
    await session.undo();
    expect(server.bodies('/api/undo')).toMatchObject([{ made: both.made }]);
  });

  it('asks about a doubtful one, keeps its digits, and stores it when it is kept', async () => {
    const doubt = { status: 409, body: { code: 'doubtful', detail: 'digits swapped? 691' } };
    const server = new FakeServer().on(PATH, doubt, { status: 201, body: stored });
    const entry = new WeighEntry(() => card, vi.fn());
    entry.text = '196';
    expect(await entry.store()).toBe(false);
    expect([entry.question, entry.text]).toEqual(['digits swapped? 691', '196']);
    expect(await entry.store(true)).toBe(true);
    expect(server.bodies(PATH)[1]).toMatchObject({ gross_g: 196, sure: true });
  });

  it('sends once though Enter is struck twice, and keeps digits typed meanwhile', async () => {
    const server = new FakeServer().on(PATH, { status: 201, body: stored });
    const entry = new WeighEntry(() => card, vi.fn());
    entry.text = '655';
    const first = entry.store();
    entry.text = '612';
    await Promise.all([first, entry.store()]);
    expect(server.bodies(PATH)).toHaveLength(1);
    expect(entry.text).toBe('612');
  });

  it('says what went wrong and loses nothing', async () => {
    new FakeServer().on(PATH, 'unreachable');
    const entry = new WeighEntry(() => card, vi.fn());
    entry.text = 'six hundred';
    await entry.store();
    expect(entry.problem).toContain('Type a number');
    entry.text = '612';
    await entry.store();
    expect(entry.problem).toContain('does not answer');
    expect(entry.text).toBe('612');
  });
});
