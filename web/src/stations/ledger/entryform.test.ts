import { beforeEach, describe, expect, it, vi } from 'vitest';

import type { Schema } from '../../api/client';
import { keys } from '../../api/queries';
import { session } from '../../shell/session.svelte';
import { ledger } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import { FakeServer } from '../../testing/server';
import EntryForm from './EntryForm.svelte';
import { Settling, type Typed } from './settling.svelte';

const UNITS: Schema['LedgerOut']['lab_units'] = {
  water_activity: [''], salt: ['%'], listeria: ['cfu/g', 'in 25 g'], staphylococcal_enterotoxin: [''],
}; // prettier-ignore
const place = (id: number, name: string): Schema['PlaceOut'] => ({
  id, name, kind: 'salt', hooks: 0, pieces: 0, air: null, setpoint: null, sort: null, stirring: null,
}); // prettier-ignore
const LINE = [keys.line, { places: [place(1, 'Fridge'), place(2, 'Cellar')] }] as [
  readonly unknown[],
  unknown,
];
const METERS = [keys.warm, { meters: [{ id: 4, name: 'Pen' }] }] as [readonly unknown[], unknown];

function opened(entry: Typed, hurdle = 'salt', then: (settling: Settling) => void = () => undefined): Drawn {
  const settling = new Settling(() => 3, vi.fn());
  settling.open(hurdle, entry, ledger({ lab_units: UNITS, species: ['beef'] }));
  then(settling);
  return drawn(EntryForm, { settling, tags: ['J-21-01', 'J-21-02'] }, [LINE, METERS]);
}
/** What can be filled in, by name. */
const fields = (form: Drawn): string[] =>
  form.texts('label').map((text) => text.replace(/ (?:say|now|…).*$/, ''));

beforeEach(() => (session.who = 'Ida'));

describe('what settles a hurdle is entered where the hurdle stands', () => {
  it('a signature asks why, and says that nobody checks a name', () => {
    const form = opened('sign');
    expect(form.text).toContain('Why');
    expect(form.texts('.btn-primary')).toEqual(['Sign']);
  });

  it('of a laboratory: what, its value in the unit that is usual for it, of what, and the report', () => {
    const form = opened('laboratory');
    expect(form.texts('select')[0]).toBe('water activity salt listeria toxin of staphylococci');
    expect(form.text).toContain('the product the mix');
    expect(form.text).toContain('laboratory and report');
    expect(form.text).not.toContain('at a loss of'); // of salt: a loss is asked with the activity of water
    expect(form.texts('select')).toHaveLength(3); // salt has one unit: it is not asked for
  });

  it('with water activity also the loss it was measured at', () => {
    expect(opened('laboratory', 'water').text).toContain('at a loss of, %');
  });

  it('a germ that is sought in 25 g is found or not, not counted', () => {
    const sought = (unit: 'cfu/g' | 'in 25 g'): Drawn =>
      opened('laboratory', 'water', (settling) => {
        settling.pick('listeria');
        settling.unit = unit;
      });
    expect(sought('cfu/g').all('input[inputmode=decimal]')).toHaveLength(1);
    expect(sought('in 25 g').all('input[inputmode=decimal]')).toHaveLength(0);
    expect(sought('in 25 g').texts('select')).toHaveLength(5);
  });

  it('a value of the product may be of one piece; of the mix it is of the batch', () => {
    expect(opened('laboratory').texts('select').at(-1)).toBe('the batch J-21-01 J-21-02');
    expect(opened('laboratory', 'salt', (settling) => (settling.of = 'mix')).text).not.toContain('J-21-01');
  });

  it('about parasites: the animal of the batch, and how cold and how long only where it was frozen', () => {
    const certified = opened('parasites', 'parasite');
    expect(certified.text).toContain('certified meat frozen nothing was done');
    expect(certified.text).not.toContain('for, days');
    const frozen = opened('parasites', 'parasite', (settling) => (settling.way = 'frozen'));
    for (const asked of ['at, °C', 'for, days', 'thick, cm']) expect(frozen.text).toContain(asked);
  });

  it('what went in: nothing is said for the maker, and curing salt asks for its make only where it was weighed', () => {
    const form = opened('went_in');
    expect(form.texts('select')[0]).toMatch(/^not said/);
    expect(form.text).not.toContain('nitrite in it');
    expect(opened('went_in', 'nitrite_in', (settling) => (settling.curing = 'weighed')).text).toContain(
      'nitrite in it, %',
    );
    expect(opened('went_in', 'nitrite_in', (settling) => (settling.curing = 'unknown')).text).not.toContain(
      'nitrite in it',
    );
  });

  it('a pH by one of the meters, or by one that is not among them', () => {
    expect(opened('measure_ph', 'acid').texts('select')).toEqual(['not one of mine Pen']);
  });

  it('where meat lay has a place and two moments; how warm it was mixed a temperature and one', () => {
    const lay = opened('meat', 'cold');
    expect(lay.texts('select')).toContain('Fridge Cellar');
    expect(lay.text).toContain('From when');
    expect(lay.text).toContain('Until when');
    const mixed = opened('meat', 'cold_mix');
    expect(mixed.text).toContain('Temperature of the meat, °C');
    expect(mixed.text).not.toContain('Until when');
    expect(mixed.texts('select')).toHaveLength(1);
  });

  it('what was done about it is one of five, and a choice stands as it was made', () => {
    expect(opened('step').texts('option')).toEqual([
      'held',
      'cooled',
      'tested',
      'thrown away',
      'something else',
    ]);
    const choices = opened('choices');
    expect(fields(choices)).toEqual(expect.arrayContaining(['eaten raw', 'to be cooked', 'done by weight']));
    expect(choices.all('input[type=radio][checked]').map((one) => one.getAttribute('value'))).toEqual([
      'raw',
      'weight',
    ]);
  });

  it('what is doubted can be kept as it was typed, and only then', () => {
    expect(
      opened('step')
        .texts('button')
        .filter((text) => text.includes('keep')),
    ).toEqual([]);
    const asked = opened('measure_ph', 'acid', (settling) => {
      settling.fault = 'pH 6.9 is far from 5.1';
      settling.asked = true;
    });
    expect(asked.one('[role=alert]').text).toBe('pH 6.9 is far from 5.1');
    expect(asked.texts('button').filter((text) => text.includes('keep'))).toHaveLength(1);
  });
});

describe('what is sent', () => {
  it('a thickness as it is measured, in the unit of the table', async () => {
    const path = '/api/batches/3/parasites';
    const server = new FakeServer().on(path, { status: 201, body: ledger() });
    const settling = new Settling(() => 3, vi.fn());
    for (const thick of ['15', '150 mm', '6 in', '']) {
      settling.open('parasite', 'parasites', ledger({ species: ['pork'] }));
      settling.way = 'frozen';
      Object.assign(settling.typed, { c: '−18', days: '20', thick });
      await settling.send();
    }
    expect(server.bodies(path).map((body) => (body as { thickness_cm: number | null }).thickness_cm)).toEqual(
      [15, 15, expect.closeTo(15.24, 9), null],
    );
    expect(server.bodies(path)[0]).toMatchObject({ temperature_c: -18, days: 20 });
  });
});
