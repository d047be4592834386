import { describe, expect, it } from 'vitest';

import { card, climate, inDays, NOW, piece, said, weighing } from '../testing/cards';
import { type Drawn, drawn } from '../testing/drawn';
import DryingCurve from './DryingCurve.svelte';
import EveningCurve from './EveningCurve.svelte';
import WindowBar from './WindowBar.svelte';

describe('a window in time', () => {
  const bar = (changes: Partial<Parameters<typeof WindowBar>[1]> = {}): Drawn =>
    drawn(WindowBar, {
      from: inDays(-10), earliest: inDays(2), best: inDays(6), latest: inDays(10), now: NOW,
      until: Date.parse(inDays(20)), label: 'Out of the salt', ...changes,
    }); // prettier-ignore

  it('lies from the earliest to the latest, with the best in it and now on the string', () => {
    const window = bar();
    const from = window.figure('rect[height="10"]', 'x');
    const to = from + window.figure('rect[height="10"]', 'width');
    const best = window.figure('line[stroke-width="2.5"]', 'x1');
    const now = window.figure('circle', 'cx');
    expect(now).toBeLessThan(from);
    expect(from).toBeLessThan(best);
    expect(best).toBeLessThan(to);
    // the axis is even: now is 10 of 30 days along, the window 8 days wide
    expect(now).toBeCloseTo(6 + (10 / 30) * 306, 5);
    expect(to - from).toBeCloseTo((8 / 30) * 306, 5);
    expect(window.one('.day').text).toBe('30 Nov');
    expect(window.label('svg')).toBe('Out of the salt');
  });

  it('without an end points on, and shows nothing as too late', () => {
    const open = bar({ latest: null });
    expect(open.all('path')).toHaveLength(1);
    expect(open.all('[stroke="var(--color-error)"]')).toHaveLength(0);
    expect(open.figure('rect', 'x') + open.figure('rect', 'width')).toBe(312);
  });

  it('shows what lies after the latest as too late', () => {
    const late = bar({ now: Date.parse(inDays(14)) });
    expect(late.all('path')).toHaveLength(0);
    expect(late.figure('rect[height="3"]', 'x')).toBe(late.figure('line[stroke-width="2"]', 'x1'));
  });

  it('of hours is read in hours, of days in days', () => {
    const hours = bar({
      from: inDays(-1),
      earliest: null,
      best: inDays(0.5),
      latest: null,
      until: Date.parse(inDays(2)),
    });
    expect(hours.one('.day').text).toMatch(/^Tue \d\d:\d\d$/);
  });

  it('keeps now and its name within the drawing when the window is long past', () => {
    const past = bar({ now: Date.parse(inDays(200)) });
    expect(past.figure('circle', 'cx')).toBe(312);
    expect(past.figure('.now', 'x')).toBeLessThanOrEqual(300);
  });

  it('drops the days that would lie over the best', () => {
    expect(bar({ earliest: inDays(5), latest: inDays(7) }).texts('text')).toEqual(['30 Nov', 'now']);
    expect(
      bar({ earliest: inDays(-3), best: inDays(4), latest: inDays(12) }).all('.quiet-text'),
    ).toHaveLength(2);
  });
});

describe('the drying curve', () => {
  const curve = (changes: Parameters<typeof piece>[0] = {}): Drawn =>
    drawn(DryingCurve, { piece: piece(changes), now: NOW });

  it('shows what was weighed as dots, what was struck or is doubted as crosses, of two colours', () => {
    const marked = curve({
      weighings: [
        weighing(),
        weighing({
          id: 2,
          at: inDays(-4),
          struck_at: inDays(-3),
          struck_by: 'Ida',
          struck_reason: 'other piece',
        }),
        weighing({ id: 3, at: inDays(-2), doubt: said('doubt.far') }),
        weighing({ id: 4, at: inDays(-1), loss_percent: null }),
      ],
    });
    expect(marked.all('circle')).toHaveLength(1);
    expect(marked.all('path[stroke="var(--quiet)"]')).toHaveLength(1);
    expect(marked.all('path[stroke="var(--color-warning)"]')).toHaveLength(1);
  });

  it('puts a weight lower the more was lost, and never outside the plot', () => {
    const at = (loss_percent: number): number =>
      curve({ weighings: [weighing({ loss_percent })] }).figure('circle', 'cy');
    expect(at(30)).toBeGreaterThan(at(10));
    expect(at(-40)).toBe(10);
    expect(at(95)).toBeLessThanOrEqual(150);
  });

  it('names the target with its weight, and has no line for a piece that goes by feel', () => {
    expect(curve().texts('.target')).toEqual(['target 36 % · 640 g']);
    const unweighed = card({ target_weight_g: null, start_weight_g: null });
    expect(curve({ card: unweighed }).texts('.target')).toEqual(['target 36 %']);
    const felt = curve({ card: card({ target_loss_percent: null, target_weight_g: null, done_by: 'feel' }) });
    expect(felt.all('.target')).toHaveLength(0);
    expect(felt.label('svg')).toBe('J-21-02: 24.0 %');
    expect(curve().label('svg')).toBe('J-21-02: 24.0 % of 36 %');
  });

  it('says that nobody measured the air, or which part of it', () => {
    expect(curve().text).toContain('No climate');
    expect(curve({ climate: climate([12, 13, 14], [80, null, 76]) }).texts('.air-label')).toEqual([
      '14.0 °C, set 13.0',
      '76 %, set 78',
    ]);
    const noHumidity = curve({ climate: climate([12, 13.5], [null, null]), setpoint: null });
    expect(noHumidity.texts('.air-label')).toEqual(['13.5 °C', 'no humidity']);
    expect(noHumidity.one('.humidity').getAttribute('d')).toBe('');
  });

  it('stands before there is any curve, and when it was hung this minute', () => {
    const empty = curve({ curve: { at: [], low: [], middle: [], high: [] } });
    expect(empty.one('.expected').getAttribute('d')).toBe('');
    const fresh = curve({
      card: card({ hung_at: inDays(0), loss_percent: 0 }),
      climate: climate([13], [78]),
    });
    expect(fresh.all('.temperature')).toHaveLength(1);
  });
});

describe('rim and middle coming together', () => {
  it('begins with the middle wetter, drawn higher, and ends with both beside each other', () => {
    const at = [inDays(-4), inDays(4), inDays(12)];
    const curve = {
      at, rim: [36, 42, 46], rim_low: [34, 40, 44], rim_high: [38, 44, 48], core: [60, 52, 48], core_low: [57, 50, 46],
      core_high: [63, 55, 50],
    }; // prettier-ignore
    const evening = drawn(EveningCurve, { curve, now: NOW, label: 'Evening out' });
    const [rim, core] = ['path.rim', 'path.core'].map((part) => evening.one(part).getAttribute('d') ?? '');
    const first = (path = ''): number => Number(path.split(',')[1]?.match(/^[\d.]+/)?.[0]);
    const last = (path = ''): number => Number(path.slice(path.lastIndexOf(',') + 1));
    expect(first(rim) - first(core)).toBeGreaterThan(60);
    expect(last(rim) - last(core)).toBeLessThan(20);
    expect(evening.texts('.name')).toEqual(['middle', 'rim']);
    const days = evening.all('text[text-anchor="middle"].tick').map((day) => Number(day.getAttribute('x')));
    expect(days.length).toBeGreaterThan(1);
    expect(Math.max(...days)).toBeLessThanOrEqual(380 - 22);
    expect(Math.min(...days.slice(1).map((at, i) => at - (days[i] ?? 0)))).toBeGreaterThan(44);
  });
});
