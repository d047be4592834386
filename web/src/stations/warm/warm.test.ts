import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import PhCurve from '../../charts/PhCurve.svelte';
import { ferments, inDays, NOW, said } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import Fuse from './Fuse.svelte';
import ReadPh from './ReadPh.svelte';
import Stage from './Stage.svelte';
import { WarmDesk } from './warmdesk.svelte';
import WarmNotes from './WarmNotes.svelte';

type Card = Schema['WarmCard'];
type Reading = Schema['ReadingOut'];
const desk = (): WarmDesk => new WarmDesk(3, () => undefined);
const reading = (changes: Partial<Reading> = {}): Reading => ({
  id: 1, at: inDays(-0.2), by: 'Ida', meter: 'Blue', ph: 5.52, sample_c: 21, struck_reason: null, warnings: [], ...changes,
}); // prettier-ignore
const detail = (changes: Partial<Schema['WarmDetail']> = {}): Schema['WarmDetail'] => ({
  card: ferments(), events: [], made: [], readings: [],
  curve: {
    at: [inDays(-1), inDays(0), inDays(1)], low: [5.7, 5.4, 4.8], middle: [5.8, 5.5, 5], high: [5.9, 5.6, 5.2],
    box_at: [inDays(-1), inDays(0)], box_c: [20, 23],
  },
  ...changes,
}); // prettier-ignore

describe('the allowance as a fuse', () => {
  const fuse = (allowance: Partial<Card['allowance']> = {}, changes: Partial<Card> = {}): Drawn =>
    drawn(Fuse, { card: ferments({ allowance: { ...ferments().allowance, ...allowance }, ...changes }) });

  it('says how much is used, of what, by whose profile, and when it runs out', () => {
    const told = fuse();
    expect(told.text).toContain('140 of 660 °C h used (limits: USA).');
    expect(told.text).toContain('At 22 °C it runs out');
    expect(told.text).toContain('Counted to the first measured value at or under 5.3');
  });

  it('burns from one end to the other, and no further', () => {
    const flame = (share: number): number =>
      Number(/M([\d.]+) 8c/.exec(fuse({ share }).all('path').at(-1)?.getAttribute('d') ?? '')?.[1]);
    expect(flame(0)).toBe(8);
    expect(flame(0.5)).toBe(8 + 370 / 2);
    expect(flame(3)).toBe(8 + 370);
  });

  it('goes out only by a measured 5.3', () => {
    const measured = fuse({}, { measured_at: inDays(-0.1) });
    expect(measured.text).toContain('The count has ended: 5.3 was measured.');
    expect(measured.text).not.toContain('runs out');
    expect(measured.all('[fill="var(--color-warning)"]')).toHaveLength(0);
    expect(fuse({}, { crosses: { p10: inDays(-0.5), p50: inDays(-0.4), p90: inDays(-0.1) } }).text).toContain(
      'runs out',
    );
  });

  it('used up is never told as anything else', () => {
    const over = fuse({ share: 1.2 }, { state: 'over_allowance', measured_at: inDays(-0.1) });
    expect(over.texts('.text-error')).toEqual([
      'Used up before 5.3 was measured. Hold it, throw it away, or let a laboratory look for toxin.',
    ]);
    expect(over.text).not.toContain('The count has ended');
  });

  it('of a box nobody logs is not known; gaps were counted at their warmer end', () => {
    expect(fuse({ used: null }).text).toContain('The box is not logged: nobody knows how much is used.');
    expect(fuse({ used: null }).all('svg')).toHaveLength(0);
    expect(fuse({ gaps: 2 }).text).toContain('2 gaps in the log, counted at the warmer end');
    expect(fuse({ runs_out: null, at_c: 14 }).text).toContain('At 14 °C nothing counts.');
  });
});

describe('the fall of pH', () => {
  const curve = (changes: Partial<Schema['WarmDetail']> = {}): Drawn =>
    drawn(PhCurve, { detail: detail(changes), now: NOW, otherwise: null });

  it('has a string at 5.3, and one at the target where that is another', () => {
    expect(curve().texts('.name').slice(0, 2)).toEqual(['5.3', '5.0']);
    expect(curve({ card: ferments({ target_ph: 5.3 }) }).all('.target')).toHaveLength(0);
    expect(curve().figure('.target', 'y1')).toBeGreaterThan(curve().figure('.hurdle', 'y1'));
  });

  it('shows a reading full, one with a warning hollow, a struck one as a cross, an unbelievable one not at all', () => {
    const marked = curve({
      readings: [
        reading(),
        reading({ id: 2, warnings: [said('hurdle.acid.once')] }),
        reading({ id: 3, struck_reason: 'slip' }),
        reading({ id: 4, ph: 53 }),
      ],
    });
    expect(marked.all('circle[fill="var(--color-base-content)"]')).toHaveLength(1);
    expect(marked.all('circle[stroke="var(--color-warning)"]')).toHaveLength(1);
    expect(marked.all('.cross')).toHaveLength(1);
  });

  it('has room for every reading it shows', () => {
    for (const ph of [3.6, 7.4]) {
      const cy = curve({ readings: [reading({ ph })] }).figure('circle', 'cy');
      expect(cy).toBeGreaterThanOrEqual(8);
      expect(cy).toBeLessThanOrEqual(236);
    }
  });

  it('has no now once it has ended, and no box where none was logged', () => {
    expect(curve().all('.now')).toHaveLength(1);
    expect(curve({ card: ferments({ ended_at: inDays(-0.1) }) }).all('.now')).toHaveLength(0);
    const silent = { ...detail().curve, box_at: [], box_c: [] };
    expect(curve({ curve: silent }).all('path.box')).toHaveLength(0);
    expect(curve().text).toContain('box °C');
  });

  it('shows another box only from now on', () => {
    const otherwise = {
      crosses: ferments().crosses, reaches_target: ferments().crosses, in_time: true, runs_out: null,
      curve_at: [inDays(-0.5), inDays(0.1), inDays(0.5), inDays(4)], curve: [5.7, 5.4, 5.1, 4.8],
    }; // prettier-ignore
    const told = drawn(PhCurve, { detail: detail(), now: NOW, otherwise });
    expect(told.one('path.other').getAttribute('d')?.match(/[ML]/g)).toHaveLength(2);
  });
});

describe('notes of a warm batch', () => {
  const event: Schema['WarmEventOut'] = {
    id: 5,
    at: inDays(-0.1),
    by: 'Ugo',
    kind: 'mould',
    note: 'the white one',
    struck_reason: null,
  };
  const notes = (changes: Partial<Schema['WarmDetail']>): Drawn =>
    drawn(WarmNotes, { detail: detail(changes), desk: desk() });

  it('tell each reading with its sample, meter and who, and what to doubt about it', () => {
    const told = notes({ readings: [reading({ warnings: [said('hurdle.acid.once')] })] });
    expect(told.texts('li')[0]).toContain('5.52 21 °C, Blue, Ida');
    expect(told.texts('.text-warning')[0]).toContain('a meter that nobody checked');
    expect(notes({ readings: [reading({ sample_c: null, meter: null })] }).texts('li')[0]).toContain(
      '5.52 Ida',
    );
  });

  it('that were struck stay, with the reason, and cannot be struck again', () => {
    const told = notes({
      readings: [reading({ struck_reason: 'slip' })],
      events: [{ ...event, struck_reason: 'another batch' }],
    });
    expect(told.texts('.line-through')).toEqual(['5.52', 'mould sown the white one']);
    expect(told.text).toContain('struck: slip');
    expect(told.text).toContain('struck: another batch');
    expect(told.texts('li button')).toEqual([]);
  });

  it('offer what is done with one touch while it is warm, and nothing once it has ended', () => {
    expect(notes({}).texts('section:first-of-type button')).toEqual([
      'mould sown', 'wiped with vinegar', 'sprayed with water', 'cooled', 'to the hook', 'Throw it away',
      'when: now or earlier',
    ]); // prettier-ignore
    expect(notes({ card: ferments({ ended_at: inDays(-0.1) }) }).texts('button')).toEqual([]);
  });
});

describe('a pH', () => {
  const METERS: Schema['MeterOut'][] = [
    { id: 1, name: 'Blue', calibrated_at: null, slope_percent: null, warnings: [] },
    { id: 2, name: 'Red', calibrated_at: inDays(-1), slope_percent: 98, warnings: [] },
  ];
  it('may be noted by any meter or none, and is asked about where it cannot be', () => {
    const asking = desk();
    expect(drawn(ReadPh, { desk: asking, meters: METERS }).texts('option')).toEqual([
      'not said',
      'Blue',
      'Red',
    ]);
    asking.question = 'Was it 5.3?';
    const asked = drawn(ReadPh, { desk: asking, meters: [] });
    expect(asked.texts('[role=alert]')).toEqual(['Was it 5.3?']);
    expect(asked.texts('button')).toContain('The meter does show that');
  });
});

describe('the warm stage declared', () => {
  const stage = (warm: Schema['WaitingForWarmth']['warm'], places: Partial<Schema['PlaceOut']>[]): Drawn =>
    drawn(Stage, {
      batch: { batch_id: 3, batch: 'J-21', product: 'Juniper salame', warm, dextrose_percent: 0.4, salt_percent: null } as Schema['WaitingForWarmth'],
      places: places as Schema['PlaceOut'][],
      ondone: () => undefined,
    }); // prettier-ignore

  it('begins with what the Bench knows, at a warm place where there is one', () => {
    const told = stage('culture', [
      { id: 1, name: 'Cellar', kind: 'cure' as never },
      { id: 2, name: 'Warm box', kind: 'warm' },
    ]);
    const values = told.all('input').map((one) => one.getAttribute('value'));
    expect(values).toContain('0.4');
    expect(told.all('option[selected]').map((one) => one.text)).toEqual(['Warm box', 'medium, 22–28 °C']);
  });

  it('warns of wild cultures and of none', () => {
    expect(stage('wild', []).text).toContain('Nobody knows what grows');
    expect(stage('none', []).text).toContain('Without a culture');
    expect(stage('culture', []).all('.text-warning')).toHaveLength(0);
  });
});
