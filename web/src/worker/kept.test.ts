import { describe, expect, it } from 'vitest';

import { KEPT_AT, keptAnswer, worthKeeping } from './kept';

const json = { 'content-type': 'application/json', date: 'Tue, 24 Nov 2026 08:00:00 GMT' };

describe('answers kept for a cellar without signal', () => {
  it('keeps facts, and neither refusals nor files', () => {
    expect(worthKeeping(new Response('{}', { headers: json }))).toBe(true);
    expect(worthKeeping(new Response('{}', { status: 404, headers: json }))).toBe(false);
    expect(worthKeeping(new Response('%PDF', { headers: { 'content-type': 'application/pdf' } }))).toBe(
      false,
    );
  });

  it('marks what comes from memory with the time it was given, and changes nothing else', async () => {
    const answer = keptAnswer(new Response('{"pieces":[]}', { headers: json }));
    expect(answer.headers.get(KEPT_AT)).toBe(json.date);
    expect(await answer.json()).toEqual({ pieces: [] });
  });
});
