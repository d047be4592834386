import { afterEach, describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { keys, roomQuery } from '../../api/queries';
import { card, inDays, NOW, piece, said } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import AtTheHook from './AtTheHook.svelte';
import Devices from './Devices.svelte';
import { hand } from './hand.svelte';
import Hands from './Hands.svelte';
import HangFoot from './HangFoot.svelte';
import Mending from './Mending.svelte';
import Photos from './Photos.svelte';
import WhatIfPanel from './WhatIfPanel.svelte';

type Trouble = NonNullable<Schema['MendingOut']>;

describe('what goes wrong with a piece', () => {
  const mend = (way: Schema['MendOut']['way'], changes: Partial<Schema['MendOut']> = {}): Schema['MendOut'] => ({
    way, days_later: null, hook: null, ready: null, rh_percent: null, ring_index: null, weeks: null, ...changes,
  }); // prettier-ignore
  const shown = (changes: Partial<Trouble> = {}): Drawn => {
    const one = piece();
    const { id, loss_percent, rod, hook } = one.card;
    return drawn(Mending, { piece: one, now: NOW, onhook: () => undefined }, [
      [[...keys.mendings, id, loss_percent, rod, hook], {
        mending: {
          evidence: [], loss_g_per_day: 6.4, loss_money_per_day: null, mends: [], over_at: null, place_wide: false,
          ring_index: 0.62, trouble: 'too_fast', ...changes,
        },
      }],
    ]); // prettier-ignore
  };

  it('is nothing where nothing does', () => {
    expect(drawn(Mending, { piece: piece(), now: NOW, onhook: () => undefined }).text).toBe('');
  });

  it.each<[Trouble['trouble'], string, boolean]>([
    ['too_fast', 'Drying too fast: a dry ring closes', true],
    ['stuck', 'Stuck: it will not get there in this air', true],
    ['too_slow', 'Drying too slowly: slime and wrong mould get their chance', false],
    ['overshooting', 'Ready, and going past its target', false],
  ])('%s is titled "%s"; grave: %s', (trouble, title, grave) => {
    const found = shown({ trouble });
    expect(found.label('section')).toBe(title);
    expect(found.all('section.border-error')).toHaveLength(grave ? 1 : 0);
  });

  it('each way of mending says what it would do to date and ring', () => {
    const mends = [
      mend('hook', { hook: { rod: 1, hook: 4, rod_id: 1 }, days_later: 3.2, ring_index: 0.31 }),
      mend('humidity', { rh_percent: 82, days_later: 0.7, ring_index: 0.4 }),
      mend('air', { days_later: -1, ring_index: 0.45 }),
      mend('rest', { weeks: 3, ready: inDays(40), ring_index: 0.2 }),
      mend('wrap'),
      mend('take_down'),
    ];
    const rows = shown({ mends })
      .all('tbody tr')
      .map((row) => row.text.replace(/\s+/g, ' ').trim());
    expect(rows).toEqual([
      'Hang it on rod 1, hook 4 Move it 3 days later 0.31',
      'Set the whole place to 82 % same day 0.40',
      'Slow the air at it by a third 1 day sooner 0.45',
      'Seal it and let it rest 3 weeks, then hang it again Sunday 3 January 0.20',
      'Wrap it in a membrane',
      'Feel it and take it down',
    ]);
    expect(shown({ mends }).texts('thead th')).toEqual(['date', 'ring, now 0.62']);
    expect(shown({ mends, trouble: 'too_slow' }).text).toContain('Half as much air again at it');
  });

  it('what goes past its target costs weight, and money where it is known; before that it is harmless', () => {
    const coming = shown({ trouble: 'overshooting', over_at: inDays(2) });
    expect(coming.text).toContain('about Thursday 26 November: until then it is harmless');
    expect(coming.text).toContain('Each day it loses about 6 g.');
    expect(coming.all('table')).toHaveLength(0);
    const past = shown({ trouble: 'overshooting', over_at: inDays(-2), loss_money_per_day: 0.186 });
    expect(past.text).toContain('since about Sunday 22 November: weight and texture are being lost.');
    expect(past.text).toContain('Each day it loses about 6 g, worth 0.19.');
  });
});

describe('at the hook', () => {
  const event = (changes: Partial<Schema['HangEventOut']> = {}): Schema['HangEventOut'] => ({
    at: inDays(-1), by: 'Ida', found: null, id: 1, kind: 'turn', note: '', struck_reason: null, ...changes,
  }); // prettier-ignore
  const hook = (
    changes: Partial<{ held: boolean; advice: Schema['AdviceOut'][]; events: Schema['HangEventOut'][] }> = {},
  ): Drawn =>
    drawn(AtTheHook, { piece: 7 }, [[['hook', 7], { held: false, advice: [], events: [], ...changes }]]);

  it('offers what can be done to a piece, and to hold it', () => {
    expect(hook().texts('.btn')).toEqual([
      'turned',
      'wiped',
      'wrapped',
      'patched',
      'Hold it',
      'Take a photo',
    ]);
    expect(hook().text).toContain('A piece in doubt is not tasted.');
  });

  it('what is held says so before anything else and can be released', () => {
    expect(hook({ held: true }).one('.text-error').text).toBe(
      'On hold: it is not tasted, sold or cut until it is released.',
    );
    expect(hook({ held: true }).texts('.btn')).toContain('Release it');
    expect(hook({ held: true }).texts('.btn')).not.toContain('Hold it');
  });

  it.each<[Schema['AdviceOut']['act'], string, string]>([
    ['nothing', 'All well', ''],
    ['watch', 'Watch', ''],
    ['mend', 'Mend', 'text-warning'],
    ['hold', 'Hold', 'text-error'],
    ['discard', 'Discard', 'text-error'],
  ])('advice to %s begins with "%s" in %s', (act, told, colour) => {
    const found = hook({ advice: [{ act, what: said('some.words'), because: [said('one'), said('two')] }] });
    const line = found.one('p.mt-1:has(strong)');
    expect(line.text.replace(/\s+/g, ' ').trim()).toBe(`${told}: some.words (one; two)`);
    expect(line.classList.contains(colour || 'nothing')).toBe(colour !== '');
  });

  it('what was felt and seen is told in its order, with who and when; what was not looked at is not told', () => {
    const found = hook({
      events: [
        event({
          kind: 'inspect',
          note: 'near the string',
          found: { firm_rim: 'hard', firm_core: 'soft', mould: 'green', mould_how: 'furry', sag: true, cracks: false, salt_spots: false },
        }),
      ],
    }); // prettier-ignore
    expect(found.texts('li')[0]).toBe(
      'Mon 23 Nov 10:00 inspected rim hard, core soft, mould green, mould is furry, sags near the string Ida strike',
    );
  });

  it('a struck event stays, crossed out with its reason, and is not struck again', () => {
    const found = hook({ events: [event({ struck_reason: 'wrong piece' }), event({ id: 2, kind: 'wipe' })] });
    expect(found.all('li .line-through')).toHaveLength(1);
    expect(found.texts('li')[0]).toContain('struck: wrong piece');
    expect(found.all('li button')).toHaveLength(1);
  });
});

describe('the photos of a piece', () => {
  const photos = (...found: Schema['PhotoOut'][]): Drawn =>
    drawn(Photos, { piece: 7 }, [[['photos', 7], found]]);
  const photo = { id: 5, at: inDays(-3), by: 'Ida', struck_reason: null };

  it('say when they were taken; a struck one stays with its reason', () => {
    const found = photos(photo, { ...photo, id: 6, struck_reason: 'another piece' });
    expect(found.all('img').map((one) => one.getAttribute('src'))).toEqual([
      '/api/photos/5.jpg',
      '/api/photos/6.jpg',
    ]);
    expect(found.all('img')[0]?.getAttribute('alt')).toContain('21 Nov');
    expect(found.all('.shot.struck')).toHaveLength(1);
    expect(found.text).toContain('struck: another piece');
    expect(photos().all('.shot')).toHaveLength(0);
  });
});

describe('beside the room, when no piece is picked', () => {
  const room = (pieces: Schema['PieceCard'][], changes: Partial<Schema['Room']> = {}): Drawn =>
    drawn(Hands, {
      onpick: () => undefined,
      room: {
        pieces, dates_being_made: false, hooks: [], hung_here: pieces.length, ready_this_week: 0, rods: [], shift: null,
        water_g_per_day: 41,
        place: {
          id: 1, kind: 'chamber', name: 'Cellar', hooks: 8, pieces: pieces.length, setpoint: null, sort: null, stirring: null,
          air: { at: inDays(0), rh_percent: 78, stale: false, temperature_c: 13, trend_c: 0, trend_rh: 0 },
        },
        ...changes,
      },
    }); // prettier-ignore

  it('stands what wants a hand, the most pressing first, each piece under all that it wants', () => {
    const found = room([
      card({ id: 1, tag: 'A', wants: ['weigh'] }),
      card({ id: 2, tag: 'B', wants: ['too_fast', 'weigh'] }),
      card({ id: 3, tag: 'C', state: 'over' }),
    ]);
    expect(found.texts('h3')).toEqual([
      'Past the target: take down', 'Drying too fast', 'Worth weighing: it would narrow the date most',
    ]); // prettier-ignore
    expect(found.texts('li .font-tag')).toEqual(['C', 'B', 'A', 'B']);
  });

  it('what is likely ready is told once: to weigh it is what that means', () => {
    expect(room([card({ state: 'likely', wants: ['weigh'] })]).texts('h3')).toEqual([
      'Likely ready: weigh it',
    ]);
  });

  it('shows a loss by the scale as it is, by the model with a ~, and a doubted weight with a ?', () => {
    const scale = { at: inDays(-1), gross_g: 760, loss_percent: 24, confirmed: false, doubt: false };
    const row = (changes: Partial<Schema['PieceCard']>): string | undefined =>
      room([card({ wants: ['weigh'], ...changes })]).texts('li .whitespace-nowrap')[0];
    expect(row({})).toBe('~24.0 %');
    expect(row({ scale })).toBe('24.0 %');
    expect(row({ scale: { ...scale, doubt: true } })).toBe('760 g ?');
  });

  it('says when nothing wants one, what is ready next, and the water of a day', () => {
    const found = room([
      card({ tag: 'B', ready: { p10: inDays(2), p50: inDays(4), p90: inDays(6) } }),
      card({ tag: 'A' }),
    ]);
    expect(found.all('h3')).toHaveLength(0);
    expect(found.text).toContain('Saturday 28 November');
    expect(found.text).toMatch(/\bB\b.*Saturday 28 November/);
    expect(found.text).toContain('41 g');
    expect(found.text).toContain('1.5 kg');
  });

  it('an empty room has only what is asked of its air', () => {
    const none = {
      air: null,
      id: 1,
      kind: 'chamber' as const,
      name: 'Cellar',
      hooks: 8,
      pieces: 0,
      sort: null,
      stirring: null,
    };
    const set = room([], { place: { ...none, setpoint: { temperature_c: 13, rh_percent: 78 } } });
    const unset = room([], { place: { ...none, setpoint: null } });
    expect(set.all('h2')).toHaveLength(0);
    expect(set.one('.border-info').text).not.toBe(unset.one('.border-info').text);
    expect(room([]).all('.border-info')).toHaveLength(0);
  });

  it('a shift of the air is told as one for everything that hangs here', () => {
    const found = room([card()], { shift: { by_rh_percent: -6, by_c: 1.4 } });
    expect(found.text).toContain('The air is 6 points drier and 1.4 °C warmer than in the two weeks before');
    expect(room([card()], { shift: { by_rh_percent: 5, by_c: null } }).text).toContain(
      'The air is 5 points damper than',
    );
  });
});

describe('the foot of the room', () => {
  const place = (id: number, hooks: number, pieces: number): Schema['PlaceOut'] => ({
    id, hooks, pieces, name: `Place ${id}`, kind: 'chamber', air: null, setpoint: null, sort: null, stirring: null,
  }); // prettier-ignore
  const foot = (): Drawn =>
    drawn(HangFoot, {
      places: [place(1, 8, 2), place(2, 6, 4), place(3, 4, 4)], placeId: 1, find: '', onhang: () => undefined,
      onimport: () => undefined, onkeys: () => undefined,
    }); // prettier-ignore
  afterEach(() => (hand.holds = null));

  it('has what is done most, each with its key', () => {
    expect(foot().texts('kbd')).toEqual(['r', 'h', 'b', '?']);
    expect(foot().one('a').getAttribute('href')).toBe('/hang/1/round');
  });

  it('with a piece in the hand, the places that have a free hook, and no more', () => {
    hand.holds = { ...card({ id: 9, tag: 'K-01' }), hangs: true };
    expect(
      foot()
        .texts('a')
        .map((text) => text.replace(/\s/g, ' ')),
    ).toEqual(['Place 2 2 free']);
    expect(foot().text).toContain('K-01');
    expect(foot().all('kbd')).toHaveLength(0);
  });
});

describe('the devices of a place', () => {
  const device = (changes: Partial<Schema['DeviceOut']>): Schema['DeviceOut'] => ({
    ended_at: null, ended_by: null, id: 1, impossible: 0, kind: 'climate', last_at: new Date(NOW - 120_000).toISOString(),
    late: 0, made_at: inDays(-90), made_by: 'Ida', name: 'Logger', place: 'Cellar', repeated: 0, silent: false,
    simulated: false, taken: 12, value: null, value_at: null, ...changes,
  }); // prettier-ignore
  const devices = (simulated: boolean, ...found: Schema['DeviceOut'][]): Drawn =>
    drawn(Devices, { place: 1, placeName: 'Cellar', now: NOW, simulated }, [[keys.devices, found]]);

  it('are those that stand here or go about, with what they sent and whether they are heard', () => {
    const found = devices(false,
      device({}), device({ id: 2, place: 'Attic', name: 'Far' }), device({ id: 3, place: null, kind: 'scale', name: 'Scale', last_at: null }),
      device({ id: 4, name: 'Old', silent: true, late: 2, repeated: 3, impossible: 4, simulated: true }),
    ); // prettier-ignore
    expect(found.texts('li')).toEqual([
      'Logger Cellar, climate sensor heard 2 min ago 12 taken, 0 late, 0 repeated, 0 impossible',
      'Scale scale not heard of yet 12 taken, 0 late, 0 repeated, 0 impossible',
      'Old Cellar, climate sensor simulated silent, heard 2 min ago 12 taken, 2 late, 3 repeated, 4 impossible',
    ]);
    expect(found.all('li .text-error')).toHaveLength(1);
  });

  it('time runs ahead in a simulated workshop alone', () => {
    expect(devices(true).text).toContain('This workshop is simulated');
    expect(devices(false).text).not.toContain('simulated');
  });
});

describe('what if', () => {
  const panel = (answers: [readonly unknown[], unknown][] = []): Drawn =>
    drawn(WhatIfPanel, { piece: piece() }, answers);

  it('has four sliders, and waits for one to be moved', () => {
    expect(
      panel()
        .all('input[type=range]')
        .map((one) => one.getAttribute('min')),
    ).toEqual(['40', '2', '-2', '15']);
    expect(panel().all('section button')).toHaveLength(0);
  });

  it('offers the hooks that are free, each with its air where that is known', () => {
    const room = {
      pieces: [card({ rod: 1, hook: 2 })],
      rods: [{ id: 5, number: 1, hooks: 3, hook_spacing_mm: null, close: [], short_mm: 0 }],
      hooks: [{ rod_id: 5, hook: 3, air: 0.8, low: 0.7, high: 0.9, pieces: 2 }],
    } as unknown as Schema['Room'];
    const offered = panel([[roomQuery(1).queryKey, room]])
      .texts('select')
      .at(-1);
    expect(offered).toContain('rod 1, hook 1');
    expect(offered).not.toContain('rod 1, hook 2');
    expect(offered).toMatch(/rod 1, hook 3 .*0\.8/);
  });
});
