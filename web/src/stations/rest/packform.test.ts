import { describe, expect, it } from 'vitest';

import { PackForm } from './packform.svelte';

const piece = {
  piece_id: 1,
  has_ingredients: true,
  periods: [
    { wrap: 'vacuum' as const, keep_at: 'fridge' as const, period_days: 60 },
    { wrap: 'vacuum' as const, keep_at: 'freezer' as const, period_days: 300 },
  ],
};

describe('a piece on its way into packs', () => {
  it('takes the period that was given last for such packs, until another is typed', () => {
    const form = new PackForm(piece);
    expect(form.period).toBe('60');
    form.keepAt = 'freezer';
    form.followPeriod();
    expect(form.period).toBe('300');
    form.wrap = 'paper';
    form.followPeriod();
    expect(form.period).toBe('');
    [form.period, form.typed, form.wrap] = ['45', true, 'vacuum'];
    form.followPeriod();
    expect(form.period).toBe('45');
  });

  it('knows what all of them weigh, and asks for a number where one is missing', async () => {
    const form = new PackForm({ ...piece, periods: [] });
    expect(form.total).toBeNull();
    [form.number, form.net] = ['4', '120,5'];
    expect(form.total).toBe(482);
    form.period = 'long';
    expect(await form.go()).toBeNull();
    expect(form.problem).not.toBeNull();
  });
});
