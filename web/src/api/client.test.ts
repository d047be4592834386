import { describe, expect, it } from 'vitest';

import { connection } from '../shell/connection.svelte';
import { KEPT_AT } from '../worker/kept';
import { FakeServer } from '../testing/server';
import { api, ProblemError, take } from './client';

const line = (): Promise<unknown> => take(api.GET('/api/line'));
const refused = async (): Promise<ProblemError> => line().then(() => expect.fail('it was answered'), (error: ProblemError) => error); // prettier-ignore

describe('an answer of the server', () => {
  it('is what it says, or nothing where it is done and there is nothing to say', async () => {
    new FakeServer().on('/api/line', { body: { at_rest: 2 } });
    expect(await line()).toEqual({ at_rest: 2 });
  });

  it('refused is told in the words of the reader where it came as a code, else as it came', async () => {
    const server = new FakeServer().on('/api/line', {
      status: 422,
      body: {
        code: 'out_of_range',
        detail: 'Look after the copies',
        said: { code: 'today.no_copy', values: {} },
        where: 'gross_g',
      },
    });
    expect(await refused()).toMatchObject({
      code: 'out_of_range',
      message: 'Look after the copies: there is none yet',
      where: 'gross_g',
    });
    server.on('/api/line', { status: 409, body: { detail: 'That hook is taken' } });
    expect(await refused()).toMatchObject({ code: 'error', message: 'That hook is taken', where: null });
  });

  it('that is none of ours says that something went wrong, with its number', async () => {
    new FakeServer().on('/api/line', { status: 502, body: 'Bad gateway' });
    expect((await refused()).message).toContain('502');
  });

  it('that never came is told apart from a refusal', async () => {
    new FakeServer().on('/api/line', 'unreachable');
    expect((await refused()).code).toBe('unreachable');
  });
});

describe('answers from memory', () => {
  const answer = (kept?: string): Response =>
    new Response('{}', { headers: kept ? { [KEPT_AT]: kept } : {} });
  it('are as old as the latest of them, until the server answers again', () => {
    connection.heard(answer('2026-11-24T09:00:00Z'));
    connection.heard(answer('2026-11-24T08:00:00Z'));
    expect(connection.keptAt).toBe('2026-11-24T09:00:00Z');
    connection.heard(answer('2026-11-24T09:30:00Z'));
    expect(connection.keptAt).toBe('2026-11-24T09:30:00Z');
    connection.heard(answer());
    expect(connection.keptAt).toBeNull();
  });
});
