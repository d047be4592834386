import { beforeEach, describe, expect, it, vi } from 'vitest';

async function fresh() {
  vi.resetModules();
  return (await import('./tour.svelte')).tour;
}

describe('the three steps', () => {
  beforeEach(() => localStorage.clear());

  it('go from what goes in over what it weighs to what wants a hand, and are over', async () => {
    const tour = await fresh();
    const seen = [];
    for (let i = 0; i < 4; i++) {
      seen.push([tour.step, tour.number]);
      tour.next();
    }
    expect(seen).toEqual([
      ['bench', 1],
      ['hang', 2],
      ['today', 3],
      [null, 1],
    ]);
  });
  it('are shown once in a browser, and again to whoever asks', async () => {
    (await fresh()).end();
    const later = await fresh();
    expect(later.step).toBeNull();
    later.next();
    expect(later.step).toBeNull();
    later.again();
    expect(later.step).toBe('bench');
  });
  it('can be gone back, not before the first', async () => {
    const tour = await fresh();
    tour.next();
    tour.back();
    tour.back();
    expect(tour.step).toBe('bench');
  });
  it('point at a station only while a page shows them', async () => {
    const tour = await fresh();
    expect(tour.points).toBeNull();
    const gone = tour.show();
    expect(tour.points).toBe('bench');
    gone();
    expect(tour.points).toBeNull();
  });
});
