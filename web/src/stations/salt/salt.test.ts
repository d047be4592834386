import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { keys } from '../../api/queries';
import { inDays, inSalt, NOW, said } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import Cares from './Cares.svelte';
import OutOfSalt from './OutOfSalt.svelte';
import Rules from './Rules.svelte';
import { SaltDesk } from './saltdesk.svelte';
import SaltEvents from './SaltEvents.svelte';
import SaltPanel from './SaltPanel.svelte';
import SaltRow from './SaltRow.svelte';

type Card = Schema['SaltCard'];
const desk = (): SaltDesk => new SaltDesk(() => undefined, () => undefined); // prettier-ignore

describe('a piece in salt', () => {
  const row = (changes: Partial<Card> = {}): Drawn =>
    drawn(SaltRow, {
      card: inSalt(changes), now: NOW, until: Date.parse(inDays(30)), widest: 120, chosen: false, onpick: () => undefined,
    }); // prettier-ignore

  it('says when it comes out, from when it may, and how much salt is in it', () => {
    expect(row().text).toContain('Take out about Wednesday 2 December, from 28 Nov on');
    expect(row().text).toContain('2 000 g · 90 mm · mean 1.6 %, core 0.4 %');
    expect(row().texts('.main')).toEqual(['not yet']);
    expect(row({ state: 'may_come_out' }).text).not.toContain('from 28 Nov on');
  });

  it('says how little is known where nobody weighed what it took up', () => {
    expect(row({ dose_known: false }).text).toContain('about 1.6 %, 1.2–2.0: nobody weighed what it took up');
  });

  it('that was never cold says so, and how, and one of which it is not known too', () => {
    expect(row().text).not.toContain('cold');
    expect(
      row({ cold: { state: 'fail', says: said('hurdle.cold_cure.no_log') } }).texts('.text-error'),
    ).toEqual(['too warm: no thermometer was read while it cured']);
    expect(row({ cold: { state: 'unknown', says: null } }).texts('.text-warning')).toEqual([
      'cold not known',
    ]);
  });

  it('overdue is told louder; out of the salt it has no window any more', () => {
    const late = row({ state: 'late', latest: inDays(-1), best: inDays(-4) });
    expect(late.all('.text-error')).toHaveLength(1);
    expect(late.texts('.main.loud')).toEqual(['overdue']);
    const out = row({ state: 'out', out_at: inDays(-1) });
    expect(out.text).toContain('Out of the salt since Monday 23 November');
    expect(out.all('.when svg')).toHaveLength(0);
    expect(row({ best: null, earliest: null, latest: null }).text).toContain('not in sight');
  });

  it('that takes hours is told in hours', () => {
    const curing = { in_at: inDays(-0.3), earliest: inDays(0.1), best: inDays(0.3), latest: inDays(0.6) };
    const soon = drawn(SaltRow, {
      card: inSalt(curing), now: NOW, until: Date.parse(inDays(1)), widest: 20, chosen: true, onpick: () => undefined,
    }); // prettier-ignore
    expect(soon.text).toMatch(/Take out about Tue \d\d:\d\d, from Tue \d\d:\d\d on/);
    expect(soon.one('button').getAttribute('aria-pressed')).toBe('true');
  });
});

describe('what a batch in salt wants again and again', () => {
  const care = (changes: Partial<Schema['CareOut']> = {}): Schema['CareOut'] => ({
    kind: 'turn', done: 2, due: inDays(-1), due_from: inDays(-2), latest: inDays(1), last: inDays(-4), missed: 0,
    cost: said('hurdle.cold_cure.gap'), ...changes,
  }); // prettier-ignore
  const cares = (...of_pieces: Schema['CareOut'][][]): Drawn =>
    drawn(Cares, {
      cards: of_pieces.map((one, i) => inSalt({ id: i, care: one })), now: NOW, busy: false, ondone: async () => undefined,
    }); // prettier-ignore

  it('is one line for all its pieces, due when the first of them is', () => {
    const told = cares([care({ due: inDays(-0.5) })], [care()], []);
    expect(told.texts('button').slice(0, 1)).toEqual(['Turned']);
    expect(told.all('li')).toHaveLength(1);
    expect(told.text).toContain('turn Mon 23 Nov 10:00');
  });

  it('may be poured off with what was poured, and is asked for its weight nowhere else', () => {
    expect(cares([care({ kind: 'drain' })]).all('input.grams')).toHaveLength(1);
    expect(cares([care({ kind: 'rub' })]).all('input.grams')).toHaveLength(0);
  });

  it('left out says when it was done last and what it costs; late is told as late', () => {
    const missed = cares([care({ missed: 2, latest: inDays(-0.5) })]);
    expect(missed.text).toContain('done last Fri 20 Nov 10:00');
    expect(missed.text).toContain('silent for too long');
    expect(missed.all('strong.text-warning')).toHaveLength(1);
    expect(cares([care({ missed: 2, last: null })]).text).toContain('not done yet');
  });

  it('that is not due yet is quiet, and where there is none nothing stands', () => {
    const ahead = cares([care({ due_from: inDays(1), due: inDays(2), latest: inDays(3) })]);
    expect(ahead.all('li strong')).toHaveLength(0);
    expect(cares([]).text).toBe('');
  });
});

describe('out of the salt', () => {
  const out = (changes: Partial<Card>, asked: string | null = null): Drawn => {
    const asking = desk();
    asking.question = asked;
    return drawn(OutOfSalt, { card: inSalt(changes), desk: asking });
  };

  it('is a button while it is early, and a form once it may come out', () => {
    expect(out({}).all('form')).toHaveLength(0);
    expect(out({}).texts('button')).toEqual(['Take out']);
    for (const state of ['may_come_out', 'right', 'late'] as const)
      expect(out({ state }).all('form')).toHaveLength(1);
  });

  it('says between which weights it is expected, and warns of a core that has little salt', () => {
    const early = out({ state: 'right' });
    expect(early.text).toContain('expected 1 900–1 960 g');
    expect(early.text).toContain('Its core has little salt yet. Out now, it must stay under 4 °C');
    expect(out({ state: 'right', out_is_early: false }).text).not.toContain('Its core');
  });

  it('stands as its way wants it: rinsed or blotted', () => {
    const chosen = (after: Card['after']): string[] =>
      out({ state: 'right', after })
        .all('input[type=radio]')
        .filter((one) => one.hasAttribute('checked'))
        .map((one) => one.getAttribute('value') ?? '');
    expect(chosen('rinse')).toEqual(['rinse']);
    expect(chosen('blot')).toEqual(['blot']);
  });

  it('asks about a weight that cannot be, and takes it only when told so', () => {
    const asked = out({ state: 'right' }, 'Far from what is expected');
    expect(asked.texts('[role=alert]')).toEqual(['Far from what is expected']);
    expect(asked.texts('button')).toContain('It does weigh that');
    expect(out({ state: 'right' }).texts('button')).not.toContain('It does weigh that');
  });
});

describe('the rules beside each other', () => {
  const RULES: Schema['RuleOut'][] = [
    { name: 'linear', says: 'a day a centimetre', days: 9, at: inDays(3), chosen: true },
    { name: 'diffusion', says: 'the core has its salt', days: null, at: null, chosen: false },
  ];
  const rules = (free: boolean): Drawn =>
    drawn(Rules, { rules: RULES, margin: 20, free, onchoose: async () => undefined });

  it('say how many days each gives, which count, and with what margin', () => {
    expect(rules(false).texts('tr')).toEqual([
      'a day a centimetre 9 d 27 Nov',
      'the core has its salt not in sight',
    ]);
    expect(
      rules(false)
        .all('input')
        .map((one) => one.hasAttribute('checked')),
    ).toEqual([true, false]);
    expect(rules(false).one('option[selected]').text).toBe('20');
  });

  it('are only to be read where the salt itself sets the day', () => {
    expect(rules(true).all('input, select')).toHaveLength(0);
  });
});

describe('what was done to a piece in salt', () => {
  const event = (changes: Partial<Schema['SaltEventOut']>): Schema['SaltEventOut'] => ({
    id: 1, at: inDays(-2), by: 'Ida', kind: 'turn', note: '', percent: null, place: null, container: null,
    struck_by: null, struck_reason: null, value: null, way: null, ...changes,
  }); // prettier-ignore
  const line = (changes: Partial<Schema['SaltEventOut']>): string =>
    drawn(SaltEvents, { events: [event(changes)], desk: desk() }).texts('li')[0] ?? '';

  it.each<[Partial<Schema['SaltEventOut']>, string]>([
    [{ kind: 'weigh', value: 1912.4 }, 'weighed 1 912 g'],
    [{ kind: 'check', value: 3.26 }, 'looked at 3.3 °C'],
    [{ kind: 'soak', value: 1.5 }, 'soaked 1.5 h'],
    [{ kind: 'way', percent: 2.756 }, 'salted anew 2.76 %'],
    [{ kind: 'move', place: 'Fridge', container: 'tub 2' }, 'moved Fridge, tub 2'],
    [{ kind: 'trim', value: 80, note: 'the loose end' }, 'trimmed 80 g · the loose end'],
  ])('%o is told as "%s"', (changes, told) => {
    expect(line(changes)).toContain(`${told} Ida`);
  });

  it('can be struck but for its going in, which is struck as a whole', () => {
    expect(line({ kind: 'turn' })).toContain('strike');
    expect(line({ kind: 'in' })).not.toContain('strike');
  });

  it('that was struck says by whom and why', () => {
    const told = line({ kind: 'weigh', value: 500, struck_by: 'Ugo', struck_reason: 'the other neck' });
    expect(told).toContain('struck by Ugo: the other neck');
  });
});

describe('a piece in salt, closely', () => {
  const close = (changes: Partial<Card> = {}, detail: Partial<Schema['SaltDetail']> = {}): Drawn => {
    const card = inSalt(changes);
    const curve = {
      at: [inDays(-6), inDays(0), inDays(8)], mean: [0, 1.6, 2.6], core: [0, 0.4, 2], core_low: [0, 0.2, 1.4],
      core_high: [0, 0.7, 2.4],
    }; // prettier-ignore
    const answer: Schema['SaltDetail'] = {
      card, curve, bases: { cured_g: null, raw_g: 2000 }, casing: 'natural', coat_g: null, events: [], loss_basis: 'hung',
      margin_percent: 20, next_steps: [], rules: [], target_loss_percent: 36, ...detail,
    }; // prettier-ignore
    const props = { id: card.id, desk: desk(), now: NOW, places: [], ways: [] };
    return drawn(SaltPanel, props, [[keys.saltPiece(card.id), answer]]);
  };

  it('says what sets its day and whether it may wait', () => {
    const told = close({ waits_says: 'it may wait' });
    expect(told.text).toContain(
      'Take out about Wednesday 2 December: the core is the last to get its salt; it may wait.',
    );
    expect(told.text).toContain('60 g poured off; 40–90 g is usual by now');
    expect(told.text).toContain('salt 3.5 % at the rim, 0.4 % in the middle');
    expect(close({ shed_g: 0 }).text).not.toContain('poured off;');
  });

  it('draws its salt over time, with the best day where that lies on the drawing', () => {
    expect(close().all('.chart .best')).toHaveLength(1);
    expect(close({ best: inDays(30) }).all('.chart .best')).toHaveLength(0);
    expect(close().texts('.chart .name')).toEqual(['mean', 'core']);
  });

  it('goes to the hook once it is out, and not before', () => {
    expect(close().text).not.toContain('To the hook');
    const out = close({ out_at: inDays(-1), state: 'out' });
    expect(out.text).toContain('To the hook');
    expect(out.text).not.toContain('When, by which rule');
  });
});
