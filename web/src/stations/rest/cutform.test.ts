import { describe, expect, it } from 'vitest';

import { CutForm } from './cutform.svelte';

const piece = { piece_id: 1, state: 'resting', across_mm: 60, weighed_when_hung: true };

describe('a cut face on its way into the record', () => {
  it('measures a ring from the rim to the tap, in half millimetres', () => {
    const form = new CutForm(piece);
    form.touch(0, 0, 0.5); // nothing is picked: a tap places nothing
    expect(form.marks).toEqual([]);
    form.pick('ring');
    expect(form.face).toMatchObject({ ring: 'thin', ring_mm: null });
    form.touch(0.85, 0, 0.15);
    expect(form.face).toMatchObject({ ring: 'wide', ring_mm: 4.5 });
    form.touch(0.9, 0, 0.1);
    expect(form.face).toMatchObject({ ring: 'thin', ring_mm: 3 });
    form.pick('ring');
    expect(form.face).toMatchObject({ ring: null, ring_mm: null });
  });

  it('counts a sign without a place, puts marks where they are tapped, and takes both back', () => {
    const form = new CutForm(piece);
    form.pick('holes');
    expect(form.face.holes).toBe(true);
    form.touch(0.5, -0.3, 0.4);
    form.touch(1.7, 0, 0);
    expect(form.marks).toEqual([
      { what: 'holes', x: 0.5, y: -0.3 },
      { what: 'holes', x: 1, y: 0 },
    ]);
    form.pick('grey'); // another one is picked up; the first stays
    form.pick('holes');
    expect(form.pen).toBe('holes');
    form.pick('holes');
    expect(form.face).toMatchObject({ holes: false, colour: 'grey', marks: [] });
    form.pick('soft');
    expect(form.face.marks).toEqual([{ what: 'soft', x: 0, y: 0 }]);
  });

  it('is even all over, or something is seen, never both', () => {
    const form = new CutForm(piece);
    form.pick('smear');
    form.nothing();
    expect(form.face).toMatchObject({ ring: 'none', colour: 'even', smear: false });
    form.pick('loose');
    expect(form.face).toMatchObject({ ring: null, colour: null, loose: true });
  });

  it('tastes nothing that smells foul, and clean alone', () => {
    const form = new CutForm(piece);
    form.flip('sour');
    form.flip('sharp');
    form.flip('clean');
    expect(form.taste).toEqual(['clean']);
    form.flip('rancid');
    expect(form.taste).toEqual(['rancid']);
    form.salt = 'high';
    form.smell = 'off';
    expect(form.face).toMatchObject({ taste: [], salt: null, smell: 'off' });
  });

  it('sends the weights of what becomes of it only', () => {
    const form = new CutForm(piece);
    [form.weight, form.before, form.after] = ['540', '541', '500'];
    expect(form.body).toMatchObject({ ends: 'cut', gross_g: 540, before_g: null });
    form.ends = 'goes_on';
    expect(form.body).toMatchObject({ ends: 'goes_on', gross_g: null, before_g: 541, after_g: 500 });
    expect(new CutForm({ ...piece, state: 'cut' }).body.ends).toBeNull();
  });
});
