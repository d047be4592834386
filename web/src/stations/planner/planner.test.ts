import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { inDays, NOW, said } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import { planned, step, strip } from '../../testing/plans';
import Along from './Along.svelte';
import Answer from './Answer.svelte';
import Doings from './Doings.svelte';
import { Hand, wishFor } from './hand.svelte';
import Strip from './Strip.svelte';
import Trouble from './Trouble.svelte';
import { weeksFrom } from './weeks';

const NOBODY = (): void => undefined;
const SHEET = { plan: { piece_g: 1000, target_loss_percent: 36 } } as Schema['SheetModel'];
const hand = (changes: Partial<Hand> = {}): Hand => Object.assign(new Hand(), changes);
const weeks = weeksFrom(new Date(NOW).toISOString(), 12, 840); // ten pixels a day

describe('the answer of a plan', () => {
  const answer = (changes: Partial<Schema['PlanOut']> = {}, held = hand()): Drawn =>
    drawn(Answer, { hand: held, plan: planned(changes) });

  it('says by when it must be begun, and how sure that is, in words of a customer', () => {
    expect(answer().texts('.lead')).toEqual([
      'Juniper salame: Stuff by Tuesday 1 December, in time 8 times in 10',
    ]);
    expect(answer({ minced: false }).text).toContain('Into the salt by');
    expect(answer({ chance: 0.99 }).text).toContain('in time nearly always');
    expect(answer({ chance: 0.02 }).text).toContain('in time hardly ever');
    expect(answer({ chance: 0.12 }).text).toContain('in time 1 time in 10');
  });

  it('that is begun says how it stands instead', () => {
    const hangs = answer({ state: 'hanging' });
    expect(hangs.text).not.toContain('Stuff by');
    expect(hangs.text).toContain('hang');
  });

  it('says what a week sooner or later would do, where that is known', () => {
    const days = Array.from({ length: 30 }, (_, i) => ({ start: inDays(i - 7), chance: 0.99 - i / 40 }));
    const told = answer({}, hand({ days })).text;
    expect(told).toContain('a week later');
    expect(told).toContain('a week earlier');
    expect(answer({}, hand({ days: days.slice(14) })).text).not.toContain('a week earlier');
  });

  it('too late says by when it would be there, or that it never will', () => {
    const looked = { latest_start: null, in_time_by: inDays(80) } as Schema['LookedAt'];
    expect(answer({}, hand({ looked })).text).toContain(
      'With the chance asked for it would be there by Friday 12 February',
    );
    expect(answer({}, hand({ looked: { ...looked, in_time_by: null } })).text).toContain(
      'do not get to their loss',
    );
    expect(answer({ state: 'hanging' }, hand({ looked })).all('.text-warning')).toHaveLength(0);
  });

  it('puts a step that is chosen on its day, with the days around it, and the others where they fall', () => {
    const steps = [step('start', 5, 9), step('done', 40, 54, 'weight_led'), step('table', 41, 41, 'firm')];
    const [start, done, table] = answer({ steps }).texts('.stages li');
    expect(start).toMatch(/^1 Dec .*29 Nov – 3 Dec, may wait$/);
    expect(done).toMatch(/^3–17 Jan .*led by the scale$/);
    expect(table).toMatch(/^4 Jan .*may not wait$/);
    expect(answer({ steps, state: 'hanging' }).texts('.stages li')[0]).toMatch(/^29 Nov – 3 Dec /);
  });

  it('says what goes in, and what was taken as usual', () => {
    expect(answer().text).toContain('12.0 kg of meat, each 1 000 g when stuffed, 4.2 m of casing, Cellar');
    expect(answer({ minced: false, hung_g: 960, casing_mm: null }).text).toContain(
      'each 1 000 g raw, 960 g when hung, Cellar',
    );
    expect(answer({ assumed: [said('today.no_copy')] }).texts('summary')).toEqual(['Taken as usual']);
    expect(answer().all('summary')).toHaveLength(0);
  });
});

describe('what can be done with a plan', () => {
  const doings = (held: Partial<Hand>): string[] =>
    drawn(Doings, { hand: hand(held), onclose: NOBODY, onchanged: async () => undefined }).texts('button');
  const looked = { plan: planned() } as Schema['LookedAt'];

  it('new is kept; changed is kept so or put back; kept is weighed out', () => {
    expect(doings({ looked })).toEqual(['Keep this plan', 'Close']);
    expect(doings({ kept: planned(), changed: true })).toEqual([
      'Keep it so',
      'Put it back',
      'Give the plan up',
      'Close',
    ]);
    expect(doings({ kept: planned() }).slice(0, 3)).toEqual(['Weigh it out', 'Give the plan up', 'Close']);
  });

  it('that is on its way leads to where it is, and cannot be weighed out again', () => {
    const made = doings({ kept: planned({ state: 'hanging', batch: 'J-22', batch_id: 9 }) });
    expect(made[0]).toContain('J-22');
    expect(made.join()).not.toContain('Weigh it out');
    expect(doings({ kept: planned({ state: 'weighing', weigh_out_id: 4 }) })).toHaveLength(3);
  });

  it('is kept only once it was looked at and stands', () => {
    const keep = (held: Partial<Hand>): boolean =>
      drawn(Doings, { hand: hand(held), onclose: NOBODY, onchanged: async () => undefined })
        .one('.btn-primary')
        .hasAttribute('disabled');
    expect(keep({ looked })).toBe(false);
    expect(keep({ looked, looking: true })).toBe(true);
    expect(keep({ looked, problem: 'no such place' })).toBe(true);
    expect(keep({})).toBe(true);
  });
});

describe('where a plan is in trouble', () => {
  const WAYS: Schema['WayOutOut'][] = [{ kind: 'later', says: said('today.no_copy'), wanted: inDays(80) }];
  it('is told with what to say to the customer and the ways out', () => {
    const slip = {
      kind: 'slow',
      says: said('today.no_copy'),
      customer: said('today.copy_failed', { why: 'rain' }),
      ways: WAYS,
    } as const;
    const told = drawn(Trouble, { hand: hand(), plan: planned({ slip: { ...slip, ways: WAYS } }) });
    expect(told.text).toContain('The latest try: rain.');
    expect(told.texts('button')).toEqual(['Look after the copies: there is none yet']);
  });
  it('by room or water is told too, and where there is none nothing stands', () => {
    const clash = { at: inDays(10), place_id: 1, says: said('today.no_copy'), ways: [] };
    expect(
      drawn(Trouble, { hand: hand(), plan: planned({ clash, water: said('today.no_copy') }) }).all(
        '.trouble',
      ),
    ).toHaveLength(2);
    expect(drawn(Trouble, { hand: hand(), plan: planned() }).text).toBe('');
  });
});

describe('a batch along the weeks', () => {
  const LYING: Schema['LyingOut'] = {
    batch_id: 3, code: 'J-21', product: 'Juniper salame', kind: 'salame', shape: 'cylinder', pieces: 6, dried: 0.5,
    state: 'hanging', span: { place_id: 1, start: inDays(-20), until: inDays(14), latest: inDays(20) },
  }; // prettier-ignore
  const along = (goods: Schema['LyingOut'] | null, plan: Schema['PlanOut'] | null, held = hand()): Drawn =>
    drawn(Along, {
      span: goods?.span ?? planned().hanging,
      goods,
      plan,
      middle: 20,
      weeks,
      hand: held,
      ontake: NOBODY,
    });

  it('that hangs is named with until when, and has a tail to its latest', () => {
    const hangs = along(LYING, null);
    expect(hangs.label('g')).toBe('J-21 ×6, Juniper salame, likely until 8 Dec');
    expect(hangs.one('polygon').getAttribute('points')).toMatch(/^140,15 200,/);
    expect(hangs.texts('text')).toEqual(['J-21 ×6']);
  });

  it('nobody can say the end of goes on to the edge', () => {
    const endless = along({ ...LYING, span: { ...LYING.span, until: null, latest: null } }, null);
    expect(endless.label('g')).toContain('nobody can say when');
    expect(endless.all('path.endless')).toHaveLength(1);
    expect(endless.all('polygon')).toHaveLength(0);
  });

  it('that is planned says for when, how sure, and how it is moved by keys', () => {
    const plan = along(null, planned());
    expect(plan.texts('text')).toEqual(['planned: Juniper salame ×12 for 23 Jan']);
    expect(plan.label('g')).toContain('begun 1 Dec, in time 83 %; arrow keys move it by a day');
    expect(plan.all('g.planned:not(.held)')).toHaveLength(1);
    const held = along(
      null,
      planned(),
      hand({ wish: wishFor('Juniper salame', SHEET, inDays(60)), kept: planned() }),
    );
    expect(held.all('g.held')).toHaveLength(1);
  });

  it('too short for its name has the name beside it, within the weeks', () => {
    const short = along({ ...LYING, span: { ...LYING.span, until: inDays(1), latest: inDays(1) } }, null);
    expect(short.all('text.outside')).toHaveLength(1);
    const atTheEnd = along(
      { ...LYING, span: { place_id: 1, start: inDays(82), until: inDays(83), latest: inDays(83) } },
      null,
    );
    expect(atTheEnd.figure('text', 'x')).toBeLessThan(840);
  });
});

describe('a place over the weeks', () => {
  const over = (changes: Partial<Schema['StripOut']> = {}, plans: Schema['PlanOut'][] = []): Drawn =>
    drawn(Strip, {
      strip: strip(changes),
      plans,
      weeks,
      gutter: 0,
      hand: hand(),
      head: true,
      ontake: NOBODY,
      onchanged: NOBODY,
    });

  it('says how many hooks are free, how full each week gets, and marks the weeks that are too full', () => {
    expect(over().text).toContain('40 hooks, 28 free now');
    expect(
      over()
        .texts('.count')
        .map((one) => one.split(' ')[0]),
    ).toEqual(['12/4012', '22/4022', '32/4032', '▲']);
    expect(over().all('.count.over')).toHaveLength(1);
    expect(over({ free: -3 }).text).toContain('0 free now');
  });

  it('of which nobody said how many go in asks for it', () => {
    expect(over({ room: null, free: null }).text).toContain('how many go in?');
    expect(over({ room: null, free: null }).all('.over')).toHaveLength(0);
  });

  it('says how much water it has managed, or that nobody knows', () => {
    expect(over().text).toContain('600 g of 900 g managed');
    expect(over({ managed_g: null }).text).toContain('nobody knows what it manages');
    expect(
      over({ weeks: strip().weeks.map((week) => ({ ...week, water_g: null })) }).all('.water'),
    ).toHaveLength(0);
  });

  it('shows a plan where it lies until it hangs; then it lies there as what hangs', () => {
    const warm = { place_id: 2, start: inDays(7), until: inDays(9), latest: null };
    expect(over({}, [planned({ before: [warm] })]).all('.planned')).toHaveLength(1);
    expect(over({ place_id: 2 }, [planned({ before: [warm] })]).all('.planned')).toHaveLength(1);
    expect(over({}, [planned({ state: 'hanging' })]).all('.planned')).toHaveLength(0);
    expect(
      over({}, [planned({ hanging: { ...planned().hanging, start: inDays(200) } })]).all('.planned'),
    ).toHaveLength(0);
  });

  it('tells a clash under the place where it happens', () => {
    const clash = { at: inDays(10), place_id: 1, says: said('today.no_copy'), ways: [] };
    expect(over({}, [planned({ clash })]).texts('.clash')).toEqual([
      '▲ Juniper salame: Look after the copies: there is none yet.',
    ]);
    expect(over({ place_id: 2 }, [planned({ clash })]).all('.clash')).toHaveLength(0);
  });
});
