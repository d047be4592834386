import { afterEach, describe, expect, it, vi } from 'vitest';

import { firstShows, readShows, usual, writeShows } from './shows';

it('reads what it wrote', () => {
  const chosen = { ...usual, language: 'it', mass: 'oz', hours: '12', week: '0' } as const;
  expect(readShows(writeShows(chosen))).toEqual(chosen);
});

it('takes what is missing or unknown as it is usual', () => {
  expect(readShows('mass=stone&temperature=F&language=xx')).toEqual({ ...usual, temperature: 'F' });
  expect(readShows('')).toEqual(usual);
});

it('begins in the language that the browser asks for, where there is one', () => {
  expect(firstShows(['de-DE', 'it-IT', 'en']).language).toBe('it');
  expect(firstShows(['de', 'fr']).language).toBe('en');
  expect(firstShows(['en-US']).mass).toBe('g');
});

describe('a choice', () => {
  afterEach(() => vi.unstubAllGlobals());

  /** A browser with the cookies it has, and whether it keeps any. */
  async function browser(keeps: boolean) {
    const jar = { cookie: '' };
    const document = {
      get cookie() {
        return jar.cookie;
      },
      set cookie(text: string) {
        if (keeps) jar.cookie = text.split(';')[0] ?? '';
      },
    };
    vi.stubGlobal('document', document);
    vi.stubGlobal('navigator', { languages: ['en-GB'] });
    vi.resetModules();
    return import('./shows');
  }

  it('loads the page anew once, where it differs from what is shown', async () => {
    const first = await browser(true);
    expect(first.keepShows({ ...usual, mass: 'oz' })).toBe(true);
    expect(first.keepShows({ ...first.shows })).toBe(false);
  });

  it('never loads it for ever in a browser that keeps no cookies', async () => {
    const first = await browser(false);
    expect(first.keepShows({ ...usual, mass: 'oz' })).toBe(false);
  });
});
