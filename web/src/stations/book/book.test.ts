import { describe, expect, it } from 'vitest';

import type { Schema } from '../../api/client';
import Beside from '../../charts/Beside.svelte';
import { inDays } from '../../testing/cards';
import { type Drawn, drawn } from '../../testing/drawn';
import PieceState from './PieceState.svelte';
import StoryLine from './StoryLine.svelte';

describe('a piece in a list, in whatever state', () => {
  const shown = (life: Partial<Schema['LifeOut']>, changes: Partial<Schema['PieceOfBatch']> = {}): Drawn =>
    drawn(PieceState, {
      piece: {
        tag: 'J-21-02', piece_id: 7, place_id: 1, salt_id: null, mix: null, casing: 'natural', across_mm: 60, start_g: 1000,
        weight_g: 640, loss_percent: 36, tag_g: null, target_loss_percent: 36,
        life: { kind: 'hanging', how: '', by: 'Ida', place: 'Cellar', since: inDays(-20), ...life }, ...changes,
      },
      kind: 'salame', shape: 'cylinder',
    }); // prettier-ignore
  const link = (drawing: Drawn): string | undefined => drawing.all('a')[0]?.getAttribute('href');

  it.each<[Partial<Schema['LifeOut']>, Partial<Schema['PieceOfBatch']>, string | undefined]>([
    [{ kind: 'hanging' }, {}, '/hang/1?piece=7'],
    [{ kind: 'resting' }, {}, '/rest/7'],
    [{ kind: 'cut' }, {}, '/rest/cut/7'],
    [{ kind: 'kept' }, {}, '/rest/pack/7'],
    [{ kind: 'in_salt' }, { piece_id: null, place_id: null, salt_id: 4 }, '/salt/4'],
    [{ kind: 'waiting' }, { piece_id: null, place_id: null }, undefined],
    [{ kind: 'gone', how: 'eaten' }, {}, '/hang/1?piece=7'],
  ])('%o leads to where it is', (life, changes, address) => {
    expect(link(shown(life, changes))).toBe(address);
  });

  it('says its weight as it was weighed, or that nobody weighed it', () => {
    expect(shown({}).text).toContain('640 g · 36.0 %');
    expect(shown({}, { weight_g: null, loss_percent: null }).text).toContain('1 000 g');
    const never = shown({}, { weight_g: null, start_g: null, loss_percent: null, tag_g: 812 }).text;
    expect(never).toContain('not weighed · tag: 812 g');
    expect(shown({}, { mix: 'fennel' }).text).toContain('fennel · 640 g');
  });

  it('is only an outline where nothing is left of it', () => {
    const figure = (life: Partial<Schema['LifeOut']>): string | undefined =>
      shown(life).all('path')[1]?.getAttribute('fill');
    expect(figure({ kind: 'gone' })).toBe('none');
    expect(
      new Set(['in_salt', 'hanging', 'resting', 'gone'].map((kind) => figure({ kind: kind as 'gone' }))).size,
    ).toBe(4);
    expect(shown({ kind: 'gone', how: 'given', place: null }).text).toContain('given');
  });
});

describe('a batch on one time line', () => {
  const weight = (day: number, loss_percent: number, struck_reason: string | null = null): Schema['StoryWeight'] => ({
    at: inDays(day), by: 'Ida', gross_g: 1000 - 10 * loss_percent, loss_percent, struck_reason,
  }); // prettier-ignore
  const piece = (tag: string, changes: Partial<Schema['StoryPiece']> = {}): Schema['StoryPiece'] => ({
    tag, piece_id: 1, hung_at: inDays(-40), off_at: null, life: null, loss_percent: 30, start_g: 1000, reached_at: null,
    target_loss_percent: 36, photos: [], told: [], weights: [weight(-30, 10), weight(-20, 20), weight(-10, 28)], ...changes,
  }); // prettier-ignore
  const told: Schema['ToldOut'] = {
    at: inDays(-30),
    ready: { p10: inDays(-4), p50: inDays(0), p90: inDays(8) },
  };
  const stage = (kind: string, from: number, to: number | null): Schema['StoryStage'] => ({
    kind, from_at: inDays(from), to_at: to === null ? null : inDays(to), by: 'Ida', place: 'Cellar', pieces: [], way: null,
    low_c: null, high_c: null, mean_c: kind === 'hang' ? 12.9 : null, mean_rh_percent: null,
  }); // prettier-ignore
  const line = (changes: Partial<Schema['StoryOut']> = {}): Drawn =>
    drawn(StoryLine, {
      story: {
        begins: inDays(-44), ends: inDays(0), airs: [], pieces: [piece('J-21-01'), piece('J-21-02')],
        stages: [stage('warm', -44, -40), stage('hang', -40, null)], ...changes,
      } as Schema['StoryOut'],
    }); // prettier-ignore

  it('has a strip for each stage, with its place and, where it was logged, how warm it was', () => {
    expect(line().texts('rect.stage title')).toEqual(['on the hook, Cellar, 12.9 °C', 'warm, Cellar']);
    const strips = line().all('rect.stage');
    expect(Number(strips[0]?.getAttribute('width'))).toBeGreaterThan(
      8 * Number(strips[1]?.getAttribute('width')),
    );
  });

  it('draws each piece thinner as it dries, from its hook on, without what was struck', () => {
    const one = line({
      pieces: [piece('J-21-01', { weights: [weight(-30, 10), weight(-25, 80, 'slip'), weight(-10, 28)] })],
    });
    const parts = one.all('line.piece').map((part) => Number(part.getAttribute('stroke-width')));
    expect(parts).toHaveLength(2);
    expect(parts[0]).toBeGreaterThan(parts[1] ?? 0);
    expect(line().all('button')).toHaveLength(2);
    expect(one.all('button')).toHaveLength(0);
  });

  it('tells what was foretold of the piece of which most was, and when it was reached', () => {
    const foretold = line({
      pieces: [piece('J-21-01'), piece('J-21-02', { told: [told], reached_at: inDays(1) })],
    });
    expect(foretold.all('rect.window')).toHaveLength(1);
    expect(foretold.all('line.reached')).toHaveLength(1);
    expect(foretold.texts('p')[0]).toMatch(/^.*J-21-02: 25 Oct: 24 Nov \(20 Nov–2 Dec\) .*25 Nov/);
    expect(line().all('rect.window')).toHaveLength(0);
  });

  it('has a target where one was set, and air where two readings or more were made', () => {
    expect(line().all('line.target')).toHaveLength(1);
    expect(line({ pieces: [piece('D-01', { target_loss_percent: null })] }).all('line.target')).toHaveLength(
      0,
    );
    const air = {
      place: 'Cellar',
      at: [inDays(-9), inDays(-8)],
      high_c: [14, 14],
      temperature_c: [12, 13],
      rh_percent: [80, null],
    };
    expect(line({ airs: [air] }).texts('.warmth-name, .damp-name')).toEqual(['12–14 °C', '80–81 %']);
    expect(line({ airs: [{ ...air, at: air.at.slice(1) }] }).all('.warmth')).toHaveLength(0);
  });

  it('of a batch that never hung has nothing to thin', () => {
    const early = line({ pieces: [], stages: [stage('cold', -2, null)] });
    expect(early.all('line.piece, line.target')).toHaveLength(0);
  });
});

describe('batches beside each other', () => {
  const curve = (batch: number, name: string, y: number[]): { name: string; batch: number; x: number[]; y: number[] } => ({
    name, batch, x: y.map((_, i) => i), y,
  }); // prettier-ignore
  it('have a line for each piece, a dash and a name for each batch', () => {
    const drawing = drawn(Beside, {
      curves: [curve(1, 'J-21', [0, 10]), curve(1, 'J-21', [0, 12]), curve(2, 'K-02', [0, 9])], unit: '%', xUnit: 'd',
      label: 'Loss', down: true,
    }); // prettier-ignore
    expect(drawing.all('polyline')).toHaveLength(3);
    expect(drawing.text.match(/J-21|K-02/g)).toEqual(['J-21', 'K-02']);
  });
  it('are not there before there is anything to compare', () => {
    expect(drawn(Beside, { curves: [], unit: '%', xUnit: 'd', label: 'Loss' }).all('svg')).toHaveLength(0);
  });
  it('have room for the value that is drawn through', () => {
    const y = drawn(Beside, {
      curves: [curve(1, 'J', [5.8, 5.5])],
      unit: '',
      xUnit: 'h',
      label: 'pH',
      height: 170,
      mark: 5.3,
    }).figure('.mark', 'y1');
    expect(y).toBeGreaterThan(10);
    expect(y).toBeLessThan(170 - 26);
  });
});
