import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { inDays, NOW, piece } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import Bag from './Bag.svelte';
import CutDrawing from './CutDrawing.svelte';
import { CutForm } from './cutform.svelte';
import CutSay from './CutSay.svelte';
import CutSee from './CutSee.svelte';
import PackShape from './PackShape.svelte';
import Rooms from './Rooms.svelte';
import Taps from './Taps.svelte';

const { inside } = piece();
const knife = (changes: Partial<Schema['UnderTheKnife']> = {}): Schema['UnderTheKnife'] => ({
  piece_id: 7, tag: 'J-21-02', batch: 'J-21', batch_id: 3, product: 'Juniper salame', shape: 'cylinder', state: 'resting',
  across_mm: 60, inside, ring_mm: 3, days: 40, loss_percent: 36, weight_g: 640, tare_g: 0, weighed_when_hung: true,
  at_rest: true, causes: [], faces: [], now: [], made: [], recipe: null, recipe_id: null, ...changes,
}); // prettier-ignore

describe('a bag on the shelf', () => {
  const bag = (changes: Partial<Schema['RestCard']>, widest = 90): Drawn =>
    drawn(Bag, {
      card: {
        id: 7, tag: 'N-04-01', batch: 'N-04', batch_id: 4, product: 'Neck', shape: 'irregular', across_mm: 90, bag: 'vacuum',
        inside, state: 'evening', since: inDays(-10), earliest: inDays(4), best: inDays(9), late: inDays(13), place: 'Fridge',
        place_id: 2, assumed: [], cautions: [], gone_share: 0.2, lost_g: null, sealed_g: 700, weight_g: null, squeezed: null,
        ...changes,
      },
      widest, now: NOW, chosen: false, onpick: () => undefined,
    }); // prettier-ignore

  it('says how long until it is even, by days, by weeks where that is wide, or that nobody can say', () => {
    expect(bag({}).texts('.main')).toEqual(['9 d']);
    expect(bag({ late: inDays(20) }).texts('.main')).toEqual(['~9 d']);
    expect(bag({ best: inDays(35), late: inDays(60) }).texts('.main')).toEqual(['~5 wk']);
    expect(bag({ best: inDays(-3), earliest: inDays(-9), late: inDays(1) }).texts('.main')).toEqual(['1 d']);
    expect(bag({ best: null }).texts('.main')[0]).not.toMatch(/\d/);
  });

  it('is marked by what somebody felt, never by a date alone', () => {
    const mark = (state: Schema['RestCard']['state']): string | undefined =>
      bag({ state }).all('.mark svg')[0]?.getAttribute('aria-label');
    expect(mark('evening')).toBeUndefined();
    expect(mark('likely')).toBe('worth feeling');
    expect(mark('even')).toBe('felt firm');
    expect(mark('soft')).toBe('soft in the middle, held');
    expect(mark('leaks')).toBeDefined();
  });

  it('is as large as what is in it beside the others, and says all of it to those who listen', () => {
    expect(bag({ across_mm: 45 }).figure('.meat svg, .bag svg', 'width')).toBeLessThan(
      bag({}).figure('.bag svg', 'width'),
    );
    expect(bag({}).label('button')).toBe('N-04-01 9 d, Neck, Fridge, evening out');
    expect(bag({ place: null }).label('button')).toContain('No place said');
  });
});

describe('a cut face under the knife', () => {
  const face = (changes: Partial<Parameters<typeof CutDrawing>[1]>): Drawn =>
    drawn(CutDrawing, {
      inside,
      slab: false,
      halfMm: 30,
      ringMm: null,
      ringed: false,
      marks: [],
      ...changes,
    });
  const places = (drawing: Drawn): string[] =>
    drawing.all('g.mark').map((mark) => mark.getAttribute('transform') ?? '');

  it('shows a ring as deep as it was tapped', () => {
    expect(face({ ringed: true }).all('circle.ring')).toHaveLength(1);
    expect(
      face({ ringed: true, ringMm: 6 })
        .all('circle.ring')
        .map((ring) => Number(ring.getAttribute('r'))),
    ).toEqual([57, 57 * 0.8]);
    expect(face({ ringMm: 6 }).all('.ring')).toHaveLength(0);
    expect(face({ ringed: true, ringMm: 40 }).all('circle.ring')[1]?.getAttribute('r')).toBe('0');
    expect(face({ ringed: true, ringMm: 6, slab: true }).all('rect.ring')).toHaveLength(2);
  });

  it('has each mark where it was tapped, on a round and on a slab alike', () => {
    const marks: Schema['Mark'][] = [
      { what: 'holes', x: 0.5, y: 1 },
      { what: 'soft', x: 0, y: 0 },
    ];
    expect(places(face({ marks }))).toEqual(['translate(28.5 57)', 'translate(0 0)']);
    expect(places(face({ marks, slab: true }))).toEqual(['translate(28 32)', 'translate(0 0)']);
    expect(face({ marks }).texts('g.mark text')).toEqual(['holes', 'soft core']);
  });

  it('names each mark beneath it, or over it where it lies at the lower edge', () => {
    const name = (y: number, slab: boolean): number =>
      face({ marks: [{ what: 'holes', x: 0, y }], slab }).figure('g.mark text', 'y');
    expect([name(0, true), name(0.7, true), name(0.75, true)]).toEqual([11, 11, -6.6]);
    expect([name(-1, false), name(0.8, false), name(1, false)]).toEqual([11, 11, -6.6]);
  });

  it('has a sign of its own for each thing that is seen', () => {
    const kinds = ['soft', 'holes', 'smear', 'loose', 'mould', 'grey'] as const;
    const signs = kinds.map((what) =>
      face({ marks: [{ what, x: 0, y: 0 }] })
        .all('g.mark > *:first-child')
        .map((one) => one.outerHTML)
        .join(),
    );
    expect(new Set(signs).size).toBe(kinds.length);
  });

  it('says what a tap will do', () => {
    const form = new CutForm(knife());
    const hint = (): string | undefined => drawn(CutSee, { piece: knife(), form }).texts('p')[0];
    const first = hint();
    form.pick('ring');
    const ring = hint();
    form.pick('holes');
    expect(new Set([first, ring, hint()]).size).toBe(3);
    expect(hint()).toContain('holes');
    expect(drawn(CutSee, { piece: knife(), form }).all('.chip[aria-pressed=true]')).toHaveLength(2);
  });
});

describe('what is said at the knife', () => {
  const say = (
    prepare: (form: CutForm) => void = () => undefined,
    changes: Partial<Schema['UnderTheKnife']> = {},
  ): Drawn => {
    const form = new CutForm(knife(changes));
    prepare(form);
    return drawn(CutSay, { piece: knife(changes), form, ondone: () => undefined });
  };

  it('is felt, smelled and tasted; what smells foul is not tasted', () => {
    expect(say().all('[role=group]').length).toBeGreaterThanOrEqual(5);
    const foul = say((form) => (form.smell = 'off'));
    expect(foul.all('.text-error')).toHaveLength(1);
    expect(foul.all('[role=group]').length).toBe(say().all('[role=group]').length - 2);
  });

  it('asks for a reason where it is not good', () => {
    const required = (drawing: Drawn): number => drawing.all('input[required]').length;
    expect(required(say())).toBe(0);
    expect(required(say((form) => (form.verdict = 'held')))).toBe(1);
    expect(required(say((form) => (form.verdict = 'discarded')))).toBe(1);
  });

  it('asks for its weight where it is cut up, for two where it goes on, for none where it is cut already', () => {
    const fields = (drawing: Drawn): number => drawing.all('fieldset input').length;
    expect(fields(say((form) => (form.ends = 'cut')))).toBe(1);
    expect(fields(say((form) => (form.ends = 'goes_on')))).toBe(2);
    expect(say(undefined, { state: 'cut' }).all('fieldset')).toHaveLength(0);
  });

  it('asked about something says so, and keeps it only when told so', () => {
    const asked = say((form) => (form.question = 'heavier than it hung'));
    expect(asked.texts('[role=alert]')).toEqual(['heavier than it hung']);
    const keep = (drawing: Drawn): string | undefined => drawing.texts('.btn-primary')[0];
    expect(keep(asked)).not.toBe(keep(say()));
  });
});

it('taps show which is tapped, one of them or several', () => {
  const taps = { soft: 'soft', firm: 'firm', hard: 'hard' };
  const on = (props: Partial<Parameters<typeof Taps>[1]>): string[] =>
    drawn(Taps, { name: 'rim', taps, ...props }).texts('[aria-pressed=true]');
  expect(on({})).toEqual([]);
  expect(on({ value: 'firm' })).toEqual(['firm']);
  expect(on({ many: ['soft', 'hard'] })).toEqual(['soft', 'hard']);
  expect(on({ value: 'firm', many: [] })).toEqual([]);
});

describe('a pack as it lies there', () => {
  const pack = (changes: Partial<Schema['PackOut']>): Drawn =>
    drawn(PackShape, { pack: { wrap: 'vacuum', form: 'piece', left: 1, ...changes } as Schema['PackOut'] });
  it('lies three deep at most, and says how many are left', () => {
    expect([0, 1, 2, 3, 9].map((left) => pack({ left }).all('svg > g').length)).toEqual([0, 1, 2, 3, 3]);
    expect(pack({ left: 9 }).text).toBe('9×');
  });
  it('looks as it is wrapped and cut', () => {
    const looks = (['vacuum', 'paper', 'jar', 'none'] as const).flatMap((wrap) =>
      (['whole', 'piece', 'sliced'] as const).map((form) => pack({ wrap, form }).one('g').outerHTML),
    );
    expect(new Set(looks).size).toBe(12);
  });
});

it('the rooms of the Rest say where one is, and how many wait for the knife', () => {
  const rooms = drawn(Rooms, { here: 'cut', toCut: 3 });
  expect(rooms.texts('a')).toEqual(['On the shelf', 'To cut3', 'Stock']);
  expect(rooms.texts('a[aria-current=page]')).toEqual(['To cut3']);
  expect(drawn(Rooms, { here: 'shelf' }).all('sup')).toHaveLength(0);
});
