import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { roomQuery } from '../../api/queries';
import { card, inDays, NOW } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import type { Layer } from './label';
import PlaceFacts from './PlaceFacts.svelte';
import PlaceLog from './PlaceLog.svelte';
import Rod from './Rod.svelte';
import Rods from './Rods.svelte';

const rod = (changes: Partial<Schema['RodOut']> = {}): Schema['RodOut'] => ({
  id: 11, number: 2, hooks: 4, hook_spacing_mm: 150, close: [], short_mm: 0, ...changes,
}); // prettier-ignore

describe('a rod', () => {
  const props = (more: object) => ({
    rod: rod(), from: 1, to: 4, columns: 4, pieces: [card({ id: 7, rod: 2, hook: 3 })], hookAirs: [] as Schema['HookOut'][], chosen: null as number | null,
    moving: false, layer: 'days' as Layer, now: NOW, pxPerMm: 0.5, onpick: () => undefined, onfree: () => undefined,
    ondrag: () => undefined, ...more,
  }); // prettier-ignore
  const shown = (more: Partial<ReturnType<typeof props>> & { shelf?: boolean; layer?: Layer } = {}): Drawn =>
    drawn(Rod, props(more));
  const air = (hook: number, much: number): Schema['HookOut'] => ({
    hook, rod_id: 11, air: much, low: much - 0.1, high: much + 0.1, pieces: 3,
  }); // prettier-ignore

  it('has a hook for each place, each with what hangs there or what may', () => {
    const rods = shown();
    expect(rods.all('li')).toHaveLength(4);
    expect(rods.all('[data-piece]')).toHaveLength(1);
    expect(rods.all('.free').map((one) => one.getAttribute('aria-label'))).toEqual([
      'Hang a piece on rod 2, hook 1', 'Hang a piece on rod 2, hook 2', 'Hang a piece on rod 2, hook 4',
    ]); // prettier-ignore
    expect(rods.label('[data-piece]')).toContain('J-21-02 ~12 d, Juniper salame, rod 2, hook 3');
  });

  it('says on its tag what the layer asks for, and the same to those who listen', () => {
    const pace = shown({ layer: 'pace' });
    expect(pace.label('[data-piece]')).toContain('J-21-02 0.80 %/d');
    expect(pace.one('[data-piece]').text).toContain('0.80 %/d');
    expect(shown({ layer: 'weighed' }).one('[data-piece]').text).toContain('never');
    expect(shown({ layer: 'progress' }).one('[data-piece]').text).toContain('24 of 36');
  });

  it('the air at a hook stands on the tag that hangs there and on the free hook alike', () => {
    const rods = shown({ layer: 'air', hookAirs: [air(3, 1.24), air(4, 0.8)] });
    expect(rods.one('[data-piece]').text).toContain('1.24');
    expect(rods.texts('.free').at(-1)).toContain('0.8');
    expect(rods.texts('.free')[0]).toBe('+');
  });

  it('names the part of a long rod that is drawn, and warns on its first part alone', () => {
    const tight = rod({ hooks: 20, close: [{ one: 'A-01', other: 'A-02' }, { one: 'B-01', other: 'B-02' }], short_mm: 340 }); // prettier-ignore
    const first = shown({ rod: tight, from: 1, to: 10 });
    expect(first.label('section')).toBe('rod 2, hooks 1–10');
    expect(first.text).toContain('Too close, air must pass between: A-01 and A-02, B-01 and B-02');
    expect(first.text).toContain('Overfull: 340 mm more rod are needed');
    const second = shown({ rod: tight, from: 11, to: 20 });
    expect(second.label('section')).toBe('rod 2, hooks 11–20');
    expect(second.text).not.toContain('Too close');
    expect(second.text).not.toContain('Overfull');
  });

  it('a shelf is called a shelf, and its pieces hang from no string', () => {
    expect(shown({ shelf: true }).label('section')).toBe('shelf 2');
    expect(shown({ shelf: true }).one('section').getAttribute('class')).toContain('shelf');
  });

  it('only what is worth a look now has a loud tag', () => {
    const loud = (state: Schema['PieceCard']['state']): number =>
      shown({ pieces: [card({ rod: 2, hook: 1, state })] }).all('.loud').length;
    expect((['ready', 'over', 'soon'] as const).map(loud)).toEqual([1, 1, 1]);
    expect((['drying', 'stalled', 'hold'] as const).map(loud)).toEqual([0, 0, 0]);
  });

  it('the piece that is looked at is pressed, and free hooks wait for the one that is moved', () => {
    expect(shown({ chosen: 7 }).one('[data-piece]').getAttribute('aria-pressed')).toBe('true');
    expect(shown().one('[data-piece]').getAttribute('aria-pressed')).toBe('false');
    expect(shown({ moving: true }).all('.free.moving')).toHaveLength(3);
  });
});

describe('the rods of a place', () => {
  const rods = (...found: Schema['RodOut'][]): Drawn =>
    drawn(Rods, { place: 1 }, [
      [
        roomQuery(1).queryKey,
        { rods: found, pieces: [], hooks: [], shift: null } as unknown as Schema['Room'],
      ],
    ]);

  it('have their hooks and what lies between them in fields; nothing to keep before something is typed', () => {
    const shown = rods(rod({ number: 1, id: 10, hook_spacing_mm: null }), rod());
    expect(shown.all('form').map((one) => one.getAttribute('aria-label'))).toEqual(['Rod 1', 'Rod 2']);
    expect(shown.all('input').map((one) => one.getAttribute('value') ?? '')).toEqual(['4', '', '4', '150']);
    expect(shown.all('form button')).toHaveLength(0);
    expect(shown.text).toContain('One rod more');
  });
});

describe('how a place keeps', () => {
  const facts = (changes: Partial<Schema['FactsOut']> = {}): Drawn =>
    drawn(PlaceFacts, { place: 1 }, [[['facts', 1], {
      advised_rh: null, damp_hours: 0, days: 30, dew_hours: 0, doors_a_day: 3.26, gaps: [], in_band: 0.914,
      offset_rh: 0, outages: [], readings: 4000, room_for_g_per_day: null, setpoints: [], suits: [], swing_c: 1.26,
      swing_rh: 6.4, tests: [], too_damp_for: [], too_dry_for: [], water_g_per_day: 0, ...changes,
    }]]); // prettier-ignore
  const span = (what: Schema['SpanOut']['what'], worst: number, days: number, hours = 6): Schema['SpanOut'] => ({
    what, worst, from_at: inDays(days), to_at: inDays(days + hours / 24),
  }); // prettier-ignore

  it('says nothing before it is known, and nothing of a log that is not there', () => {
    expect(drawn(PlaceFacts, { place: 1 }).text).toBe('');
    const none = facts({ readings: 0, days: 0, in_band: null });
    expect(none.text).toContain('No reading of these days, so nothing is told of how it keeps.');
    expect(none.text).not.toContain('door opened');
    expect(none.text).not.toContain('No outage');
  });

  it('tells the share of the time near the set point, or that there is none', () => {
    expect(facts().text).toContain('91 % of the time within 1.5 °C and 5 points of its set point');
    expect(facts({ in_band: null }).text).toContain('No set point: it goes with the weather.');
    expect(facts({ in_band: 0 }).text).toContain('0 % of the time');
  });

  it('swings, doors and damp hours; dew only where there was some', () => {
    expect(facts().text).toContain(
      'swings by 1.3 °C and 6 points in a day · door opened about 3.3 times a day · 0 h over 90 %',
    );
    expect(facts().text).not.toContain('dew');
    expect(facts({ damp_hours: 12.4, dew_hours: 2 }).text).toContain(
      '12 h over 90 %, 2 h near dew: water on the goods',
    );
  });

  it('tells the water of the pieces, and what the place has taken where it has been seen', () => {
    expect(facts({ water_g_per_day: 212 }).text).toContain('212 g of water a day leave the pieces now.');
    expect(facts({ water_g_per_day: 212, room_for_g_per_day: 90 }).text).toContain(
      'leave the pieces now; it has been seen to take 90 g more.',
    );
    expect(facts().text).not.toContain('of water');
  });

  it('advises a humidity with the tags it is wrong for now, four of them by name', () => {
    const dry = facts({ advised_rh: 77.6, too_dry_for: ['A', 'B'] });
    expect(dry.text).toContain('About 78 % would suit what hangs here; too dry for A, B.');
    const damp = facts({ advised_rh: 72, too_damp_for: ['A', 'B', 'C', 'D', 'E', 'F'] });
    expect(damp.text).toContain('; too damp for A, B, C, D and 2 more.');
    expect(facts({ too_dry_for: ['A'] }).text).not.toContain('would suit');
  });

  it('outages and gaps stand together, the last one first, with units where they have one', () => {
    const found = facts({
      outages: [span('warm', 3.24, -9), span('dry', 12, -3), span('cold', 2, -12), span('damp', 7.5, -5, 30)],
      gaps: [span('silent', 0, -4)],
    });
    expect(found.texts('ul li').map((line) => line.replace(/^[^,]*, /, ''))).toEqual([
      '6 h: up to 12 points too dry', '6 h: no readings', '30 h: up to 7.5 points too damp',
      '6 h: up to 3.2 °C too warm', '6 h: up to 2.0 °C too cold',
    ]); // prettier-ignore
    expect(found.text).not.toContain('No outage');
    expect(facts().text).toContain('No outage and no gap in these days.');
  });

  it('shows six faults at most', () => {
    const many = Array.from({ length: 9 }, (_, i) => span('warm', i + 1, -i - 1));
    const found = facts({ outages: many });
    expect(found.texts('ul li').filter((line) => line.includes('too warm'))).toHaveLength(6);
    expect(found.text).not.toContain('7.0 °C too warm');
  });

  it('the tests of its sensor with who made them; a struck one is crossed out', () => {
    const test = {
      id: 1,
      at: inDays(-8),
      by: 'Ida',
      offset: 2.3,
      shown_rh_percent: 73.25,
      true_rh_percent: 75.5,
    };
    const found = facts({
      offset_rh: 2.25,
      tests: [
        { ...test, struck_reason: null },
        { ...test, id: 2, struck_reason: 'jar was open' },
      ],
    });
    expect(found.text).toContain('2.3 points are added to the humidity');
    expect(found.texts('details li')[0]).toBe('16 Nov 2026: 73.3 % → 75.5 % Ida');
    expect(found.all('details li.line-through')).toHaveLength(1);
    expect(facts().text).not.toContain('points are added');
  });
});

describe('the log of a place', () => {
  const log = (changes: Partial<Schema['LogOut']> = {}): Drawn =>
    drawn(PlaceLog, { place: 1 }, [[['log', 1], { made: [], sources: [], struck: [], ...changes }]]);
  const source = (changes: Partial<Schema['SourceOut']>): Schema['SourceOut'] => ({
    device_id: null, import_id: null, name: '', readings: 1, way: 'hand', from_at: inDays(-9), to_at: inDays(-1), ...changes,
  }); // prettier-ignore
  const stretch: Schema['StretchOut'] = {
    id: 3, at: inDays(-1), by: 'Ida', reason: 'sensor in the sun', readings: 48, brought_back: null,
    from_at: inDays(-4), to_at: inDays(-2),
  }; // prettier-ignore

  it('says where its readings came from, by name where they have one', () => {
    const found = log({
      sources: [source({ way: 'device', name: 'Cellar logger', readings: 1200 }), source({ way: 'file', name: 'autumn.csv' }), source({})],
    }); // prettier-ignore
    expect(found.texts('li')).toEqual([
      'device: Cellar logger 1200 readings, 15 Nov 2026 – 23 Nov 2026',
      'file: autumn.csv 1 reading, 15 Nov 2026 – 23 Nov 2026',
      'typed or not known 1 reading, 15 Nov 2026 – 23 Nov 2026',
    ]);
    expect(found.text).not.toContain('Out of the count');
  });

  it('keeps what was struck in sight, with reason and who, and offers to bring it back', () => {
    const found = log({ struck: [stretch] });
    expect(found.texts('li')[0]).toContain('48 readings: sensor in the sun (Ida)');
    expect(found.texts('li')[0]).toContain('Bring it back');
  });

  it('what was brought back says so and is not offered again', () => {
    const found = log({ struck: [{ ...stretch, brought_back: 'it was in the shade' }] });
    expect(found.texts('li')[0]).toContain('brought back: it was in the shade');
    expect(found.text).not.toContain('Bring it back');
  });

  it('has two forms, each with its own moments', () => {
    expect(log().all('form').map((one) => one.getAttribute('aria-label'))).toEqual([
      'Note a reading of your own', 'Take a stretch out of the count',
    ]); // prettier-ignore
    expect(log().all('[role=alert]')).toHaveLength(0);
  });
});
