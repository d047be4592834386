import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { keys } from '../../api/queries';
import { card, inDays, NOW, piece, said, weighing } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import AfterHook from './AfterHook.svelte';
import Assumed from './Assumed.svelte';
import Declared from './Declared.svelte';
import FileAsks from './FileAsks.svelte';
import FileDoubts from './FileDoubts.svelte';
import FileRead from './FileRead.svelte';
import { Importing } from './importing.svelte';
import PieceList from './PieceList.svelte';
import Reach from './Reach.svelte';
import RoomHead from './RoomHead.svelte';
import Stays from './Stays.svelte';
import Suits from './Suits.svelte';
import Told from './Told.svelte';
import Weights from './Weights.svelte';

type Piece = Schema['PieceOut'];
const refresh = (): undefined => undefined;

describe('the room as a list', () => {
  const list = (...pieces: Schema['PieceCard'][]): Drawn =>
    drawn(PieceList, { pieces, chosen: null, now: NOW, onpick: () => undefined });
  const soon = card({ id: 1, tag: 'A-01', ready: { p10: inDays(2), p50: inDays(3), p90: inDays(5) } });
  const late = card({ id: 2, tag: 'B-01', batch: 'B' });
  const felt = card({
    id: 3, tag: 'C-01', batch: 'C', state: 'feel', done_by: 'feel', target_loss_percent: null, target_weight_g: null,
    ready: { p10: null, p50: null, p90: null }, feel_from: inDays(1), feel_to: inDays(4),
  }); // prettier-ignore
  const never = card({
    id: 4,
    tag: 'D-01',
    state: 'stalled',
    days_left: null,
    ready: { p10: null, p50: null, p90: null },
  });

  it('begins with what is done first; what will never be is last', () => {
    expect(list(never, late, felt, soon).texts('tbody .font-tag')).toEqual(['C-01', 'A-01', 'B-01', 'D-01']);
  });

  it('says what the scale said as it was, and what the model says with a ~', () => {
    const at = inDays(-3);
    const weighed = card({ scale: { at, gross_g: 760, loss_percent: 24, confirmed: false, doubt: false } });
    expect(list(weighed).texts('td')[2]).toBe('24.0 % of 36 %760 g');
    expect(list(card()).texts('td')[2]).toBe('~24.0 % of 36 %~760 g');
    const doubted = card({ scale: { at, gross_g: 760, loss_percent: 24, confirmed: false, doubt: true } });
    expect(list(doubted).texts('td')[2]).toBe('24.0 % of 36 %760 g ?');
    expect(list(card({ weight_now_g: null, start_weight_g: null })).texts('td')[2]).toContain('not weighed');
  });

  it('gives a window only to what has days left', () => {
    expect(list(soon).texts('td')[3]).toBe('~12 d 26–29 Nov');
    expect(list(felt).texts('td')[3]).toContain('25–28 Nov');
    expect(list(never).texts('td')[3]).toBe('never');
  });

  it('offers every state, every want and every batch to look at alone', () => {
    const offered = list(soon, late, felt).texts('option');
    expect(offered[0]).toBe('all 3');
    expect(offered.slice(-3)).toEqual(['batch B', 'batch C', 'batch J-21']);
    expect(new Set(offered).size).toBe(1 + 8 + 3 + 3);
  });

  it('tells by which column it is sorted to those who listen', () => {
    expect(list(soon).all('th').map((one) => one.getAttribute('aria-sort'))).toEqual([
      'none', 'none', 'none', 'ascending', 'none',
    ]); // prettier-ignore
    expect(list().all('tbody tr')).toHaveLength(0);
  });
});

describe('the weights of a piece', () => {
  const weights = (...weighings: Schema['WeighingOut'][]): Drawn =>
    drawn(Weights, { piece: piece({ weighings }), refresh });

  it('are as the scale showed them, with the loss and who weighed', () => {
    expect(weights(weighing({ gross_g: 789.5 })).texts('tbody tr')).toEqual([
      'Thu 19 Nov 10:00 789.5 g 21.0 % Ida Strike through',
    ]);
    expect(weights().text).toContain('Never weighed');
  });

  it('that cannot be of this piece have no loss, and are told in doubt', () => {
    const doubted = weights(
      weighing({ loss_percent: -12, doubt: said('doubt.thinning', { readings: 1, since_s: 0 }) }),
    );
    expect(doubted.texts('tbody td')[2]).toBe('–');
    expect(doubted.all('.text-warning')).toHaveLength(1);
    expect(weights(weighing({ kept: true })).all('.text-warning')).toHaveLength(1);
    expect(weights(weighing({ kept: true, confirmed: true })).all('.text-warning')).toHaveLength(0);
  });

  it('that were struck stay, crossed through, with who, why and when, and may count again', () => {
    const struck = weights(
      weighing({ struck_at: inDays(-1), struck_by: 'Ugo', struck_reason: 'the other neck' }),
    );
    expect(struck.all('tr.struck')).toHaveLength(1);
    expect(struck.text).toContain('the other neck · Ugo, Mon 23 Nov 10:00');
    expect(struck.texts('button')).toEqual(['Count it again']);
  });
});

describe('what a date rests on that nobody gave', () => {
  const told = (props: Partial<Parameters<typeof Assumed>[1]>): Drawn =>
    drawn(Assumed, { assumed: [], reaches: null, ...props });
  const FOUR = ['today.no_copy', 'today.no_copy', 'today.no_copy', 'today.no_copy'].map((code) => said(code));

  it('is told whole, or where room is short the weightiest and how many more', () => {
    expect(told({ assumed: FOUR }).text.split(';')).toHaveLength(4);
    expect(told({ assumed: FOUR }).all('button')).toHaveLength(0);
    expect(told({ assumed: FOUR, brief: true }).texts('button')).toEqual(['and 2 more']);
    expect(told({ assumed: FOUR.slice(0, 2), brief: true }).all('button')).toHaveLength(0);
    expect(told({}).text).toBe('');
  });

  it.each<[number | null, boolean]>([
    [null, false],
    [0.49, false], // then it is told to be out of reach
    [0.5, true],
    [0.949, true],
    [0.95, false],
  ])('%s of the likely futures reaching the target is said: %s', (reaches, said_so) => {
    expect(told({ reaches }).text.includes('of the likely futures')).toBe(said_so);
  });

  it('outside of what it was tried on is called a guess', () => {
    expect(told({ outside: true }).text).toBe(
      'Outside of what the dates were tried on: take them as a guess.',
    );
  });
});

describe('for which goods a place suits', () => {
  const suit = (changes: Partial<Schema['SuitsOut']>): Schema['SuitsOut'] => ({
    family: 'salame', name: 'Salame', verdict: 'fit', share: 0.92, mostly: null, mostly_share: 0, ...changes,
  }); // prettier-ignore
  it('is told by share of the hours, with what is off, and what is not fit on its own', () => {
    const told = drawn(Suits, {
      suits: [
        suit({}),
        suit({
          family: 'neck',
          name: 'Neck',
          verdict: 'with_care',
          share: 0.6,
          mostly: 'damp',
          mostly_share: 0.31,
        }),
        suit({ family: 'duck', name: 'Duck breast', verdict: 'unfit', share: 0.1, mostly: 'warm' }),
        suit({ family: 'ham', name: 'Ham', verdict: 'unfit', share: 0.1 }),
      ],
    });
    expect(told.texts('li')).toEqual([
      'Salame fit, 92 % of the hours',
      'Neck with care, 60 % of the hours; too damp in 31 %',
    ]);
    expect(told.text).toContain('Not fit for duck breast (too warm), ham.');
  });
  it('is told later where there is no log yet', () => {
    expect(drawn(Suits, { suits: [] }).text).toContain('once there is a day of readings');
  });
});

describe('where a piece hung', () => {
  const stay = (changes: Partial<Schema['HangingOut']>): Schema['HangingOut'] => ({
    id: 1, place: 'Cellar', rod: 1, rod_id: 1, hook: 2, by: 'Ida', from_at: inDays(-20), to_at: inDays(-3),
    ended_as: 'moved', ended_by: 'Ida', struck_reason: null, ...changes,
  }); // prettier-ignore
  const stays = (changes: Partial<Piece>): Drawn => drawn(Stays, { piece: piece(changes), refresh });
  const moved = [stay({}), stay({ id: 2, hook: 5, from_at: inDays(-3), to_at: null, ended_as: null })];

  it('offers to take back the last move while it hangs, and nothing else', () => {
    expect(stays({ hangings: moved }).all('button')).toHaveLength(1);
    expect(stays({ hangings: moved, hangs: false }).all('button')).toHaveLength(0);
    expect(stays({ hangings: moved.slice(0, 1) }).all('button')).toHaveLength(0);
  });

  it('keeps a move that was taken back, with the reason, and counts it for nothing', () => {
    const struck = stays({ hangings: [...moved.slice(0, 1), stay({ id: 2, struck_reason: 'wrong piece' })] });
    expect(struck.text).toContain('wrong piece');
    expect(struck.all('.line-through')).toHaveLength(2);
    expect(struck.all('button')).toHaveLength(0);
  });
});

describe('how the date of a piece came to be', () => {
  const row = (days: number, p50: number | null): Schema['ToldOut'] => ({
    at: inDays(days),
    ready: p50 === null ? { p10: null, p50: null, p90: null } : { p10: inDays(p50 - 4), p50: inDays(p50), p90: inDays(p50 + 6) },
  }); // prettier-ignore
  const told = (...rows: Schema['ToldOut'][]): Drawn =>
    drawn(Told, { piece: piece({ told: rows }), now: NOW });

  it('is a bar for each time it was told, and one for now', () => {
    const drawing = told(row(-20, 14), row(-10, 10));
    expect(drawing.all('rect')).toHaveLength(3);
    expect(drawing.texts('text').slice(0, 3)).toEqual(['4 Nov', '14 Nov', 'now']);
    expect(drawing.label('svg')).toContain('now: Sunday 6 December');
    expect(drawing.all('rect.current')).toHaveLength(1);
    const days = drawing.all('circle').map((dot) => Number(dot.getAttribute('cx')));
    expect(days[0]).toBeGreaterThan(days[1] ?? 0);
  });

  it('says where it was out of reach, and is not there before there is something to compare', () => {
    expect(told(row(-20, null), row(-10, 10)).all('rect')).toHaveLength(2);
    expect(told(row(-20, null)).text).toContain('out of reach');
    expect(told().text).toBe('');
    expect(told(row(0, 12)).text).toBe('');
  });
});

describe('a target out of reach', () => {
  const reach = (reaching: Schema['ReachingOut']): string =>
    drawn(Reach, { piece: 7 }, [[keys.explained(7), { reaching } as Partial<Schema['ExplainedOut']>]]).text;
  it('is told with the humidity that would bring it there, or how far it goes', () => {
    expect(reach({ rh_percent: 72.4, ready_at: inDays(40), most_loss_percent: 34 })).toContain('72 %');
    expect(reach({ rh_percent: null, ready_at: null, most_loss_percent: 34.4 })).toContain('34 %');
    expect(drawn(Reach, { piece: 7 }).text).toBe('');
  });
});

describe('the head of a room', () => {
  const head = (changes: Partial<Schema['Room']>, asList = false): Drawn =>
    drawn(RoomHead, {
      room: { place: { id: 3, name: 'Long cellar' }, pieces: [], ready_this_week: 0, ...changes } as Schema['Room'],
      layer: 'days',
      asList,
    }); // prettier-ignore
  it('says what hangs, and what is ready this week only where something is', () => {
    expect(head({}).text).not.toContain('this week');
    expect(head({ ready_this_week: 2, pieces: [card(), card({ id: 8 })] }).text).toContain('2 pieces');
    expect(head({ ready_this_week: 2 }).texts('strong')[0]).toContain('2');
    expect(head({}).one('a').getAttribute('href')).toBe('/hang/3/climate');
  });
  it('offers what can be written on the pieces, where there are drawings of them', () => {
    expect(head({}).all('button[aria-pressed=true]')).toHaveLength(1);
    expect(head({}, true).all('button')).toHaveLength(1);
  });
});

describe('what was declared of a piece', () => {
  const declared = (changes: Partial<Piece>): Drawn => drawn(Declared, { piece: piece(changes), refresh });
  it('is told in its units; a slab has a thickness, the others a diameter', () => {
    expect(declared({}).text).toContain('diameter, mm 60');
    const round = declared({}).texts('li');
    const flat = declared({ card: card({ shape: 'slab' }), diameter_mm: null, thickness_mm: 35 }).texts('li');
    expect(flat).toHaveLength(round.length);
    expect(flat.join()).toContain('thickness');
    expect(round.join()).not.toContain('thickness');
  });
  it('keeps what it was before it was corrected, with why and who', () => {
    const corrected = declared({
      corrections: [
        { at: inDays(-1), by: 'Ugo', field: 'diameter_mm', was: '58', now: '60', reason: 'typed wrong' },
      ],
    });
    expect(corrected.texts('s')).toEqual(['58']);
    expect(corrected.text).toContain('typed wrong · Ugo, Mon 23 Nov 10:00');
  });
  it('that nobody said is a dash, not a nought', () => {
    const unknown = declared({ declared_length_mm: null, card: card({ done_days: null }) });
    expect(unknown.texts('strong').filter((one) => one === '–').length).toBeGreaterThanOrEqual(2);
  });
});

describe('a piece off its hook', () => {
  const off = (life: Partial<Schema['LifeOut']>, changes: Partial<Piece> = {}, scale: Schema['ScaleOut'] | null = null): Drawn =>
    drawn(AfterHook, {
      piece: piece({ card: card({ scale, life: { ...card().life, kind: 'down', since: inDays(-2), ...life } }), hangs: false, ...changes }),
      refresh, moving: false, onhangagain: () => undefined,
    }); // prettier-ignore

  it('stands as it was weighed last, or as nobody weighed it', () => {
    const at = inDays(-2);
    expect(
      off({}, {}, { at, gross_g: 640, loss_percent: 36, confirmed: false, doubt: false }).text,
    ).toContain('640 g');
    expect(off({}).text).not.toContain('760 g'); // what the model says is no weight
  });

  it('may go on or hang again, but for what is gone', () => {
    expect(off({}).all('button')).toHaveLength(3);
    expect(off({ kind: 'gone', how: 'eaten' }).all('button')).toHaveLength(1);
  });

  it('keeps each state with who said so, the struck ones crossed through with the reason', () => {
    const state: Schema['StateOut'] = {
      id: 1, kind: 'resting', how: 'vacuum', by: 'Ida', note: 'in the cold', place: null, since: inDays(-2),
      to_at: null, against: [], struck_reason: null,
    }; // prettier-ignore
    const told = off(
      {},
      { states: [state, { ...state, id: 2, kind: 'gone', how: 'sold', struck_reason: 'not sold' }] },
    );
    expect(told.all('li.line-through')).toHaveLength(1);
    expect(told.text).toContain('(not sold)');
    expect(told.texts('li')[0]).toContain('Ida in the cold');
  });
});

describe('a file that is read', () => {
  const preview = (changes: Partial<Schema['ImportPreview']>): Schema['ImportPreview'] => ({
    conflict: 0, doubtful: [], error_count: 0, errors: [], file_name: 'log.csv', file_now: null, first_at: inDays(-3),
    first_rows: [], forecasts: [], kind: 'climate', last_at: inDays(-1), new: 3, notes: [], questions: [], rows: 3,
    said_before: null, same: 0, token: 't', understood: ['Celsius', 'times of Rome'], ...changes,
  }); // prettier-ignore
  const row = (line: number, values = ['13 °C']): Schema['FirstRow'] => ({
    line, values, at: inDays(-3), cells: ['21.11.2026', '13,0'],
  }); // prettier-ignore
  const question = (changes: Partial<Schema['QuestionOut']> = {}): Schema['QuestionOut'] => ({
    asked: 'order', text: 'Day or month first?', free: false, offered: null, answer: null,
    choices: [{ value: 'day', shows: '2026-11-02' }, { value: 'month', shows: '2026-02-11' }], ...changes,
  }); // prettier-ignore
  const flow = (changes: Partial<Schema['ImportPreview']>): Importing => {
    const importing = new Importing(1);
    importing.preview = preview(changes);
    return importing;
  };

  it('is told in sentences, beside its first rows; a row that says nothing is marked', () => {
    const read = drawn(FileRead, {
      shown: preview({ first_rows: [row(2), row(3, [])] }),
      asking: false,
      onanew: () => undefined,
    });
    expect(read.text).toContain('Celsius. times of Rome.');
    expect(read.text).toContain('21.11.2026| 13,0');
    expect(read.all('.text-warning')).toHaveLength(1);
    const asked = {
      shown: preview({ first_rows: [2, 3, 4, 5].map((line) => row(line)) }),
      asking: true,
      onanew: () => undefined,
    };
    expect(drawn(FileRead, asked).all('tbody tr')).toHaveLength(3);
  });

  it('that was answered before says by whom, and may be answered anew', () => {
    const before = { by: 'Ida', at: inDays(-9) };
    const answered = { questions: [question({ answer: 'day' })], said_before: before };
    const read = drawn(FileRead, { shown: preview(answered), asking: false, onanew: () => undefined });
    expect(read.text).toContain('Ida');
    expect(read.all('button')).toHaveLength(1);
    const open = drawn(FileRead, {
      shown: preview({ questions: [question()] }),
      asking: true,
      onanew: () => undefined,
    });
    expect(open.all('button')).toHaveLength(0);
  });

  it('asks each question once, a day among the choices written as a day', () => {
    const asks = drawn(FileAsks, {
      flow: flow({ questions: [question(), question({ asked: 'zone', free: true })] }),
    });
    expect(asks.all('fieldset')).toHaveLength(2);
    expect(asks.texts('label').slice(0, 2)).toEqual(['2 Nov 2026', '11 Feb 2026']);
    expect(asks.all('datalist option').length).toBeGreaterThan(300);
  });

  it('asks of each doubtful row whether it counts; of many all may be left out', () => {
    const doubt = (line: number): Schema['DoubtfulRow'] => ({
      at: inDays(-2),
      line,
      question: 'Far off. Does it count?',
      shown: 'J-21-02 378 g',
    });
    expect(drawn(FileDoubts, { flow: flow({ doubtful: [doubt(4)] }) }).all('button')).toHaveLength(0);
    const two = drawn(FileDoubts, { flow: flow({ doubtful: [doubt(4), doubt(9)] }) });
    expect(two.all('input[type=radio]')).toHaveLength(4);
    expect(two.all('button')).toHaveLength(1);
    expect(two.all('input[checked]')).toHaveLength(0); // nothing is assumed
  });
});
