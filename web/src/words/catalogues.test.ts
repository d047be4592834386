import { describe, expect, it } from 'vitest';

import { server as english, words as en } from './en';
import { server as italian, words as italianWords } from './it';

/** Every message of a catalogue with the names that lead to it. */
function messages(of: unknown, path: string[] = []): [string[], unknown][] {
  if (typeof of === 'string' || typeof of === 'function') return [[path, of]];
  return Object.entries(of as object).flatMap(([key, value]) => messages(value, [...path, key]));
}
const named = (of: unknown): string[] => messages(of).map(([path]) => path.join('.'));

/** The texts of all components and classes, without the catalogues themselves and the tests. */
const files = import.meta.glob<string>('../**/*.{svelte,ts}', {
  query: '?raw',
  import: 'default',
  eager: true,
});
const source = Object.entries(files)
  .filter(([name]) => !/test\.ts$|gen\.ts$|\/(en|it|testing)\//.test(name))
  .map(([, text]) => text)
  .join('\n');

describe('the catalogues', () => {
  it('have the same messages in every language', () => {
    expect(named(italianWords)).toEqual(named(en));
    expect(Object.keys(italian.sentences)).toEqual(Object.keys(english.sentences));
    const { text: inItalian, ...others } = italian.names;
    const { text: inEnglish, ...names } = english.names;
    expect(named(others).sort()).toEqual(named(names).sort());
    expect([Object.keys(inEnglish).length, Object.keys(inItalian).length > 90]).toEqual([0, true]);
  });

  it('give each message as much to say in every language', () => {
    const others = new Map(messages(italianWords).map(([path, message]) => [path.join('.'), message]));
    for (const [path, message] of messages(en)) {
      const other = others.get(path.join('.'));
      expect(typeof other, path.join('.')).toBe(typeof message);
      if (typeof message === 'string' && message !== '') expect(other, path.join('.')).not.toBe('');
    }
  });

  it('hold no message that nothing shows', () => {
    const mentioned = (name: string): boolean => new RegExp(`[.'"\`]${name}\\b`).test(source);
    // a message is asked for by its own name, or as one of several under a name by which they are looked up
    const lookedUp = (path: string[]): boolean =>
      path
        .slice(0, -1)
        .some((name) => new RegExp(`\\b${name}\\??\\.?\\[|[(.]${name}\\b(?!\\.)`).test(source));
    const unused = messages(en)
      .map(([path]) => path)
      .filter((path) => !mentioned(path.at(-1) ?? '') && !lookedUp(path))
      .map((path) => path.join('.'));
    expect(unused).toEqual([]);
  });
});
