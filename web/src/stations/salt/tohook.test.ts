import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import { inDays, inSalt } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import { SaltDesk } from './saltdesk.svelte';
import SomethingElse from './SomethingElse.svelte';
import ToHook from './ToHook.svelte';

const desk = (): SaltDesk => new SaltDesk(() => undefined, () => undefined); // prettier-ignore

describe('from the salt to the hook', () => {
  const hook = (changes: Partial<Schema['SaltDetail']> = {}, card: Partial<Schema['SaltCard']> = {}): Drawn =>
    drawn(ToHook, {
      detail: {
        card: inSalt({ out_at: inDays(-1), state: 'out', ...card }), bases: { cured_g: 1930, raw_g: 2000 }, casing: 'natural',
        coat_g: null, curve: { at: [], core: [], core_high: [], core_low: [], mean: [] }, events: [], loss_basis: 'raw',
        margin_percent: 0, next_steps: [], rules: [], target_loss_percent: 36, ...changes,
      },
      ondone: () => undefined,
    }); // prettier-ignore

  it('says what the scale will show by each weight its loss can count from', () => {
    expect(hook().texts('fieldset label')).toEqual([
      'weight when hung', // not weighed yet: there is nothing to say
      'weight after salting scale shows 1 235 g',
      'raw trimmed weight scale shows 1 280 g',
    ]);
    expect(hook({ bases: { cured_g: null, raw_g: 2000 } }).texts('fieldset label')[1]).toBe(
      'weight after salting',
    );
  });

  it('begins with how the batch counts, and with a coat where one goes on', () => {
    const chosen = (drawing: Drawn): (string | undefined)[] =>
      drawing.all('input[type=radio][checked]').map((one) => one.getAttribute('value'));
    expect(chosen(hook())).toEqual(['raw']);
    expect(chosen(hook({ loss_basis: 'cured' }))).toEqual(['cured']);
    const coated = hook({ coat_g: 120, next_steps: ['coat'] });
    expect(coated.text).toContain('A coat goes on first');
    expect(coated.texts('fieldset label')[2]).toContain('1 400 g'); // what it carries is on the scale too
  });

  it('asks a slab for its thickness, the others for their diameter, as it was in salt', () => {
    expect(hook().text).toContain('diameter, mm90');
    expect(hook({}, { geometry: 'slab', across_mm: 35 }).text).toContain('thickness, mm35');
  });
});

describe('what is done in salt now and then', () => {
  const offered = (card: Partial<Schema['SaltCard']>): string[] =>
    drawn(SomethingElse, { card: inSalt(card), desk: desk(), places: [], ways: [] }).texts('option');
  it('is of a piece in salt something else than of one that is out', () => {
    expect(offered({})).toEqual([
      '…',
      'weighed',
      'looked at',
      'moved',
      'salted anew',
      'weighted',
      'thrown away',
    ]);
    expect(offered({ out_at: inDays(-1) })).toEqual([
      '…',
      'weighed',
      'trimmed',
      'moved',
      'coated',
      'wrapped',
      'rested',
      'thrown away',
    ]);
  });
});
