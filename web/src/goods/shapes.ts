// Outlines of the goods as SVG paths, hanging from (0, 0) downwards, from real measures. Drawn by us, in mm.
import type { Schema } from '../api/client';

type Kind = Schema['PieceCard']['kind'];
export type Figure = 'salame' | 'links' | 'neck' | 'round' | 'leg' | 'belly' | 'breast';

export function figureOf(kind: Kind, shape: Schema['PieceCard']['shape']): Figure {
  if (kind === 'thin_sausage') return 'links';
  if (kind === 'breast') return 'breast';
  if (kind === 'ham') return 'leg';
  if (kind === 'belly') return shape === 'cylinder' ? 'round' : 'belly';
  if (kind === 'salame') return 'salame';
  if (shape === 'slab') return 'belly';
  return shape === 'irregular' ? 'neck' : 'round';
}

const n = (value: number): string => value.toFixed(1);

/** Box that the figure takes up, width and height in mm. A link hangs doubled over its string. */
export function boxOf(figure: Figure, length: number, width: number): { width: number; height: number } {
  return figure === 'links' ? { width: width * 3.4, height: length / 2 } : { width, height: length };
}

/** The outline; `girth` shrinks the width (and a little of the length), the top stays on the string. */
export function outline(figure: Figure, length: number, width: number, girth: number): string {
  const w = width * girth;
  const l = length * (1 - (1 - girth) * 0.22);
  const h = w / 2;
  switch (figure) {
    case 'salame':
      return `M0 0C${n(h * 0.75)} 0 ${n(h)} ${n(h * 0.55)} ${n(h)} ${n(h * 1.1)}L${n(h * 0.97)} ${n(l - h * 1.1)}C${n(h * 0.97)} ${n(l - h * 0.4)} ${n(h * 0.6)} ${n(l)} 0 ${n(l)}S${n(-h * 0.97)} ${n(l - h * 0.4)} ${n(-h * 0.97)} ${n(l - h * 1.1)}L${n(-h)} ${n(h * 1.1)}C${n(-h)} ${n(h * 0.55)} ${n(-h * 0.75)} 0 0 0Z`;
    case 'round':
      return `M0 0C${n(h * 0.9)} ${n(l * 0.01)} ${n(h * 1.03)} ${n(l * 0.12)} ${n(h)} ${n(l * 0.34)}C${n(h * 1.02)} ${n(l * 0.6)} ${n(h * 0.98)} ${n(l * 0.82)} ${n(h * 0.86)} ${n(l * 0.92)}C${n(h * 0.66)} ${n(l * 1.01)} ${n(-h * 0.66)} ${n(l * 1.01)} ${n(-h * 0.86)} ${n(l * 0.92)}C${n(-h * 0.98)} ${n(l * 0.82)} ${n(-h * 1.02)} ${n(l * 0.6)} ${n(-h)} ${n(l * 0.34)}C${n(-h * 1.03)} ${n(l * 0.12)} ${n(-h * 0.9)} ${n(l * 0.01)} 0 0Z`;
    case 'neck':
      return `M0 0C${n(h * 0.34)} ${n(l * 0.02)} ${n(h * 0.62)} ${n(l * 0.2)} ${n(h * 0.82)} ${n(l * 0.42)}C${n(h * 1.12)} ${n(l * 0.72)} ${n(h * 0.88)} ${n(l)} 0 ${n(l)}C${n(-h * 0.86)} ${n(l)} ${n(-h * 1.14)} ${n(l * 0.7)} ${n(-h * 0.8)} ${n(l * 0.4)}C${n(-h * 0.6)} ${n(l * 0.2)} ${n(-h * 0.34)} ${n(l * 0.02)} 0 0Z`;
    case 'leg':
      return `M${n(-h * 0.16)} 0L${n(h * 0.2)} 0C${n(h * 0.26)} ${n(l * 0.2)} ${n(h * 0.5)} ${n(l * 0.26)} ${n(h * 0.86)} ${n(l * 0.48)}C${n(h * 1.16)} ${n(l * 0.7)} ${n(h * 0.96)} ${n(l * 0.97)} ${n(h * 0.1)} ${n(l)}C${n(-h * 0.8)} ${n(l * 1.01)} ${n(-h * 1.05)} ${n(l * 0.8)} ${n(-h * 0.9)} ${n(l * 0.56)}C${n(-h * 0.74)} ${n(l * 0.36)} ${n(-h * 0.3)} ${n(l * 0.26)} ${n(-h * 0.16)} 0Z`;
    case 'belly':
      return `M${n(-h * 0.97)} ${n(l * 0.015)}L${n(h * 0.98)} 0L${n(h)} ${n(l * 0.5)}L${n(h * 0.95)} ${n(l)}L${n(-h * 0.93)} ${n(l * 0.985)}L${n(-h)} ${n(l * 0.55)}Z`;
    case 'breast':
      return `M0 0C${n(h * 0.7)} ${n(l * 0.02)} ${n(h * 1.05)} ${n(l * 0.22)} ${n(h)} ${n(l * 0.45)}C${n(h * 0.94)} ${n(l * 0.75)} ${n(h * 0.5)} ${n(l * 0.93)} ${n(h * 0.1)} ${n(l)}C${n(-h * 0.55)} ${n(l * 0.93)} ${n(-h * 1.02)} ${n(l * 0.68)} ${n(-h)} ${n(l * 0.4)}C${n(-h * 0.96)} ${n(l * 0.15)} ${n(-h * 0.6)} ${n(l * 0.01)} 0 0Z`;
    case 'links': {
      const limb = l / 2;
      const gap = width * 0.7;
      const outer = gap / 2 + w;
      const inner = gap / 2;
      const top = Math.max(outer, 4);
      return `M${n(-outer)} ${n(limb - h)}L${n(-outer)} ${n(top)}C${n(-outer)} ${n(-top * 0.2)} ${n(outer)} ${n(-top * 0.2)} ${n(outer)} ${n(top)}L${n(outer)} ${n(limb - h)}A${n(h)} ${n(h)} 0 0 1 ${n(inner)} ${n(limb - h)}L${n(inner)} ${n(top + w * 0.3)}C${n(inner)} ${n(top * 0.72)} ${n(-inner)} ${n(top * 0.72)} ${n(-inner)} ${n(top + w * 0.3)}L${n(-inner)} ${n(limb - h)}A${n(h)} ${n(h)} 0 0 1 ${n(-outer)} ${n(limb - h)}Z`;
    }
  }
}
