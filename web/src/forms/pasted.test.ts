import { describe, expect, it } from 'vitest';

import { cellsOf, pastedTable, pasting, understand } from './pasted';

const columns = {
  tag: { name: 'tag', also: ['piece'], numeric: false },
  gross: { name: 'on the scale, g', also: ['weight', 'g'], numeric: true },
  across: { name: 'diameter, mm', also: ['thickness'], numeric: true },
};

function paste(text: string): { event: ClipboardEvent; kept: () => boolean } {
  let kept = false;
  const event = {
    clipboardData: { getData: () => text },
    preventDefault: () => (kept = true),
  } as unknown as ClipboardEvent;
  return { event, kept: () => kept };
}

describe('what is pasted', () => {
  it('is a table where it is more than one cell, and then no text of the field', () => {
    for (const text of ['812\t61', '812\n790', 'a\tb\nc\td\n']) {
      const { event, kept } = paste(text);
      expect(pastedTable(event)).toBe(text.trimEnd());
      expect(kept()).toBe(true);
    }
    for (const text of ['812', '812\n', '', 'two words']) {
      const { event, kept } = paste(text);
      expect(pastedTable(event)).toBeNull();
      expect(kept()).toBe(false);
    }
  });
  it('goes where it is wanted as cells, and nowhere where it is no table', async () => {
    const taken: string[][][] = [];
    const into = pasting((cells) => taken.push(cells));
    await into(paste('1\t2').event);
    await into(paste('12').event);
    expect(taken).toEqual([[['1', '2']]]);
  });
  it('is read as a spreadsheet writes it: cells in quotes, lines within them, empty rows', async () => {
    expect(await cellsOf('J-1\t812\n\t\n"a ""b""\nc"\t 790 ')).toEqual([
      ['J-1', '812'],
      ['a "b"\nc', '790'],
    ]);
  });
});

describe('the columns of a table', () => {
  it('are known by the words of its head', () => {
    const read = understand(
      [
        ['Diameter', 'Piece', 'Weight (g)'],
        ['61', 'J-1', '812'],
      ],
      columns,
    );
    expect(read.roles).toEqual(['across', 'tag', 'gross']);
    expect(read.rows).toEqual([['61', 'J-1', '812']]);
  });
  it('are known by what is a number where it has none', () => {
    expect(
      understand(
        [
          ['J-1', '812 g', '61'],
          ['J-2', '790,5', ''],
        ],
        columns,
      ).roles,
    ).toEqual(['tag', 'gross', 'across']);
    expect(understand([['812'], ['790']], columns).roles).toEqual(['gross']);
  });
  it('are left out where nobody knows them, and none is taken twice', () => {
    const read = understand(
      [
        ['weight', 'weight at noon', 'colour'],
        ['1', '2', 'red'],
      ],
      columns,
    );
    expect(read.roles).toEqual(['gross', null, null]);
    expect(understand([['1', '2', '3', '4']], columns).roles).toEqual(['gross', 'across', null, null]);
  });
  it('of one letter are words of their own: a g is not every word with a g', () => {
    expect(
      understand(
        [
          ['length', 'g'],
          ['1', '2'],
        ],
        columns,
      ).roles,
    ).toEqual([null, 'gross']);
  });
});
