import { describe, expect, it } from 'vitest';

import { OutsideForm } from './outsideform.svelte';

describe('a piece that dried elsewhere', () => {
  it('is a batch of its own where no lot is named, and keeps what was not weighed unweighed', () => {
    const form = new OutsideForm();
    [form.product, form.across, form.weeks] = ['Loin from the valley', '80', '9,5'];
    form.kind = 'breast';
    form.takeKind();
    expect(form.body()).toMatchObject({
      tag: 'Loin from the valley',
      batch_code: 'Loin from the valley',
      shape: 'slab',
      hung_weeks: 9.5,
      gross_g: null,
      start_weight_g: null,
      bag: 'vacuum',
      place_id: null,
    });
  });

  it('asks for what is missing, and refuses what is no number', async () => {
    const form = new OutsideForm();
    [form.product, form.across] = ['Loin', '80'];
    expect(await form.go()).toBeNull();
    expect(form.problem).toContain('weeks');
    [form.weeks, form.gross] = ['9', 'heavy'];
    expect(await form.go()).toBeNull();
    expect(form.problem).toContain('heavy');
  });
});
