import { afterEach, beforeEach, describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { keys } from '../../api/queries';
import { door } from '../../shell/door.svelte';
import { inDays } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import { words } from '../../words';
import Home from '../start/Home.svelte';
import Tour from '../start/Tour.svelte';
import { tour } from '../start/tour.svelte';
import Devices from './Devices.svelte';
import People from './People.svelte';

type Answers = [readonly unknown[], unknown][];
const ALONE: Schema['DoorOut'] = { locked: false, me: null, tablet: null, by_pin: [] };
const IDA: Schema['MeOut'] = {
  id: 1, name: 'Ida', role: 'owner', by_pin: false, has_pin: false, may_keep_house: true, may_sign: true, may_write: true,
  shows: null,
}; // prettier-ignore
const asOwner = (tablet: string | null = null): void =>
  door.take({ ...ALONE, locked: true, me: IDA, tablet });
const asHelper = (): void =>
  door.take({
    ...ALONE,
    locked: true,
    me: { ...IDA, id: 3, name: 'Nives', role: 'helper', may_keep_house: false },
  });
const person = (changes: Partial<Schema['PersonOut']> = {}): Schema['PersonOut'] => ({
  id: 1, name: 'Ida', role: 'owner', has_passphrase: true, has_pin: false, made_at: inDays(-90), made_by: 'Ida',
  ended_at: null, ended_by: null, waits_until: null, ...changes,
}); // prettier-ignore
beforeEach(() => door.take(ALONE));
afterEach(() => door.take(ALONE));

describe('who works here', () => {
  const signIn = (changes: object): object => ({
    id: 4, name: 'Ida', browser: 'Mozilla/5.0 Firefox/140', calendar: false, tablet: null, this_one: false,
    last_at: new Date(Date.now() - 7_200_000).toISOString(), ...changes,
  }); // prettier-ignore
  const page = (
    people: Schema['PersonOut'][],
    browsers: object[] = [],
    tablets: Schema['TabletOut'][] = [],
  ): Drawn =>
    drawn(People, {}, [
      [keys.people, people],
      [keys.signIns, browsers],
      [keys.tablets, tablets],
    ] as Answers);

  it('alone on the machine one is told so, and nothing is said of signing in', () => {
    const alone = page([]);
    expect(alone.text).toContain(words.house.alone);
    expect(alone.text).not.toContain(words.house.browsers);
    asOwner();
    expect(page([person()]).text).toContain(words.house.peopleHint);
    expect(page([person()]).text).toContain(words.house.browsers);
  });

  it('whoever works here no more stands apart, with until when and by whom', () => {
    asOwner();
    const found = page([person(), person({ id: 2, name: 'Ugo', ended_at: inDays(-10), ended_by: 'Ida' })]);
    expect(found.all('ul')[0]?.text).not.toContain('Ugo');
    expect(found.one('section[aria-label="Worked here"]').text).toContain('until 14 Nov 2026 (Ida)');
    expect(page([person()]).all('section[aria-label="Worked here"]')).toHaveLength(0);
  });

  it('each browser says by whom and when it was seen; from this one nobody is signed out afar', () => {
    asOwner();
    const browsers = [
      signIn({ this_one: true }),
      signIn({ id: 5, name: 'Ugo', tablet: 'Cellar door' }),
      signIn({ id: 6, calendar: true, browser: '' }),
      signIn({ id: 7, browser: 'curl/8' }),
    ];
    const rows = page([person()], browsers)
      .texts('section li')
      .filter((text) => /this one|seen/.test(text));
    expect(rows).toEqual([
      'Ida Firefox, this one',
      'Ugo Firefox, by PIN on Cellar door, seen 2 h ago Sign out there',
      'Ida a calendar, seen 2 h ago Sign out there',
      'Ida a browser, seen 2 h ago Sign out there',
    ]);
  });

  it('a device is trusted by whoever keeps the house, once', () => {
    const tablets = [{ id: 8, name: 'Cellar door', by: 'Ida', made_at: inDays(-20) }];
    asOwner();
    expect(page([person()], [], tablets).text).toContain(
      'Cellar door trusted by Ida, 4 Nov 2026 Trust it no more',
    );
    expect(page([person()], [], tablets).all('form[aria-label="Trust this device"]')).toHaveLength(1);
    asOwner('Cellar door');
    const trusted = page([person()], [], tablets);
    expect(trusted.all('form[aria-label="Trust this device"]')).toHaveLength(0);
    expect(trusted.text).toContain('This device is trusted as Cellar door.');
    asHelper();
    expect(page([person()], [], tablets).text).not.toContain('Trust it no more');
  });
});

describe('every device', () => {
  const NOW = Date.parse('2026-11-24T10:00:00Z');
  const device = (changes: Partial<Schema['DeviceOut']> = {}): Schema['DeviceOut'] => ({
    ended_at: null, ended_by: null, id: 1, impossible: 0, kind: 'climate', last_at: new Date(NOW - 300_000).toISOString(),
    late: 0, made_at: inDays(-90), made_by: 'Ida', name: 'Logger', place: 'Cellar', repeated: 0, silent: false,
    simulated: false, taken: 12, value: null, value_at: null, ...changes,
  }); // prettier-ignore
  const page = (devices: Schema['DeviceOut'][] | null, broker?: Partial<Schema['BrokerOut']>): Drawn => {
    const answers: Answers = [];
    if (devices) answers.push([keys.devices, devices]);
    if (broker)
      answers.push([
        keys.broker,
        { messages: 0, refused: 0, since: null, state: 'none', trouble: '', where: null, ...broker },
      ]);
    return drawn(Devices, {}, answers);
  };

  it('none is said only once it is known that there is none', () => {
    expect(page(null).text).not.toContain('None yet.');
    expect(page([]).text).toContain('None yet.');
  });

  it('says when it was heard, that it is silent, or since when it is off and by whom', () => {
    const found = page([
      device({ id: 2, last_at: null }),
      device({ id: 3, ended_at: inDays(-3), ended_by: 'Ida', silent: false }),
    ]);
    expect(found.texts('li.device')[0]).toContain('not heard of yet');
    expect(found.texts('li.device')[1]).toContain('switched off 21 Nov 2026, by Ida');
    expect(found.all('li.device.off')).toHaveLength(1);
  });

  it('is switched off and given tokens by whoever keeps the house alone', () => {
    asOwner();
    expect(page([device()]).texts('li button')).toEqual(['New token', 'Switch off']);
    expect(page([device({ ended_at: inDays(-1) })]).texts('li button')).toEqual([
      'On again, with a new token',
    ]);
    asHelper();
    expect(page([device()]).all('li button')).toHaveLength(0);
    expect(page([device()]).one('li select').hasAttribute('disabled')).toBe(true);
    expect(page([device({ place: null })]).all('li select')).toHaveLength(0);
  });

  it.each<[Partial<Schema['BrokerOut']>, string, boolean]>([
    [{ state: 'none' }, 'No broker is set', false],
    [{ state: 'linked', where: 'cellar:1883' }, 'Linked with the broker at cellar:1883.', false],
    [
      { state: 'away', where: 'cellar:1883', trouble: 'no route' },
      'does not answer; it is tried again by itself. (no route)',
      true,
    ],
  ])('the broker %o is told "%s", alarming: %s', (broker, told, alarming) => {
    const found = page([], broker);
    expect(found.text).toContain(told);
    expect(found.all('p.text-error')).toHaveLength(alarming ? 1 : 0);
  });
});

describe('an empty workshop', () => {
  const home = (line?: object): Drawn => drawn(Home, {}, line ? [[keys.line, line]] : []);

  it('waits for the first answer, then asks for what is needed to begin', () => {
    expect(home().all('main')).toHaveLength(0);
    const first = home({ workshop: null, places: [] });
    expect(first.all('main')).toHaveLength(1);
    expect(first.texts('label').slice(0, 2)).toEqual(['Workshop', expect.stringContaining('Your name')]);
    expect(first.all('input[type=file]')).toHaveLength(1);
  });

  it('takes in another workshop only before it has a name', () => {
    expect(
      home({ workshop: { name: 'Flat 3', time_zone: 'Europe/Rome' }, places: [] }).all('input[type=file]'),
    ).toHaveLength(0);
  });

  it('with a chamber there is nothing to ask', () => {
    expect(
      home({ workshop: null, places: [{ id: 1, kind: 'chamber', pieces: 3 }] }).all('main'),
    ).toHaveLength(0);
  });
});

describe('the three steps', () => {
  afterEach(() => tour.end());

  it('lead on, back from the second on, and to the stations that they tell of', () => {
    const at = (step: number): { buttons: string[]; links: string[] } => {
      tour.again();
      for (let i = 0; i < step; i++) tour.next();
      const found = drawn(Tour, {});
      return {
        buttons: found.texts('button'),
        links: found.all('a').map((one) => one.getAttribute('href') ?? ''),
      };
    };
    expect(at(0)).toEqual({ buttons: ['Next', 'I know my way'], links: ['/bench'] });
    expect(at(1)).toEqual({ buttons: ['Next', 'Back', 'I know my way'], links: [] });
    expect(at(2)).toEqual({ buttons: ['That is all', 'Back'], links: ['/today'] });
  });

  it('over, they can be had again', () => {
    tour.end();
    expect(drawn(Tour, {}).texts('button')).toEqual(['The three steps again']);
  });
});
