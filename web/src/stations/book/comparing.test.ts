import { describe, expect, it } from 'vitest';

import { chosen, factShown, fallOf } from './comparing';

describe('batches beside each other', () => {
  it('come from the address, each once, no more than six, nothing that is no batch', () => {
    expect(chosen('3,1,3,x,-2,0,1.5')).toEqual([3, 1]);
    expect(chosen('1,2,3,4,5,6,7')).toEqual([1, 2, 3, 4, 5, 6]);
    expect(chosen(null)).toEqual([]);
  });
  it('fall by hours since the first reading that counts; one reading is no fall', () => {
    const at = (hour: number, ph: number, struck = false) => ({
      at: `2026-03-01T${String(hour).padStart(2, '0')}:00:00Z`,
      ph,
      by: 'Ida',
      struck,
    });
    const [fall] = fallOf('J-1', 2, [at(9, 5.3), at(6, 5.6), at(5, 7, true)]);
    expect(fall).toEqual({ name: 'J-1', batch: 2, x: [0, 3], y: [5.6, 5.3] });
    expect(fallOf('J-1', 0, [at(6, 5.6)])).toEqual([]);
  });
  it('write what is not known as a dash, not as a nought', () => {
    expect([null, 0, 2.704, 'natural', 'Pit'].map((value) => factShown('salt_percent', value))).toEqual([
      '–',
      '0',
      '2.7',
      'natural',
      'Pit',
    ]);
  });
});
