import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

import type { Schema } from '../../api/client';
import { batchesQuery } from '../../api/queries';
import { inDays } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import Accuracy from './Accuracy.svelte';
import Book from './Book.svelte';
import Compare from './Compare.svelte';

const figures = (changes: Partial<Schema['FiguresOut']> = {}): Schema['FiguresOut'] => ({
  pieces: 24, told: 96, inside: 0.83, error_days: 1.94, error_share: 0.06, bias_days: 0, bias_share: 0, few: false, ...changes,
}); // prettier-ignore
const side = (changes: Partial<Schema['SideOut']> = {}): Schema['SideOut'] => ({
  overall: figures(), along: [], groups: {}, lesson: 'well', ...changes,
}); // prettier-ignore

describe('how good the dates were', () => {
  const page = (changes: Partial<Schema['AccuracyOut']> = {}): Drawn =>
    drawn(Accuracy, {}, [
      [
        ['accuracy'],
        {
          live: null, afterwards: null, each: [], left_out: 0, ph: [], ph_inside: null, pieces: 0, rings: [], waiting: 0,
          ...changes,
        },
      ],
    ]); // prettier-ignore

  it('owns up to nothing before there is something to own up to, and waits for what is being worked out', () => {
    expect(page().text).toContain('No piece has got to its target by the scale yet');
    const waiting = page({ waiting: 3 });
    expect(waiting.one('[role=status]').text).toBe('3 dates are still being worked out …');
    expect(waiting.text).not.toContain('No piece has got');
    expect(page({ waiting: 1 }).text).toContain('1 date is still');
  });

  it('tells the share inside the window beside the wanted one, and on how many pieces it rests', () => {
    const found = page({ live: side() });
    expect(found.one('.big').text.replace(/\s+/g, ' ').trim()).toBe(
      '83 % inside the window (four in five should be) · 1.9 d off in the middle · to neither side · 24 pieces, 96 dates',
    );
    expect(found.text).toContain('Dates and windows are as good as they say.');
  });

  it.each([
    [0, 'to neither side'],
    [0.24, 'to neither side'],
    [-0.24, 'to neither side'],
    [0.25, '0.3 d later than told'],
    [-0.25, '0.3 d earlier than told'],
    [3.14, '3.1 d later than told'],
  ])('leaning by %s days is %s', (bias_days, told) => {
    expect(page({ live: side({ overall: figures({ bias_days }) }) }).one('.big').text).toContain(told);
  });

  it('what was told then comes before what was worked out afterwards, which says what it is', () => {
    const both = page({ live: side(), afterwards: side() });
    expect(both.texts('h2').slice(0, 2)).toEqual([
      'told then',
      'worked out afterwards · made later, only with what was known then: of weights that came by file, or from before dates were kept',
    ]);
    expect(page({ afterwards: side() }).texts('h2')[0]).toContain('worked out afterwards');
  });

  it('bad figures and few pieces are shown as they are, each group under its name once', () => {
    const found = page({
      live: side({
        along: [
          { stage: 'hanging', figures: figures({ inside: 0.5, error_days: 9.04, bias_days: -6 }) },
          { stage: 'last', figures: figures({ inside: 1, error_days: 0.4 }) },
        ],
        groups: {
          family: [
            { name: 'salame', figures: figures() },
            { name: 'ham', figures: figures({ few: true, pieces: 2 }) },
          ],
          place: [{ name: 'Cellar', figures: figures() }],
        },
        lesson: 'early',
      }),
    });
    expect(found.texts('th.group')).toEqual(['Along the way', 'By kind', 'By place']);
    const rows = found.texts('tbody tr').filter((text) => text.includes('%'));
    expect(rows[0]).toBe('at hanging 50 % 9.0 d 6.0 d earlier than told 24 pieces');
    expect(rows[1]).toBe('the last fifth 100 % 0.4 d to neither side 24 pieces');
    expect(rows[3]).toMatch(/2 pieces, few$/);
    expect(found.all('.bar .few')).toHaveLength(1);
    expect(found.all('.bar span').map((one) => one.getAttribute('style'))[0]).toBe('width: 50%;');
    expect(found.text).toContain('the dates lean to the late side');
  });

  it('counts what is left out, the crossings of 5.3 and the rings that were as predicted', () => {
    const ring = (agrees: boolean): Schema['RingChecked'] => ({
      agrees, at: inDays(-3), piece_id: 4, predicted: 'thin', predicted_mm: 2.4, seen: 'none', seen_mm: null, tag: 'J-20-04',
    }); // prettier-ignore
    const found = page({
      left_out: 1,
      rings: [ring(true), ring(false)],
      ph: [
        {
          batch: 'J-21',
          batch_id: 3,
          crossed_hour: 21.26,
          told_hour: 19,
          hour: 8,
          error_hours: 2.3,
          inside: false,
        },
      ],
    });
    expect(found.text).toContain('1 piece came down before the scale showed the target');
    expect(found.text).toContain('1 of 2 cuts: ring or none as predicted');
    expect(found.text).toContain('J-20-04 seen none, predicted thin (2 mm) ✓');
    expect(found.text).toContain('J-21 19.0 h → 21.3 h (✕ inside the window)');
  });

  it('every piece says what was told first, when it was reached and how far off that was', () => {
    const each = (changes: Partial<Schema['PieceChecked']>): Schema['PieceChecked'] => ({
      batch_id: 3, error_days: 2.1, hung_at: inDays(-60), inside: 3, live: true, piece_id: 7, place: 'Cellar',
      product: 'Juniper salame', reached_at: inDays(-2), tag: 'J-21-01', told: 4, told_first: inDays(-4), ...changes,
    }); // prettier-ignore
    const found = page({
      each: [
        each({}),
        each({ piece_id: 8, error_days: -1.5, tag: 'J-21-02' }),
        each({ piece_id: 9, told: 0, told_first: null, error_days: null, tag: 'J-21-03' }),
      ],
    });
    expect(found.texts('section[aria-label="Every piece"] tr')).toEqual([
      'J-21-01 Juniper salame Cellar, 25 Sept 2026 20 Nov → 22 Nov 2.1 d later than told 3/4 inside the window',
      'J-21-02 Juniper salame Cellar, 25 Sept 2026 20 Nov → 22 Nov 1.5 d earlier than told 3/4 inside the window',
      'J-21-03 Juniper salame Cellar, 25 Sept 2026 – → 22 Nov',
    ]);
  });
});

/** The address of the page. */
const at = (address: string): void => {
  vi.stubGlobal('location', { search: address, pathname: '/book', href: `http://zymon.test/book${address}` });
};
beforeEach(() => at(''));
afterEach(() => vi.unstubAllGlobals());

describe('the Book', () => {
  const batch = (id: number, changes: Partial<Schema['BatchFound']> = {}): Schema['BatchFound'] => ({
    id, code: `J-${id}`, product: 'Juniper salame', kind: 'salame', shape: 'cylinder', made_at: inDays(-40 - id),
    last_at: inDays(-id), discarded: false, states: { hanging: 3, gone: 1 }, pieces: [], ...changes,
  }); // prettier-ignore
  const book = (batches: Schema['BatchFound'][], counts: Record<string, number>): Drawn =>
    drawn(Book, {}, [[batchesQuery('', 'all', 50).queryKey, { batches, counts }]]);

  it('has a batch with what became of its pieces, and says when there is none at all', () => {
    const found = book([batch(21)], { all: 1 });
    expect(found.one('a.head').getAttribute('href')).toBe('/book/batch/21');
    expect(found.one('a.head').text).toContain('Juniper salame');
    expect(found.one('a.head').text).toMatch(/3 .*, 1 /);
    expect(book([], { all: 0 }).all('li.batch')).toHaveLength(0);
    expect(book([], { all: 0 }).all('.mt-6')).toHaveLength(1);
  });

  it('says how many more there are, at most as many as come at once', () => {
    const shown = [batch(1), batch(2)];
    const more = (all: number): string[] => book(shown, { all }).texts('button.btn');
    expect(more(2)).toEqual([]);
    expect(more(3)).toEqual(['Show 1 earlier batch']);
    expect(more(200)).toEqual(['Show 50 earlier batches']);
  });

  it('counts what is in each drawer, and presses the one that is open', () => {
    const found = book([batch(1)], { all: 12, under_way: 4 });
    expect(found.texts('[aria-pressed=true]')).toEqual([expect.stringMatching(/12$/)]);
    expect(found.all('[aria-pressed=false]').length).toBeGreaterThan(1);
  });
});

describe('batches compared', () => {
  const compared = (id: number, changes: Partial<Schema['ComparedOut']> = {}): Schema['ComparedOut'] => ({
    batch_id: id, code: `J-${id}`, product: 'Juniper salame', made_at: inDays(-60), air: null, cuts: [], ph: [],
    curves: [{ tag: `J-${id}-01`, days: [0, 10, 20], loss_percent: [0, 14, 24] }],
    facts: { salt_percent: 2.6, casing: 'natural' }, ...changes,
  }); // prettier-ignore
  const page = (address: string, answer?: Partial<Schema['CompareOut']>): Drawn => {
    at(address);
    const ids = (new URLSearchParams(address).get('batches') ?? '').split(',').filter(Boolean).map(Number);
    return drawn(Compare, {}, [
      [
        batchesQuery('', 'all').queryKey,
        { batches: [1, 2, 3].map((id) => ({ id, code: `J-${id}`, product: 'Juniper' })), counts: {} },
      ],
      ...(answer
        ? [
            [['compare', ids], { batches: [], differs: [], facts: [], ...answer }] as [
              readonly unknown[],
              unknown,
            ],
          ]
        : []),
    ]);
  };
  it('asks for a batch when none was picked, and offers those that are not there yet', () => {
    expect(page('').all('.one')).toHaveLength(0);
    expect(page('').texts('option')).toHaveLength(4);
    const two = page('?batches=1,3', { batches: [compared(1), compared(3)] });
    expect(two.texts('option').slice(1)).toEqual(['J-2 · Juniper']);
    expect(two.all('.one button').map((one) => one.getAttribute('aria-label'))).toEqual([
      expect.stringMatching(/^J-1: /), expect.stringMatching(/^J-3: /),
    ]); // prettier-ignore
  });

  it('says that nothing differed where nothing did, of two and more', () => {
    const one = page('?batches=1', { batches: [compared(1)] });
    const two = page('?batches=1,2', { batches: [compared(1), compared(2)] });
    expect(one.all('section ul li')).toHaveLength(0);
    expect(two.all('section ul li')).toHaveLength(1);
  });

  it('draws the losses always, pH and air where they were measured', () => {
    expect(page('?batches=1', { batches: [compared(1)] }).all('svg')).toHaveLength(1);
    const air = { days: [0, 1, 2], temperature_c: [12, 13, 12], rh_percent: [80, null, 78] };
    const fall: Schema['StoryPh'][] = [5.8, 5.4, 5.1].map((ph, i) => ({
      at: inDays(-60 + i / 2),
      by: 'Ida',
      ph,
      struck: false,
    }));
    expect(page('?batches=1', { batches: [compared(1, { air, ph: fall })] }).all('svg')).toHaveLength(4);
  });

  it('puts the facts beside each other, and says of a cut what was seen', () => {
    const cut = { signs: ['ring', 'grey'] } as Schema['FaceOut'];
    const found = page('?batches=1,2', {
      batches: [compared(1, { cuts: [cut] }), compared(2, { facts: { salt_percent: 3, casing: null } })],
      facts: ['salt_percent', 'casing'],
    });
    const rows = found.texts('table tr');
    expect(rows[0]).toBe('J-1 J-2');
    expect(rows[1]).toMatch(/2\.6.*3/);
    expect(rows[3]).toMatch(/, .*$/);
  });
});
