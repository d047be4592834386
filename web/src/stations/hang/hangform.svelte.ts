// The form that hangs a piece: what is typed, what follows from it, and what the tag would say.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { optionalAs, optionalNumber } from '../../forms/typed';
import { When } from '../../forms/when.svelte';
import { fieldText } from '../../units/quantity';
import { words } from '../../words';
import { nextTag } from './neighbours';

type PieceIn = Schema['PieceIn'];
/** What nobody need say. */
type Said = 'unknown' | 'yes' | 'no';
const saidSo = (said: Said): boolean | null => (said === 'unknown' ? null : said === 'yes');

/** What a kind usually is; a start, not a rule. */
export const USUAL: Record<
  PieceIn['kind'],
  { shape: PieceIn['shape']; casing: PieceIn['casing']; loss: string }
> = {
  salame: { shape: 'cylinder', casing: 'natural', loss: '35' },
  thin_sausage: { shape: 'cylinder', casing: 'natural', loss: '40' },
  whole_muscle: { shape: 'irregular', casing: 'natural', loss: '36' },
  belly: { shape: 'slab', casing: 'none', loss: '28' },
  breast: { shape: 'slab', casing: 'none', loss: '30' },
  ham: { shape: 'irregular', casing: 'cloth', loss: '35' },
  coated: { shape: 'cylinder', casing: 'coating', loss: '30' },
};

export class HangForm {
  product = $state('');
  kind = $state<PieceIn['kind']>('salame');
  shape = $state<PieceIn['shape']>('cylinder');
  casing = $state<PieceIn['casing']>('natural');
  batch = $state('');
  tag = $state('');
  start = $state('');
  doneBy = $state<PieceIn['done_by']>('weight');
  days = $state('');
  use = $state<NonNullable<PieceIn['use']>>('raw');
  skin = $state<Said>('unknown');
  bone = $state<Said>('unknown');
  tare = $state('0');
  loss = $state('35');
  diameter = $state('');
  thickness = $state('');
  length = $state('');
  fat = $state('');
  salt = $state('');
  readonly when = new When();
  rodId = $state(0);
  hook = $state(0);

  preview = $state<Schema['TagPreview'] | null>(null);
  problem = $state<ProblemError | null>(null);
  busy = $state(false);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private asked = 0;

  constructor(private readonly placeId: number) {}

  takeKind(): void {
    const usual = USUAL[this.kind];
    this.shape = usual.shape;
    this.casing = usual.casing;
    this.loss = usual.loss;
    this.changed();
  }

  /** Start from a piece of the same batch: what was measured for one mostly holds for the next. */
  like(
    card: Schema['PieceCard'],
    detail: Schema['PieceOut'] | undefined,
    pieces: readonly { tag: string }[],
  ): void {
    this.product = card.product;
    this.kind = card.kind;
    this.shape = card.shape;
    this.batch = card.batch;
    this.tag = nextTag(card.batch, pieces);
    this.loss = String(card.target_loss_percent ?? card.aim_percent);
    this.doneBy = card.target_loss_percent === null && card.done_by === 'weight' ? 'feel' : card.done_by;
    this.days = card.done_days === null ? '' : String(card.done_days);
    this.tare = fieldText('mass', card.tare_g);
    if (detail) {
      this.casing = detail.casing;
      this.fat = detail.fat_percent === null ? '' : String(detail.fat_percent);
      this.salt = detail.salt_percent === null ? '' : String(detail.salt_percent);
    }
  }

  /** Take a piece that was tagged at the Bench. */
  takeWaiting(made: Schema['WaitingPiece']): void {
    const text = (value: number | null): string => (value === null ? '' : String(value));
    this.product = made.product;
    this.kind = made.kind;
    this.shape = made.shape;
    this.casing = made.casing;
    this.batch = made.batch;
    this.tag = made.tag;
    this.start = fieldText('mass', made.gross_g);
    this.tare = fieldText('mass', made.tare_g);
    this.doneBy = made.target_loss_percent === null ? 'feel' : 'weight';
    if (made.target_loss_percent !== null) this.loss = text(made.target_loss_percent);
    this.diameter = fieldText('length', made.diameter_mm);
    this.thickness = fieldText('length', made.thickness_mm);
    this.length = fieldText('length', made.length_mm);
    this.fat = text(made.fat_percent);
    this.salt = text(made.salt_percent);
    this.changed();
  }

  /** What is typed; null while what says that it is done is missing. Throws a ProblemError for what is no number. */
  body(): PieceIn | null {
    const start = optionalAs('mass', this.start, 'start_weight_g');
    const byWeight = this.doneBy === 'weight';
    const loss = byWeight ? optionalNumber(this.loss, 'target_loss_percent') : null;
    const days = this.doneBy === 'days' ? optionalNumber(this.days, 'done_days') : null;
    if ((byWeight && (start === null || loss === null)) || (this.doneBy === 'days' && days === null))
      return null;
    return {
      tag: this.tag || 'new',
      batch_code: this.batch || 'new',
      product: this.product || words.kinds[this.kind],
      kind: this.kind,
      shape: this.shape,
      casing: this.casing,
      fat_percent: optionalNumber(this.fat, 'fat_percent'),
      salt_percent: optionalNumber(this.salt, 'salt_percent'),
      diameter_mm: this.shape === 'slab' ? null : optionalAs('length', this.diameter, 'diameter_mm'),
      thickness_mm: this.shape === 'slab' ? optionalAs('length', this.thickness, 'thickness_mm') : null,
      length_mm: optionalAs('length', this.length, 'length_mm'),
      start_weight_g: start,
      tare_g: optionalAs('mass', this.tare, 'tare_g') ?? 0,
      target_loss_percent: loss,
      done_by: this.doneBy,
      done_days: days,
      use: this.use,
      skin: saidSo(this.skin),
      bone: saidSo(this.bone),
      rod_id: this.rodId,
      hook: this.hook,
      ...head(this.when),
    };
  }

  /** Ask, shortly after the last keystroke, what the tag would say. */
  changed(): void {
    this.problem = null;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.ask(), 180);
  }

  private async ask(): Promise<void> {
    const turn = ++this.asked;
    try {
      const body = this.body();
      if (!body || !body.rod_id) {
        this.preview = null;
        return;
      }
      const answer = await take(
        api.POST('/api/places/{place_id}/tag', { params: { path: { place_id: this.placeId } }, body }),
      );
      if (turn === this.asked) this.preview = answer;
    } catch (error) {
      if (turn !== this.asked) return;
      this.preview = null;
      this.problem = error instanceof ProblemError ? error : null;
    }
  }

  /** Hang it; null where it was refused or asked about, which `problem` tells. `sure`: what was asked is answered. */
  async hang(sure = false): Promise<Schema['PieceOut'] | null> {
    this.busy = true;
    this.asked++;
    clearTimeout(this.timer);
    try {
      const body = this.body();
      if (!body) throw new ProblemError('invalid', words.errors.noNumber, 'start_weight_g');
      return await take(
        api.POST('/api/pieces', { body: { ...body, tag: this.tag, batch_code: this.batch, sure } }),
      );
    } catch (error) {
      this.problem = error instanceof ProblemError ? error : new ProblemError('error', String(error));
      return null;
    } finally {
      this.busy = false;
    }
  }
}
