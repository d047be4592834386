import { afterEach, expect, it, vi } from 'vitest';

import { atRest, gramsOf, SerialScale } from './serial.svelte';

const when = { readings: 3, over_s: 2, within: 1, share: 0.001 };
const shown = (...grams: number[]) => grams.map((g, i) => ({ grams: g, at: i * 1000 }));

it.each([
  ['ST,GS,+  1.752kg', 1752],
  ['  812.5 g ', 812.5],
  ['S S   1,75 kg', 1750],
  ['+ 2 lb', 907.185],
  ['0.0 g', null],
  ['-  3.2 g', null],
  ['ERR', null],
  ['1752', null], // without a unit nobody knows what it is
])('reads the line %s', (line, grams) => {
  expect(gramsOf(line)).toBe(grams);
});

it('is at rest when the last readings lie together for long enough, not before', () => {
  expect(atRest(shown(800, 812, 812), when)).toBe(false); // one second only
  expect(atRest(shown(800, 812, 812.5, 812), when)).toBe(true);
  expect(atRest(shown(810.9, 812, 812), when)).toBe(false);
  expect(atRest(shown(811, 812, 812), when)).toBe(true); // a gram is within a division
  expect(atRest(shown(5000, 5004.9, 5005), when)).toBe(true); // of a heavy piece a thousandth
  expect(atRest([], when)).toBe(false);
});

function cable(...parts: string[]) {
  const port = {
    open: vi.fn(async () => undefined),
    close: vi.fn(async () => undefined),
    readable: new ReadableStream<Uint8Array>({
      start(into) {
        for (const part of parts) into.enqueue(new TextEncoder().encode(part));
        into.close();
      },
    }),
  };
  vi.stubGlobal('navigator', { serial: { requestPort: async () => port } });
  return port;
}
afterEach(() => vi.unstubAllGlobals());

it('listens line by line, however they are cut, and says when the cable was pulled', async () => {
  const port = cable('  81', '2.0 g\r\n  812.', '5 g\r\nERR\r\n 81');
  const scale = new SerialScale();
  expect(scale.offered).toBe(true);
  await scale.connect();
  await vi.waitFor(() => expect(scale.state).toBe('lost'));
  expect(scale.shown.map((one) => one.grams)).toEqual([812, 812.5]);
  expect(port.open).toHaveBeenCalledWith({ baudRate: 9600 });
});

it('is not offered where the browser speaks to no cable, and does nothing then', async () => {
  vi.stubGlobal('navigator', {});
  const scale = new SerialScale();
  expect(scale.offered).toBe(false);
  await scale.connect();
  expect([scale.state, scale.last]).toEqual(['off', null]);
});
