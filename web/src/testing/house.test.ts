import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

const MOST_LINES = 150;
const files = readdirSync('src', { recursive: true, encoding: 'utf8' }).filter((name) =>
  name.endsWith('.svelte'),
);
const read = (name: string): string => readFileSync(join('src', name), 'utf8');

describe('components', () => {
  it('fit in the head, or say at their top why they are longer', () => {
    const long = files.filter((name) => read(name).split('\n').length - 1 > MOST_LINES);
    const silent = long.filter(
      (name) => !/^<script[^>]*>\n(?: {2}\/\/.*\n)*? {2}\/\/ Long, since /.test(read(name)),
    );
    expect(silent).toEqual([]);
  });
  it('give no reason that is no longer one', () => {
    const short = files.filter((name) => read(name).split('\n').length - 1 <= MOST_LINES);
    expect(short.filter((name) => read(name).includes('// Long, since '))).toEqual([]);
  });
  it('say at their top what they are', () => {
    const silent = files.filter((name) => {
      const text = read(name);
      return text.split('\n').length > 40 && !/<script[^>]*>\n\s*\/\/ |^<!-- /.test(text);
    });
    expect(silent).toEqual([]);
  });
});
