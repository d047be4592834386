import { describe, expect, it } from 'vitest';

import { type Drawn, drawn } from '../testing/drawn';
import Field from './Field.svelte';
import Num from './Num.svelte';
import Pick from './Pick.svelte';
import Reason from './Reason.svelte';
import WhenField from './When.svelte';
import { When } from './when.svelte';

const ignore = (): undefined => undefined;

describe('a cell for a number', () => {
  const cell = (value: number | null, more: Partial<Parameters<typeof Num>[1]> = {}): Drawn =>
    drawn(Num, { label: 'salt', value, onset: ignore, ...more });
  const shown = (drawing: Drawn): string | undefined => drawing.one('input').getAttribute('value');

  it('is tidy: no more digits than asked, no useless noughts, empty where nothing is known', () => {
    expect(shown(cell(2.7))).toBe('2.7');
    expect(shown(cell(2.70512, { digits: 3 }))).toBe('2.705');
    expect(shown(cell(2))).toBe('2');
    expect(shown(cell(null))).toBe('');
    expect(shown(cell(0))).toBe('0');
    expect(shown(cell(-1.5))).toBe('-1.5');
  });

  it('has its unit beside it, for eyes; its name is for those who listen', () => {
    expect(cell(2.7, { unit: '%' }).texts('.unit')).toEqual(['%']);
    expect(cell(2.7).all('.unit')).toHaveLength(0);
    expect(cell(2.7).label('input')).toBe('salt');
  });

  it('says what is wrong with it where it stands', () => {
    const wrong = cell(200, { fault: 'salt lies above 100 %' });
    expect(wrong.texts('[role=alert]')).toEqual(['salt lies above 100 %']);
    expect(wrong.one('input').getAttribute('aria-invalid')).toBe('true');
    expect(cell(2).one('input').getAttribute('aria-invalid')).toBe('false');
  });
});

describe('a labelled field', () => {
  it('asks for a keyboard of numbers only where a number is typed', () => {
    const mode = (numeric: boolean): string | undefined =>
      drawn(Field, { label: 'weight', value: '612', numeric }).one('input').getAttribute('inputmode');
    expect(mode(true)).toBe('decimal');
    expect(mode(false)).toBeUndefined();
  });
  it('is named by its label, with its hint, and tells a fault', () => {
    const field = drawn(Field, {
      label: 'weight, g',
      value: '',
      hint: 'expected 700–740 g',
      fault: true,
      required: true,
    });
    expect(field.texts('label')).toEqual(['weight, gexpected 700–740 g']);
    expect(field.all('input[required].input-error')).toHaveLength(1);
  });
});

describe('when it was', () => {
  const field = (prepare: (when: When) => void, more: { label?: string; unset?: string } = {}): Drawn => {
    const when = new When();
    prepare(when);
    return drawn(WhenField, { when, ...more });
  };
  it('is now unless somebody says otherwise', () => {
    expect(field(ignore).texts('button')).toEqual(['when: now or earlier']);
    expect(field(ignore, { label: 'stuffed at' }).text).toContain('stuffed at');
    expect(field(ignore, { unset: '–' }).text).toContain('–');
  });
  it('typed is told back as it was understood, or what is wrong with it', () => {
    const typed = (text: string): string =>
      field((when) => {
        when.open = true;
        when.type(text);
      }).texts('.said')[0] ?? '';
    expect(typed('')).not.toBe('');
    expect(typed('yesterday 18:00')).toMatch(/^= \w+day .*18:00$/);
    expect(typed('some day')).not.toContain('=');
  });
});

it('a reason is asked for before anything is struck, and grave things look grave', () => {
  const reason = drawn(Reason, { label: 'Why is it wrong?', button: 'Strike', onanswer: ignore });
  expect(reason.label('input')).toBe('Why is it wrong?');
  expect(reason.all('input[required]')).toHaveLength(1);
  expect(reason.all('.btn-error')).toHaveLength(0);
  expect(
    drawn(Reason, { label: 'Why?', button: 'Throw it away', grave: true, onanswer: ignore }).all(
      '.btn-error',
    ),
  ).toHaveLength(1);
});

it('a choice shows which is chosen', () => {
  const pick = drawn(Pick, { label: 'Weights', value: 'oz', options: [['g', 'g, kg'], ['oz', 'oz, lb']] }); // prettier-ignore
  expect(pick.one('option[selected]').text).toBe('oz, lb');
  expect(pick.text).toContain('Weights');
});
