import { expect, it } from 'vitest';

import { FakeServer } from '../../testing/server';
import { Importing } from './importing.svelte';

const PREVIEW = '/api/imports/preview';
const file = new File(['time,temperature_c,rh_percent\n'], 'log.csv');
const seen = (more: object): { body: unknown } => ({
  body: { token: 'abc', new: 12, same: 0, asks: [], error_count: 0, ...more },
});
/** A server that does not read the file. */
class Reader extends FakeServer {
  override async answer(request: Request): Promise<Response> {
    if (!request.url.endsWith(PREVIEW)) return super.answer(request);
    return super.answer(new Request('http://zymon.test' + PREVIEW, { method: 'POST' }));
  }
}

it('stores nothing before it was shown and confirmed', async () => {
  const server = new Reader().on(PREVIEW, seen({})).on('/api/imports/abc', { body: { rows_new: 12 } });
  const bring = new Importing(3);
  expect(await bring.confirm()).toBeNull();
  await bring.read(file);
  expect([bring.step, bring.blocked]).toEqual(['shown', false]);
  expect(server.bodies('/api/imports/abc')).toEqual([]);
  expect(await bring.confirm()).toEqual({ rows_new: 12 });
});

it('waits for what it has to ask, and for a word on rows with faults', async () => {
  const server = new Reader().on(PREVIEW, seen({ asks: ['temperature_unit'] }), seen({ error_count: 2 }));
  server.on('/api/imports/abc', { body: { rows_new: 10 } });
  const bring = new Importing(3);
  await bring.read(file);
  expect(bring.blocked).toBe(true);
  await bring.say('F');
  expect(bring.blocked).toBe(true); // two rows are wrong: nothing is left out unasked
  bring.leaveOut = true;
  expect(bring.blocked).toBe(false);
  await bring.confirm();
  expect(server.bodies('/api/imports/abc')).toMatchObject([{ leave_out_faults: true }]);
});

it('has nothing to store where all is stored already', async () => {
  new Reader().on(PREVIEW, seen({ new: 0, same: 12 }));
  const bring = new Importing(3);
  await bring.read(file);
  expect(bring.blocked).toBe(true);
});

it('says why a file cannot be read, and why it could not be stored, and can be tried again', async () => {
  const refused = { status: 422, body: { code: 'file', detail: 'row 3: humidity 180 %' } };
  const server = new Reader().on(PREVIEW, refused, seen({}));
  server.on('/api/imports/abc', 'unreachable');
  const bring = new Importing(3);
  await bring.read(file);
  expect([bring.step, bring.problem]).toEqual(['choose', 'row 3: humidity 180 %']);
  await bring.read(file);
  expect(await bring.confirm()).toBeNull();
  expect([bring.step, bring.problem]).toEqual(['shown', expect.stringContaining('does not answer')]);
});
