import { createRawSnippet } from 'svelte';
import { describe, expect, it } from 'vitest';

import type { Schema } from '../api/client';
import { card, piece } from '../testing/cards';
import { type Drawn, drawn } from '../testing/drawn';
import CrossSection from './CrossSection.svelte';
import HurdleMark from './HurdleMark.svelte';
import PaperTag from './PaperTag.svelte';
import SaltSection from './SaltSection.svelte';
import { figureOf } from './shapes';
import Silhouette from './Silhouette.svelte';
import StateMark from './StateMark.svelte';

type Card = Schema['PieceCard'];

describe('the mark of a state', () => {
  const mark = (state: Card['state'], wants: Card['wants'] = []): Drawn => drawn(StateMark, { state, wants });
  const STATES: [Card['state'], string][] = [
    ['hold', 'held'],
    ['ready', 'ready'],
    ['likely', 'likely ready'],
    ['over', 'past'],
    ['stalled', 'will not get there'],
    ['feel', 'worth feeling'],
    ['felt', 'felt firm'],
  ];

  it.each(STATES)('%s is told in words', (state, told) => {
    expect(mark(state).label('svg').toLowerCase()).toContain(told);
    expect(mark(state).one('title').text).toBe(mark(state).label('svg'));
  });

  it('has a shape of its own for each, so that colour is never needed', () => {
    const marks = [...STATES.map(([state]) => mark(state)), ...WANTS.map((want) => mark('drying', [want]))];
    const shapes = marks.map((one) =>
      one
        .all('path, rect, circle')
        .map((shape) => shape.getAttribute('d') ?? shape.outerHTML)
        .join(),
    );
    const once = new Set(shapes);
    // felt and to be felt are one shape, filled and empty
    expect(once.size).toBe(marks.length - 1);
  });

  const WANTS = ['too_fast', 'doubtful', 'weigh'] as const;
  it('of what is drying says what it wants most: a fault before a doubt before a weighing', () => {
    expect(mark('drying', ['weigh', 'doubtful', 'too_fast']).label('svg')).toBe(
      mark('soon', ['too_fast']).label('svg'),
    );
    expect(mark('drying', ['weigh', 'doubtful']).text).toContain('?');
    expect(mark('drying', ['ring']).all('svg')).toHaveLength(0);
    expect(mark('soon').all('svg')).toHaveLength(0);
  });

  it('a piece that must be held is never shown as anything else', () => {
    expect(mark('hold', ['too_fast', 'weigh']).label('svg')).toBe(mark('hold').label('svg'));
  });
});

describe('the mark of a hurdle', () => {
  const mark = (props: Parameters<typeof HurdleMark>[1]): string => drawn(HurdleMark, props).text;

  it('tells passed, pending, failed and not known by their signs', () => {
    expect((['pass', 'pending', 'fail', 'unknown'] as const).map((state) => mark({ state }))).toEqual([
      '✓',
      '…',
      '✕',
      '?',
    ]);
  });

  it('is a tick only where it passed by something that is known, without a caution', () => {
    expect(mark({ state: 'pass', known: 'not known' })).toBe('–');
    expect(mark({ state: 'pass', cautious: true })).toBe('!');
    expect(mark({ state: 'pass', blocks: true })).toBe('?');
    expect(mark({ state: 'pass', signed: true })).toBe('✎');
    for (const state of ['fail', 'unknown', 'pending'] as const)
      for (const cautious of [true, false])
        expect(mark({ state, cautious, known: 'measured' })).not.toBe('✓');
  });
});

describe('the paper tag', () => {
  it('carries two lines and, where there is one, a mark on its corner', () => {
    expect(drawn(PaperTag, { top: 'J-21-02', main: '~12 d' }).text).toBe('J-21-02 ~12 d');
    expect(drawn(PaperTag, { top: 'J-21-02', main: 'ready' }).all('.mark')).toHaveLength(0);
    const mark = createRawSnippet(() => ({ render: () => '<i>!</i>' }));
    const tag = drawn(PaperTag, { top: 'a', main: 'b', mark, chosen: true, loud: true });
    expect(tag.texts('.mark')).toEqual(['!']);
    expect(tag.all('.tag.chosen .loud')).toHaveLength(1);
  });
});

describe('a piece as it hangs', () => {
  const shown = (changes: Partial<Card>): Drawn => drawn(Silhouette, { piece: card(changes), pxPerMm: 0.5 });
  const GOODS: [Card['kind'], Card['shape']][] = [
    ['salame', 'cylinder'],
    ['thin_sausage', 'cylinder'],
    ['whole_muscle', 'irregular'],
    ['whole_muscle', 'cylinder'],
    ['belly', 'slab'],
    ['belly', 'cylinder'],
    ['breast', 'irregular'],
    ['ham', 'irregular'],
    ['coated', 'slab'],
  ];

  it.each(GOODS)(
    'a %s that is a %s has an outline, a body inside it and a target inside that',
    (kind, shape) => {
      const goods = shown({ kind, shape, girth_now: 0.9, girth_target: 0.8 });
      const [, ...paths] = goods.all('svg > path');
      const width = (d = ''): number => {
        const points = [...d.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map((m) => Number(m[1]));
        return Math.max(...points) - Math.min(...points);
      };
      const drawing = paths.map((path) => path.getAttribute('d')).filter((d) => d?.endsWith('Z'));
      expect(drawing).toHaveLength(3);
      const [hung, now, target] = drawing.map(width);
      expect(now).toBeLessThan(hung ?? 0);
      expect(target).toBeLessThan(now ?? 0);
    },
  );

  it('is as large as it is, and no larger than its room', () => {
    const small = shown({ length_mm: 150, width_mm: 40 });
    const large = shown({ length_mm: 600, width_mm: 120 });
    expect(large.figure('svg', 'height') / small.figure('svg', 'height')).toBeGreaterThan(3);
    expect(large.figure('svg', 'width')).toBeCloseTo(0.5 * 120 + 6, 1);
  });

  it('darkens as it dries and no further than dry', () => {
    const dark = (loss_percent: number): number =>
      Number(/(\d+)%/.exec(shown({ loss_percent }).one('.now').getAttribute('fill') ?? '')?.[1]);
    expect(dark(-4)).toBe(0);
    expect(dark(18)).toBe(50);
    expect(dark(80)).toBe(100);
  });

  it('has its grain where it has it: the same piece looks the same each time, another one otherwise', () => {
    const grain = (id: number): string | undefined => shown({ id }).all('g path')[0]?.getAttribute('d');
    expect(grain(1)).toBe(grain(1));
    expect(grain(1)).not.toBe(grain(2));
  });

  it('takes its figure from what it is, not only from its shape', () => {
    expect(GOODS.map(([kind, shape]) => figureOf(kind, shape))).toEqual([
      'salame', 'links', 'neck', 'round', 'belly', 'round', 'breast', 'leg', 'belly',
    ]); // prettier-ignore
  });
});

describe('a cut face', () => {
  const shades = (drawing: Drawn, what: string): number[] =>
    drawing.all(what).map((ring) => Number(/(\d+)%/.exec(ring.getAttribute('fill') ?? '')?.[1]));

  it('is dark where it is dry, and has as many rings as there are depths', () => {
    const { inside } = piece();
    const face = drawn(CrossSection, { inside, slab: false });
    const rings = shades(face, 'circle');
    expect(rings).toHaveLength(3);
    expect(rings[0]).toBeGreaterThan(rings[2] ?? 0);
    const sizes = face.all('circle').map((ring) => Number(ring.getAttribute('r')));
    expect([...sizes].sort((a, b) => b - a)).toEqual(sizes);
    expect(drawn(CrossSection, { inside, slab: true }).all('rect')).toHaveLength(3);
    const wet = drawn(CrossSection, { inside: { ...inside, water_percent: [90, 20, 54] }, slab: false });
    expect(shades(wet, 'circle')).toEqual([0, 100, 50]);
  });

  it('in salt is dark where the salt has come to, with the front where it is half of what it settles at', () => {
    const salted = (profile: number[], geometry: 'slab' | 'cylinder' = 'cylinder'): Drawn =>
      drawn(SaltSection, { radius: [0.1, 0.5, 0.9], profile, settles: 3, geometry, size: 100 });
    const halfway = salted([0.2, 1, 4]);
    const [rim, middle, core] = shades(halfway, 'circle[fill]');
    expect(rim).toBeGreaterThan(middle ?? 0);
    expect(middle).toBeGreaterThan(core ?? 0);
    expect(halfway.figure('circle.front', 'r')).toBeCloseTo(52 * 0.7, 5);
    expect(salted([3, 3, 3]).all('.front')).toHaveLength(0); // it is through
    expect(salted([0, 0, 1]).all('.front')).toHaveLength(0); // it has hardly begun
    expect(salted([0.2, 1, 4], 'slab').all('path.front')).toHaveLength(1);
    expect(halfway.one('svg').getAttribute('aria-hidden')).toBe('true');
  });
});
