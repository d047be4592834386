// A cut face on its way into the record: what is tapped and where, what becomes of the piece, its weights.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { When } from '../../forms/when.svelte';
import { typedAs } from '../../units/quantity';
import { words } from '../../words';

export type Spot = Schema['Mark']['what'];
export type Ends = NonNullable<Schema['CutIn']['ends']>;
export type Verdict = Schema['CutIn']['verdict'];
export const SPOTS: readonly Spot[] = [
  'ring',
  'soft',
  'grey',
  'brown',
  'holes',
  'smear',
  'loose',
  'yellow',
  'mould',
];
const WIDE_SHARE = 0.15; // of the half thickness, as the server has it; it only picks the word that is sent

export class CutForm {
  marks = $state<Schema['Mark'][]>([]);
  /** What is tapped as seen, with or without a place. */
  seen = $state<Partial<Record<Spot, boolean>>>({});
  pen = $state<Spot | null>(null);
  ringMm = $state<number | null>(null);
  rim = $state<string | null>(null);
  core = $state<string | null>(null);
  smell = $state<string | null>(null);
  salt = $state<string | null>(null);
  taste = $state<string[]>([]);
  even = $state(false);
  ends = $state<Ends>('cut');
  weight = $state('');
  notWeighed = $state(false);
  before = $state('');
  after = $state('');
  verdict = $state<Verdict>('good');
  note = $state('');
  problem = $state<string | null>(null);
  question = $state<string | null>(null);
  busy = $state(false);
  readonly when = new When();

  constructor(
    private readonly piece: {
      piece_id: number;
      state: string;
      across_mm: number;
      weighed_when_hung: boolean;
    },
  ) {}

  get halfMm(): number {
    return this.piece.across_mm / 2;
  }
  get hangs(): boolean {
    return this.piece.state === 'hanging';
  }
  /** Whether it may still go on, as it is not cut up yet. */
  get open(): boolean {
    return ['hanging', 'down', 'resting'].includes(this.piece.state);
  }
  /** What smells off is not tasted. */
  get tasted(): boolean {
    return this.smell !== 'off';
  }

  /** A sign is picked up: it counts as seen, and the next tap on the face says where; picked again it is taken back. */
  pick(spot: Spot): void {
    if (this.seen[spot] && this.pen !== spot && spot !== 'ring') {
      this.pen = spot;
      return;
    }
    if (this.seen[spot]) {
      this.seen = { ...this.seen, [spot]: false };
      this.marks = this.marks.filter((mark) => mark.what !== spot);
      if (spot === 'ring') this.ringMm = null;
      this.pen = null;
      return;
    }
    this.seen = { ...this.seen, [spot]: true };
    this.even = false;
    this.pen = spot;
  }

  /** A tap on the face, from −1 to 1 across and down. `depth`: from the rim inwards, share of the half thickness. */
  touch(x: number, y: number, depth: number): void {
    if (this.pen === null) return;
    if (this.pen === 'ring') {
      this.ringMm = Math.max(0.5, Math.round(depth * this.halfMm * 2) / 2);
      return;
    }
    if (this.marks.length < 40) this.marks = [...this.marks, { what: this.pen, x: round(x), y: round(y) }];
  }

  nothing(): void {
    this.even = !this.even;
    if (!this.even) return;
    [this.seen, this.marks, this.ringMm, this.pen] = [{}, [], null, null];
  }

  flip(taste: string): void {
    if (this.taste.includes(taste)) this.taste = this.taste.filter((t) => t !== taste);
    else this.taste = taste === 'clean' ? ['clean'] : [...this.taste.filter((t) => t !== 'clean'), taste];
  }

  get face(): Schema['CutFace'] {
    const seen = this.seen;
    const wide = this.ringMm !== null && this.ringMm >= WIDE_SHARE * this.halfMm;
    return {
      ring: seen.ring ? (wide ? 'wide' : 'thin') : this.even ? 'none' : null,
      ring_mm: seen.ring ? this.ringMm : null,
      colour: seen.grey ? 'grey' : seen.brown ? 'brown' : this.even ? 'even' : null,
      firm_rim: this.rim as Schema['CutFace']['firm_rim'],
      firm_core: this.core as Schema['CutFace']['firm_core'],
      smell: this.smell as Schema['CutFace']['smell'],
      salt: (this.tasted ? this.salt : null) as Schema['CutFace']['salt'],
      taste: (this.tasted ? this.taste : []) as Schema['CutFace']['taste'],
      holes: !!seen.holes,
      smear: !!seen.smear,
      loose: !!seen.loose,
      yellow_fat: !!seen.yellow,
      mould_inside: !!seen.mould,
      salt_spots: false,
      marks: [
        ...this.marks,
        ...(seen.soft && !this.marks.some((m) => m.what === 'soft')
          ? [{ what: 'soft' as const, x: 0, y: 0 }]
          : []),
      ],
    };
  }

  get body(): Schema['CutIn'] {
    const slice = this.open && this.ends === 'goes_on';
    return {
      ...head(this.when, this.question !== null),
      face: this.face,
      ends: this.open ? this.ends : null,
      gross_g: slice ? null : typedAs('mass', this.weight),
      not_weighed: this.notWeighed,
      before_g: slice ? typedAs('mass', this.before) : null,
      after_g: slice ? typedAs('mass', this.after) : null,
      verdict: this.verdict,
      note: this.note,
    };
  }

  /** The piece as it is then, or null where something is asked or missing. */
  async go(): Promise<Schema['UnderTheKnife'] | null> {
    if (this.busy) return null;
    this.problem = null;
    if (
      [this.weight, this.before, this.after].some((text) => text.trim() && typedAs('mass', text) === null)
    ) {
      this.problem = words.errors.noNumber;
      return null;
    }
    this.busy = true;
    try {
      return await take(
        api.POST('/api/pieces/{piece_id}/cut', {
          params: { path: { piece_id: this.piece.piece_id } },
          body: this.body,
        }),
      );
    } catch (error) {
      if (error instanceof ProblemError && error.code === 'doubtful') this.question = error.message;
      else this.problem = error instanceof Error ? error.message : words.errors.unexpected(0);
      return null;
    } finally {
      this.busy = false;
    }
  }
}

const round = (v: number): number => Math.round(Math.max(-1, Math.min(1, v)) * 100) / 100;
