import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { keys } from '../../api/queries';
import LedgerMarks from '../../goods/LedgerMarks.svelte';
import { hurdle, inDays, ledger, said } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import CourseLine from './CourseLine.svelte';
import HurdleRow from './HurdleRow.svelte';
import KeepingTable from './KeepingTable.svelte';
import Records from './Records.svelte';
import { Settling } from './settling.svelte';

type Hurdle = Schema['HurdleOut'];

describe('a hurdle', () => {
  function row(
    changes: Partial<Hurdle>,
    { settling = settled(), steps = [] as Schema['StepOut'][], links = {} } = {},
  ): Drawn {
    const props = { tags: ['J-21-02'], settling, links, shown: false, onshow: () => undefined };
    return drawn(HurdleRow, { hurdle: hurdle(changes), ledger: ledger({ steps }), ...props });
  }
  const settled = (): Settling => new Settling(() => 3, () => undefined); // prettier-ignore

  it('that passed says by what value, by what limit, how it is known and whence the limit comes', () => {
    const passed = row({ value: 4.813, limit: 3.5, source: 'the profile' });
    expect(passed.text).toBe('✓ salt passed 4.8 % limit 3.5 % · measured · source: the profile');
    expect(passed.all('.stands.fine')).toHaveLength(1);
    expect(passed.all('button, a')).toHaveLength(0);
  });

  it('that failed says why, what settles it, and offers what settles it', () => {
    const failed = row(
      {
        state: 'fail',
        blocks: true,
        why: said('hurdle.cold_cure.no_log'),
        settles: said('hurdle.cold_cure.gap'),
        entries: ['sign', 'readings', 'salt'],
        pieces: ['J-21-01', 'J-21-04'],
      },
      { links: { readings: '/hang/1' } },
    );
    expect(failed.all('.stands.fail')).toHaveLength(1);
    expect(failed.text).toContain('✕');
    expect(failed.text).toContain('No thermometer was read while it cured.');
    expect(failed.text).toContain('The thermometer was silent for too long while it cured.');
    expect(failed.text).toContain('concerns J-21-01, J-21-04');
    expect(failed.texts('button')).toEqual(['Sign for it']);
    expect(failed.texts('a')).toEqual(['Enter readings of the place']); // of the salt there is no page to go to
  });

  it('whose failing does not hold the batch keeps what settles it to itself', () => {
    const aside = row({
      state: 'fail',
      why: said('hurdle.cold_cure.no_log'),
      settles: said('hurdle.cold_cure.gap'),
    });
    expect(aside.text).toContain('No thermometer');
    expect(aside.text).not.toContain('silent');
  });

  it('signed for says who, when and why, and is no tick', () => {
    const signed = row({
      state: 'fail',
      signed: { by: 'Ida', at: inDays(-2), reason: 'the house’s own way' },
    });
    expect(signed.text).toContain('Ida signed for it on 22 Nov 2026: the house’s own way');
    expect(signed.text).toContain('✎');
    expect(signed.text).toContain('signed for');
    expect(signed.text).not.toContain('✓');
  });

  it('that failed before it was corrected stays told and is not released', () => {
    const corrected = row({ blocks: true, was_fail: { by: 'Ugo', until: inDays(-1), reason: '' } });
    expect(corrected.text).toContain('corrected, not released');
    expect(corrected.text).toContain('Failed until Ugo corrected it on 23 Nov 2026.');
    expect(corrected.text).not.toContain('✓');
    const why = row({ blocks: true, was_fail: { by: 'Ugo', until: inDays(-1), reason: 'typed wrong' } });
    expect(why.text).toContain('2026: typed wrong.');
  });

  it('tells its cautions, and what was done about it but was not struck', () => {
    const step = {
      id: 1,
      hurdle: 'salt',
      step: 'held',
      note: 'door shut',
      at: inDays(-1),
      by: 'Ida',
      struck_reason: null,
    };
    const told = row(
      { cautions: [said('caution.by_estimate')] },
      {
        steps: [
          step,
          { ...step, id: 2, note: 'never was', struck_reason: 'by mistake' },
          { ...step, id: 3, hurdle: 'acid' },
        ],
      },
    );
    expect(told.text).toContain('passed, with a caution');
    expect(told.text).toContain('By estimate: not a test.');
    expect(told.text.match(/door shut/g)).toHaveLength(1);
    expect(told.text).not.toContain('never was');
  });

  it('with evidence offers to show it on the line', () => {
    const evidence = [{ from_at: inDays(-3), to_at: inDays(-2), says: said('evidence.unknown') }];
    expect(row({ evidence }).texts('button')).toEqual(['Show salt on the line']);
  });

  it('that is being settled has its form instead of what is offered', () => {
    const settling = settled();
    settling.open('salt', 'sign', ledger());
    const open = row({ state: 'fail', blocks: true, entries: ['sign', 'laboratory'] }, { settling });
    expect(open.all('form')).toHaveLength(1);
    expect(open.text).toContain('Look at it as it is now before you sign.');
    expect(open.text).not.toContain('Enter a laboratory value');
  });
});

describe('the form that settles a hurdle', () => {
  it.each([
    ['sign', ['Why may it count as passed?']],
    ['laboratory', ['value', 'taken of', 'laboratory and report']],
    ['parasites', ['animal', 'what was done', 'note']],
    ['went_in', ['fat, %', 'salt, % of the meat', 'curing salt']],
    ['measure_ph', ['pH in the meat', 'meter']],
    ['meat', ['Where', 'From when', 'Until when']],
  ] as const)('for %s asks for %j', (entry, asked) => {
    const settling = new Settling(() => 3, () => undefined); // prettier-ignore
    settling.open('salt', entry, ledger({ lab_units: { salt: ['%'] } }));
    const open = drawn(
      HurdleRow,
      { hurdle: hurdle({ blocks: true, entries: [entry] }), ledger: ledger(), tags: [], settling, links: {}, shown: false, onshow: () => undefined },
    ); // prettier-ignore
    for (const label of asked) expect(open.text).toContain(label);
    expect(open.all('form button').length).toBeGreaterThan(0);
  });
});

describe('the marks of a ledger', () => {
  const marks = (...hurdles: Hurdle[]): Drawn =>
    drawn(LedgerMarks, { batch: 3 }, [[keys.ledger(3), ledger({ hurdles, verdict: 'held' })]]);

  it('are one for each hurdle, and name what stands against it but not what only takes time', () => {
    const told = marks(
      hurdle(),
      hurdle({ name: 'acid', state: 'unknown', blocks: true }),
      hurdle({ name: 'target_loss', state: 'pending', blocks: true }),
      hurdle({ name: 'cold_mix', state: 'fail', blocks: true }),
    );
    expect(told.texts('.mark')).toEqual(['✓', '?', '…', '✕']);
    expect(told.texts('p')).toEqual(['Held: acid, pH 5.3, cold at mixing']);
    expect(told.one('a').getAttribute('href')).toBe('/bench/batch/3/against');
  });

  it('are not there before the ledger is', () => {
    expect(drawn(LedgerMarks, { batch: 3 }).text).toBe('');
  });
});

describe('the course of a batch', () => {
  const stage = (kind: string, from: number, to: number | null, pieces = ['a']): Schema['StageOut'] => ({
    kind, from_at: inDays(from), to_at: to === null ? null : inDays(to), place: 'Cellar', pieces,
  }); // prettier-ignore
  const line = (stages: Schema['StageOut'][], evidence: Schema['EvidenceOut'][] = []): Drawn =>
    drawn(CourseLine, { stages, ends: inDays(0), hurdle: evidence.length ? hurdle({ evidence }) : null });
  const left = (drawing: Drawn, selector: string): number[] =>
    drawing.all(selector).map((one) => Number(/left: ?([\d.]+)%/.exec(one.getAttribute('style') ?? '')?.[1]));

  it('lays one stage after the other along its time, to its end where one goes on', () => {
    const course = line([stage('hang', -10, null), stage('cold', -20, -18), stage('warm', -18, -10)]);
    expect(left(course, '.stage')).toEqual([0, 10, 50]);
    expect(course.texts('.stage')).toEqual(['cold', 'warm', 'hangs']);
    expect(course.all('.row:not(.evidence)')).toHaveLength(1);
    expect(course.texts('figcaption span')).toEqual(['4 Nov 2026', '24 Nov 2026']);
  });

  it('lays what overlaps in rows of its own, no more than four', () => {
    const rows = (n: number): number =>
      line(Array.from({ length: n }, (_, i) => stage('hang', -10 + i / 10, null, [`${i}`]))).all(
        '.row:not(.evidence)',
      ).length;
    expect([1, 2, 4, 9].map(rows)).toEqual([1, 2, 4, 4]);
  });

  it('shades what a hurdle rests on, and what is not known otherwise than what was too warm', () => {
    const told = line(
      [stage('hang', -10, 0)],
      [
        { from_at: inDays(-5), to_at: inDays(-4), says: said('evidence.over_c', { limit_c: 5 }) },
        { from_at: inDays(-2), to_at: inDays(-1), says: said('evidence.unknown') },
      ],
    );
    expect(left(told, '.evidence .over')).toEqual([50]);
    expect(left(told, '.evidence .gap')).toEqual([80]);
    expect(told.texts('.told li')[0]).toMatch(/^above 5 °C: Thursday 19 November/);
    expect(line([]).text).toBe('');
  });
});

it('how it keeps is a line for each loss, with how sure its water activity is', () => {
  const at = (loss_percent: number, keeps: 'no_chill' | 'max_5_c'): Schema['KeepingOut'] => ({
    loss_percent, keeps, moisture_protein_ratio: 1.6, water_activity: 0.9123, water_activity_sd: 0.012, water_phase_salt_percent: 6.28,
  }); // prettier-ignore
  const table = drawn(KeepingTable, { keeping: [at(20, 'max_5_c'), at(40, 'no_chill')], by: 'estimate' });
  expect(table.texts('tbody tr').map((row) => row.replaceAll(/\s+/g, ' '))).toEqual([
    '20 % 0.91 ±0.01 6.3 % under 5 °C',
    '40 % 0.91 ±0.01 6.3 % keeps unchilled',
  ]);
  expect(table.text).toContain('By estimate, not a test.');
  expect(drawn(KeepingTable, { keeping: [], by: 'laboratory' }).text).toContain(
    'corrected by the laboratory',
  );
});

describe('what was entered for a ledger', () => {
  const lab: Schema['LabOut'] = {
    id: 1, at: inDays(-1), by: 'Ida', loss_percent: null, note: 'report 17', struck_reason: null, tag: 'J-21-02',
    taken_of: 'product', unit: '', value: 0.8912, what: 'water_activity',
  }; // prettier-ignore
  const records = (changes: Partial<Schema['LedgerOut']>): Drawn =>
    drawn(Records, { ledger: ledger(changes), took: () => undefined });

  it('is told with who and when, and may be struck', () => {
    const told = records({ laboratory: [lab] });
    expect(told.texts('li')).toEqual(['water activity 0.891, J-21-02 report 17 · 23 Nov 2026, Ida strike']);
  });

  it('that was struck stays to be read, crossed through, with the reason beside it', () => {
    const told = records({ laboratory: [{ ...lab, struck_reason: 'another batch’s report' }] });
    expect(told.one('.line-through').text).toContain('report 17');
    expect(told.text).toContain('struck: another batch’s report');
    expect(told.all('button')).toHaveLength(0);
  });

  it('of every kind stands there: parasites, where the meat lay, and what was done', () => {
    const told = records({
      parasites: [
        { id: 1, by: 'Ida', days: 7, note: '', species: 'pork', struck_reason: null, temperature_c: -20, thickness_cm: 10, way: 'frozen' },
        { id: 2, by: 'Ida', days: null, note: 'the butcher’s paper', species: 'pork', struck_reason: null, temperature_c: null, thickness_cm: null, way: 'certified' },
      ],
      meat: [{ id: 3, at: inDays(-3), to_at: inDays(-2), by: 'Ugo', kind: 'cold', note: '', place: 'Fridge', struck_reason: null, temperature_c: 3 }],
      steps: [{ id: 4, at: inDays(-1), by: 'Ugo', hurdle: 'warmth', note: 'door shut', step: 'held', struck_reason: null }],
    }); // prettier-ignore
    const [frozen, certified, lay, done] = told.texts('li');
    expect(frozen).toContain('pork: frozen, −20.0 °C, 7 d');
    expect(certified).toContain('pork: certified meat the butcher’s paper');
    expect(lay).toContain('it lay in the cold, Fridge, 3.0 °C');
    expect(done).toContain('warmth after salting:');
    expect(records({}).text).toBe('');
  });
});
