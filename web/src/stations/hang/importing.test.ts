import { expect, it } from 'vitest';

import { FakeServer } from '../../testing/server';
import { Importing } from './importing.svelte';

const PREVIEW = '/api/imports/preview';
const file = new File(['time,temperature_c,rh_percent\n'], 'log.csv');
const seen = (more: object): { body: unknown } => ({
  body: { token: 'abc', new: 12, same: 0, questions: [], doubtful: [], error_count: 0, ...more },
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
  const unit = { asked: 'unit_temperature', choices: [], offered: null, answer: null };
  const server = new Reader().on(PREVIEW, seen({ questions: [unit] }), seen({ error_count: 2 }));
  server.on('/api/imports/abc', { body: { rows_new: 10 } });
  const bring = new Importing(3);
  await bring.read(file);
  expect([bring.asking, bring.answered, bring.blocked]).toEqual([true, false, true]);
  bring.answers.unit_temperature = 'F';
  expect(bring.answered).toBe(true);
  await bring.readSo();
  expect([bring.asking, bring.blocked]).toEqual([false, true]); // two rows are wrong: nothing is left out unasked
  bring.leaveOut = true;
  expect(bring.blocked).toBe(false);
  await bring.confirm();
  expect(server.bodies('/api/imports/abc')).toMatchObject([{ leave_out_faults: true, keep: [], leave: [] }]);
});

it('offers what is likely, says what was answered before, and asks anew when told to', async () => {
  const zone = { asked: 'zone', choices: [], offered: 'Europe/Rome', answer: 'UTC' };
  new Reader().on(PREVIEW, seen({ questions: [zone, { ...zone, asked: 'order', answer: null }] }));
  const bring = new Importing(3);
  await bring.read(file);
  expect(bring.answers).toEqual({ zone: 'UTC', order: 'Europe/Rome' });
  expect(bring.asking).toBe(true);
});

it('holds a weight in doubt until somebody says whether it counts', async () => {
  const doubtful = [{ line: 4 }, { line: 9 }];
  const server = new Reader().on(PREVIEW, seen({ new: 0, doubtful }), seen({ new: 0, doubtful }));
  server.on('/api/imports/abc', { body: { rows_new: 1 } });
  const bring = new Importing(3);
  await bring.read(file);
  bring.counts[4] = true;
  expect(bring.blocked).toBe(true); // one is still open
  bring.counts[9] = false;
  expect(bring.blocked).toBe(false);
  await bring.confirm();
  expect(server.bodies('/api/imports/abc')).toMatchObject([{ keep: [4], leave: [9] }]);
  await bring.read(file);
  bring.leaveAll();
  expect(bring.blocked).toBe(true); // nothing would be left to bring in
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
