import { describe, expect, it } from 'vitest';

import { chosen, factShown } from './comparing';

describe('batches beside each other', () => {
  it('come from the address, each once, no more than six, nothing that is no batch', () => {
    expect(chosen('3,1,3,x,-2,0,1.5')).toEqual([3, 1]);
    expect(chosen('1,2,3,4,5,6,7')).toEqual([1, 2, 3, 4, 5, 6]);
    expect(chosen(null)).toEqual([]);
  });
  it('write what is not known as a dash, not as a nought', () => {
    expect([factShown(null), factShown(0), factShown(2.704), factShown('natural'), factShown('Pit')]).toEqual(
      ['–', '0', '2.7', 'natural', 'Pit'],
    );
  });
});
