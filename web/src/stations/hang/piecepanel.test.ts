import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { keys } from '../../api/queries';
import { route } from '../../shell/router';
import { card, climate, inDays, NOW, piece, said, weighing } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import type { Entry, Outbox } from './outbox.svelte';
import PiecePanel from './PiecePanel.svelte';
import { Round } from './round.svelte';
import RoundEnd from './RoundEnd.svelte';
import WeighRound from './WeighRound.svelte';

type Card = Schema['PieceCard'];
const NONE: Schema['Ready'] = { p10: null, p50: null, p90: null };
const scale = (changes: Partial<Schema['ScaleOut']> = {}): Schema['ScaleOut'] => ({
  at: inDays(-1), gross_g: 640, loss_percent: 36, confirmed: false, doubt: false, ...changes,
}); // prettier-ignore
const EXPLAINED: Schema['ExplainedOut'] = {
  own_share: 0.6, own_weighings: 3, mates_share: 0.3, mates_weighed: 2, prior_share: 0.1, air_share: 0.4, window_days: 9,
  narrowing: [{ by: 'weigh', window_days: 5 }], reaching: null,
}; // prettier-ignore

describe('a piece beside the room', () => {
  const panel = (
    changes: Partial<Card> = {}, more: Partial<Schema['PieceOut']> = {}, answers: [readonly unknown[], unknown][] = [],
  ): Drawn =>
    drawn(PiecePanel, {
      piece: piece({ card: card(changes), climate: climate([13, 13], [78, 79]), ...more }), shelf: false, now: NOW,
      moving: false, early: null, refresh: () => undefined, onmove: () => undefined, onhook: () => undefined,
      ondown: () => undefined, onclose: () => undefined,
    }, answers); // prettier-ignore
  const head = (drawing: Drawn): string =>
    drawing.texts('.text-2xl').find((text) => text !== 'J-21-02') ?? '';

  it('says its date with its window, and what a weighing would do', () => {
    expect(head(panel())).toBe('Ready about Sunday 6 December');
    expect(panel().texts('[data-testid=window]')[0]).toContain('3–10 Dec');
    expect(panel({ wants: ['weigh'] }).text).toContain('A weighing now would narrow the date.');
    expect(panel().text).not.toContain('A weighing now');
  });

  it.each<[Partial<Card>, string]>([
    [{ state: 'likely' }, 'Likely ready: weigh it'],
    [{ state: 'ready', scale: scale() }, 'Ready by weight'],
    [{ state: 'over', scale: scale({ gross_g: 600 }), loss_percent: 40 }, 'Ready by weight'],
    [{ state: 'hold' }, 'Soft in the middle: hold it, do not taste'],
    [{ state: 'felt', ready: NONE }, 'Felt firm to the middle'],
    [{ state: 'feel', ready: NONE, feel_from: inDays(-1), feel_to: inDays(3) }, 'Worth feeling now'],
    [
      { state: 'drying', ready: NONE, feel_from: inDays(2), feel_to: inDays(9) },
      'Worth feeling from Thursday 26 November',
    ],
  ])('%o is headed "%s"', (changes, told) => {
    expect(head(panel(changes))).toBe(told);
  });

  it('ready says which weight on which day it rests on; past its target by how much', () => {
    expect(panel({ state: 'ready', scale: scale() }).text).toContain(
      'The scale showed 640 g on Monday 23 November.',
    );
    const over = panel({ state: 'over', scale: scale(), loss_percent: 40 });
    expect(over.texts('.text-error')[0]).toContain('4');
    expect(panel({ state: 'ready', scale: scale(), wants: ['ring'] }).text).toContain(
      'By the model its rim is hard',
    );
  });

  it('says what the scale said first, and the model beside it as a model', () => {
    const weighed = panel({ scale: scale() });
    expect(weighed.texts('[data-testid=scale]')[0]).toMatch(
      /^640 g on the scale Mon 23 Nov 10:00: 36.0 % of 36 % by the model about 760 g now/,
    );
    expect(panel().texts('[data-testid=scale]')[0]).toMatch(/^Never weighed by the model about/);
    expect(panel({ scale: scale({ doubt: true }) }).text).toContain('in doubt: it does not count yet');
    const unweighed = panel({
      start_weight_g: null,
      model_weight_g: null,
      target_loss_percent: null,
      target_weight_g: null,
    });
    expect(unweighed.text).toContain('Nobody weighed it when it was hung');
    expect(unweighed.text).toContain('by the model about 24 % lost now, 20 % to 28 %');
  });

  it('says dates are being made while they are, and what they rest on that nobody gave', () => {
    expect(panel({}, { dates_being_made: true }).all('[role=status]').length).toBeGreaterThan(0);
    expect(panel({}, { assumed: [said('today.no_copy')] }).texts('[data-testid=assumed]')).toHaveLength(1);
  });

  it('names every weight in doubt with what is wrong with it', () => {
    const doubtful = [
      weighing({ doubt: said('today.no_copy') }),
      weighing({ id: 2, kept: true }),
      weighing({ id: 3 }),
    ];
    const told = panel({}, { weighings: doubtful });
    expect(told.all('.border-warning p')).toHaveLength(3); // a head and two weights
    expect(
      panel({}, { weighings: [weighing({ kept: true, confirmed: true })] }).all('.border-warning'),
    ).toHaveLength(0);
  });

  it('says what the date rests on, and what would narrow it', () => {
    const grounds = panel({}, {}, [[keys.explained(7), EXPLAINED]]);
    expect(grounds.text).toContain('3 weighings of its own 60 %');
    expect(grounds.text).toContain('40 % of what is open is the air ahead.');
    const air = panel({}, {}, [
      [keys.explained(7), { ...EXPLAINED, air_share: 0.3, prior_share: 0.01, narrowing: [] }],
    ]);
    expect(air.text).not.toContain('is the air ahead');
    expect(air.text).not.toContain('what such goods usually do');
    expect(air.text).toContain('Nothing would narrow it much just now.');
  });

  it('says how it is inside, and what a rest would do only where there is a ring to even out', () => {
    const rest = (ring: number, weeks: number | null): Schema['InsideAtOut'] => ({
      at: inDays(0), inside: piece().inside, loss_percent: 24,
      rest: { rim_feels: 'firm', core_feels: 'firm', ring_index: [ring], temperature_c: 4, weeks },
    }); // prettier-ignore
    const inside = (answer: Schema['InsideAtOut']): Drawn => panel({}, {}, [[keys.inside(7, null), answer]]);
    expect(inside(rest(0.2, 3)).texts('[data-testid=rest]')[0]).toContain('3');
    expect(inside(rest(0.2, null)).all('[data-testid=rest]')).toHaveLength(1);
    expect(inside(rest(0.08, 3)).all('[data-testid=rest]')).toHaveLength(0);
    expect(panel({ wants: ['too_fast'] }).all('dd.text-error')).toHaveLength(1);
  });

  it('off its hook stands as it was: no date, no weighing, no move', () => {
    const down = panel({ life: { ...card().life, kind: 'down' } }, { hangs: false });
    expect(down.all('[data-testid=life]')).toHaveLength(1);
    expect(down.text).not.toContain('Ready about');
    expect(down.all('#weigh')).toHaveLength(0);
    expect(panel().all('#weigh')).toHaveLength(1);
  });

  it('says on every page that a date is no test of safety', () => {
    for (const state of ['drying', 'ready', 'hold', 'likely'] as const)
      expect(panel({ state, scale: scale() }).text).toContain('A date is an estimate, not a test of safety.');
  });
});

describe('a weigh round', () => {
  const one = (id: number, changes: Partial<Schema['RoundPiece']> = {}): Schema['RoundPiece'] => ({
    id, tag: `J-21-0${id}`, batch: 'J-21', product: 'Juniper salame', rod: 1, hook: id, why: null, start_weight_g: 1000,
    tare_g: 10, tag_g: null, last_g: 790, last_at: inDays(-5), expected_low_g: 738, expected_high_g: 761, ask_low_g: 700,
    ask_high_g: 800, ...changes,
  }); // prettier-ignore
  const choose = (pieces: Schema['RoundPiece'][]): Drawn => {
    Object.assign(route.params, { place: '1' });
    return drawn(WeighRound, {}, [[keys.round(1), { at: inDays(0), place: 'Cellar', place_id: 1, pieces }]]);
  };

  it('offers what tells most, with why, and all of it by rod and batch', () => {
    const due = choose([one(1, { why: 'doubtful' }), one(2, { rod: 2, batch: 'K-02' })]);
    expect(due.texts('button').slice(0, 2)).toEqual(['what tells most (1)', 'all (2)']);
    expect(due.texts('button').slice(2, 6)).toEqual(['rod 1', 'rod 2', 'J-21', 'K-02']);
    expect(due.texts('li')).toEqual(['J-21-01 a weight in doubt']);
  });

  it('says when no weighing would tell much, and when nothing hangs', () => {
    expect(choose([one(1)]).text).toContain('No weighing would tell much today.');
    expect(choose([]).text).toContain('Nothing hangs here.');
    expect(choose([]).text).not.toContain('all (');
  });

  const entry = (id: number, changes: Partial<Entry> = {}, answer: Partial<Schema['EntryAnswer']> = {}): Entry => ({
    uid: `u${id}`, place: 1, piece_id: id, tag: `J-21-0${id}`, gross_g: 750, at: inDays(0), by: 'Ida', confirmed: false,
    state: 'sent',
    answer: {
      uid: `u${id}`, piece_id: id, tag: `J-21-0${id}`, outcome: 'stored', loss_percent: 25, ready: null, says: null,
      state: 'drying', wants: [], weighing_id: id, ...answer,
    },
    ...changes,
  }); // prettier-ignore
  const end = (...entries: Entry[]): Drawn =>
    drawn(RoundEnd, {
      round: new Round(1, [], { of: () => entries } as unknown as Outbox),
      onleave: () => undefined,
    });

  it('ends with what is ready, too fast, not taken or to be looked at again', () => {
    const told = end(
      entry(1, {}, { state: 'ready' }),
      entry(2, {}, { wants: ['too_fast'] }),
      entry(3, {}, { outcome: 'conflict' }),
      entry(4, { state: 'refused' }, { outcome: 'refused', says: said('today.no_copy') }),
      entry(5),
    );
    expect(told.texts('h2')).toEqual([
      'Ready by weight: feel, and take down', 'Too fast: move, or slow the air', 'Weighed twice, differently: look again', 'Not taken',
    ]); // prettier-ignore
    expect(told.text).toContain('4 pieces weighed');
    expect(told.texts('[role=status]')).toEqual(['All weights are in.']);
  });

  it('says how many weights still wait on this device', () => {
    const told = end(entry(1, { state: 'waiting', answer: null }), entry(2));
    expect(told.texts('[role=status]')).toEqual(['1 weight waits on this device for the connection']);
    expect(told.all('h2')).toHaveLength(0);
  });
});
