import { afterEach, describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { keys } from '../../api/queries';
import { route } from '../../shell/router';
import { inDays, piece, said } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import Allergens from './Allergens.svelte';
import CutAnswer from './CutAnswer.svelte';
import CutRoom from './CutRoom.svelte';

const { inside } = piece();
const face = (changes: Partial<Schema['FaceOut']> = {}): Schema['FaceOut'] => ({
  id: 9, at: inDays(-1), by: 'Ida', note: '', signs: [], struck_reason: null, verdict: 'good',
  face: {
    holes: false, loose: false, marks: [], mould_inside: false, salt_spots: false, smear: false, taste: [],
    yellow_fat: false, ring: 'none', ring_mm: null,
  },
  predicted: { core_feels: 'firm', rim_feels: 'firm', ring: 'even', ring_index: 0.1, ring_mm: 0.2 }, ...changes,
}); // prettier-ignore
const knife = (changes: Partial<Schema['UnderTheKnife']> = {}): Schema['UnderTheKnife'] => ({
  piece_id: 7, tag: 'J-21-02', batch: 'J-21', batch_id: 3, product: 'Juniper salame', shape: 'cylinder', state: 'resting',
  across_mm: 60, inside, ring_mm: 3, days: 40, loss_percent: 36, weight_g: 640, tare_g: 0, weighed_when_hung: true,
  at_rest: true, causes: [], faces: [face()], now: [], made: [], recipe: null, recipe_id: null, ...changes,
}); // prettier-ignore
const cause = (changes: Partial<Schema['CauseOut']> = {}): Schema['CauseOut'] => ({
  name: 'dried_fast', stage: 'hang', speaks: 1.2, recorded: true, signs: ['ring'], source: '', unrecorded: [],
  evidence: [], next_time: [], ...changes,
}); // prettier-ignore
const answer = (changes: Partial<Schema['UnderTheKnife']> = {}): Drawn =>
  drawn(CutAnswer, { piece: knife(changes), onagain: () => undefined });

describe('what the face says', () => {
  it('nothing before a face was noted, or when the only one was struck', () => {
    expect(answer({ faces: [] }).text).toBe('');
    expect(answer({ faces: [face({ struck_reason: 'another piece' })] }).text).toBe('');
  });

  it('begins with who looked when, the verdict, what was seen, and the ring beside the predicted one', () => {
    expect(answer({ faces: [face({ note: 'by the window' })] }).text).toContain(
      'Mon 23 Nov 10:00 · Ida · Good · by the window Nothing amiss was seen. · ring seen none, predicted none',
    );
    const ringed = face({
      verdict: 'held', signs: ['ring', 'grey'], face: { ...face().face, ring: 'wide', ring_mm: 4.2 },
      predicted: { ...face().predicted, ring_mm: 3.4 },
    }); // prettier-ignore
    expect(answer({ faces: [ringed] }).text).toContain('ring seen 4 mm, predicted 3 mm');
    expect(answer({ faces: [ringed] }).text).toContain('Held');
    const unmeasured = face({ face: { ...face().face, ring: 'thin' } });
    expect(answer({ faces: [unmeasured] }).text).toContain('ring seen not measured, predicted none');
  });

  it('names the likeliest cause where the records speak for it, and says so where they do not', () => {
    const told = answer({ causes: [cause()] });
    expect(told.one('[data-testid=cause]').text).toBe('Dried too fast');
    expect(told.text).toContain('on the hook');
    const left = answer({ causes: [cause({ speaks: -0.4, recorded: false, name: 'damp' })] });
    expect(left.one('[data-testid=cause]').text).toBe('Its records do not explain it');
    expect(left.text).toContain('What is left: hung too damp, on the hook');
    expect(left.text).toContain('Nothing recorded speaks for or against it.');
  });

  it('shows each evidence as strong as it is, for or against, and names once what was not recorded', () => {
    const told = answer({
      causes: [
        cause({
          evidence: [
            { measure: 'hurry', strength: 0.8, says: said('some.pace') },
            { measure: 'hook_air', strength: -0.25, says: said('some.air') },
          ],
          unrecorded: ['lowest_ph', 'acid_gap', 'packed'],
        }),
      ],
    });
    expect(told.all('.bar i').map((one) => one.getAttribute('style'))).toEqual([
      'width: 80%;',
      'width: 25%;',
    ]);
    expect(told.all('.bar.against')).toHaveLength(1);
    expect(told.texts('.told')).toEqual(['Some.pace. for', 'Some.air. against']);
    expect(told.text).toContain('Not recorded: its pH, its length and diameter.');
  });

  it('what to do now is red where it is held or thrown away', () => {
    const now: Schema['NowOut'][] = [
      { act: 'discard', says: said('some.bin') },
      { act: 'look', says: said('some.wait') },
      { act: 'eat', says: said('some.good') },
    ];
    const told = answer({ now });
    expect(told.texts('p.text-error')).toEqual(['Throw it away: some.bin.']);
    expect(told.texts('p.text-warning')).toEqual(['Not yet: some.wait.']);
    expect(told.text).toContain('Good: some.good.');
  });

  const lines: Schema['NextLine'][] = [
    { changes: 'salt_percent', says: said('some.salt'), taken: null, where: 'recipe' },
    { changes: null, says: said('some.hang'), taken: null, where: 'hanging' },
    { changes: null, says: said('some.done'), taken: 4, where: 'hanging' },
  ];

  it('a line for next time goes into the notes; one that changes a figure into a version, where there is a recipe', () => {
    const told = answer({ causes: [cause({ next_time: lines })], recipe: 'Juniper', recipe_id: 5 });
    expect(told.texts('.line')).toEqual([
      'some.salt as a new version into the recipe', 'some.hang into the recipe', 'some.done ✓ noted',
    ]); // prettier-ignore
    const without = answer({ causes: [cause({ next_time: lines })] });
    expect(without.text).not.toContain('as a new version');
    expect(without.text).toContain('the line waits for one named “Juniper salame”');
  });

  it('the other causes are counted and told when they are asked for', () => {
    const told = answer({ causes: [cause(), cause({ name: 'damp' }), cause({ name: 'old_fat' })] });
    expect(told.text).toContain('What else it could be (2)');
    expect(told.text).not.toContain('Hung too damp');
    expect(answer({ causes: [cause()] }).text).not.toContain('What else');
  });

  it('goes on to the packs unless it hangs or is gone; what is gone is not looked at again', () => {
    const does = (state: string): string[] => answer({ state }).texts('.mt-3 .btn');
    expect(does('resting')).toEqual(['Pack it', 'Look again', 'strike it through']);
    expect(does('hanging')).toEqual(['Look again', 'strike it through']);
    expect(does('gone')).toEqual(['strike it through']);
  });
});

describe('under the knife', () => {
  const LINE = [keys.line, undefined] as [readonly unknown[], unknown];
  const waits = (id: number): Schema['ToCut'] =>
    ({ piece_id: id, tag: `J-21-0${id}`, product: 'Juniper salame', state: 'resting', since: new Date(Date.now() - 3.5 * 86_400_000).toISOString() }) as never; // prettier-ignore
  const seen = (cause: string | null): Schema['LookedInto'] =>
    ({ piece_id: 4, tag: 'J-20-04', at: inDays(-2), by: 'Ida', verdict: 'good', cause }) as never;
  const room = (waiting: Schema['ToCut'][], seenOnes: Schema['LookedInto'][]): Drawn =>
    drawn(CutRoom, {}, [LINE, [keys.cut, { waiting, seen: seenOnes }]]);
  afterEach(() => {
    route.params = {};
  });

  it('lists what waits with since when, and what was looked into with what it said', () => {
    const found = room([waits(1), waits(2)], [seen('damp'), seen(null)]);
    expect(found.texts('main a.row .font-tag')).toEqual(['J-21-01', 'J-21-02']);
    expect(found.texts('main a.row')[0]).toContain('3 days');
    expect(found.texts('aside a.row')[0]).toContain('Hung too damp');
    expect(found.texts('aside a.row')[1]).toContain('Nothing amiss was seen.');
  });

  it('says when nothing waits and nothing was cut, once that is known', () => {
    const none = room([], []);
    expect(none.all('a.row')).toHaveLength(0);
    expect(none.text.length).toBeGreaterThan(drawn(CutRoom, {}, []).text.length);
  });

  it('a piece that was looked into is drawn with its marks, its ring as predicted beside it', () => {
    route.params = { id: '7' };
    const found = drawn(CutRoom, {}, [
      [keys.cut, { waiting: [], seen: [] }],
      [keys.cutPiece(7), knife()],
      [['photos', 7], []],
    ]);
    expect(found.text).toContain('J-21-02 · Juniper salame · 36.0 % lost · 40 days');
    expect(found.text).toContain('640 g');
    expect(found.all('[data-testid=cause]')).toHaveLength(0);
  });
});

describe('the allergens', () => {
  const page = (own: Schema['AllergenWordOut'][]): Drawn =>
    drawn(Allergens, {}, [
      [keys.allergens, { own, made: [], shipped: { milk: ['whey', 'cream'], mustard: ['mustard'] } }],
    ]);

  it('the words that are shipped by what they mean, and the own ones with who added them', () => {
    const found = page([{ id: 2, word: 'Old Tom’s rub', allergens: ['mustard', 'celery'], by: 'Ida' }]);
    expect(found.texts('dt')).toEqual(['milk', 'mustard']);
    expect(found.texts('dd')).toEqual(['whey, cream', 'mustard']);
    expect(found.text).toContain('Old Tom’s rub: mustard, celery Ida');
    expect(found.text).not.toContain('None yet.');
    expect(page([]).text).toContain('None yet.');
  });

  it('nothing can be added before a word and what it means are there', () => {
    expect(page([]).one('form .btn-primary').hasAttribute('disabled')).toBe(true);
  });
});
