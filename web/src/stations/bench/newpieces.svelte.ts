// Pieces as they are made: what is typed or pasted of each, and what holds for all of them.
import { api, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { optionalAs, tareParts } from '../../forms/typed';
import { When } from '../../forms/when.svelte';
import { words } from '../../words';

type Batch = Schema['BatchOut'];
type Made = Schema['MadePieceIn'];
/** What differs from piece to piece, as typed. */
export type PieceTyped = Partial<Record<'tag' | 'gross' | 'across' | 'length' | 'raw' | 'cured', string>>;

export class NewPieces {
  one = $state<Required<PieceTyped>>({ tag: '', gross: '', across: '', length: '', raw: '', cured: '' });
  mix = $state(0); // 0: of the first
  casing = $state<Batch['casing']>() as Batch['casing']; // another one for some of its pieces
  readonly tare = $state({ casing: '', net: '', string: '', coat: '' });
  readonly when = new When();
  problem = $state<string | null>(null);
  busy = $state(false);

  constructor(
    private readonly batch: () => Batch,
    casing: Batch['casing'],
  ) {
    this.casing = casing;
  }

  get plan(): NonNullable<Batch['sheet']>['plan'] {
    return (this.batch().sheet as NonNullable<Batch['sheet']>).plan; // only a batch with a sheet is tagged here
  }
  get byWeight(): boolean {
    return (this.plan.done_by ?? 'weight') === 'weight';
  }

  /** A piece as it is sent. Throws a ProblemError for what is no number. */
  private bodyOf(typed: PieceTyped): Made {
    const flat = this.plan.shape === 'slab';
    const size = optionalAs('length', typed.across ?? '', 'across');
    return {
      tag: typed.tag?.trim() || null,
      mix_id: this.mix || null,
      gross_g: optionalAs('mass', typed.gross ?? ''),
      ...tareParts(this.tare),
      raw_g: optionalAs('mass', typed.raw ?? ''),
      cured_g: optionalAs('mass', typed.cured ?? ''),
      diameter_mm: flat ? null : size,
      thickness_mm: flat ? size : null,
      length_mm: optionalAs('length', typed.length ?? ''),
      casing: this.casing,
      target_loss_percent: this.byWeight ? this.plan.target_loss_percent : null,
      loss_basis: this.plan.loss_basis ?? 'hung',
    };
  }

  /** What is wrong with a piece as typed, or null. */
  fault(typed: PieceTyped): string | null {
    if (this.byWeight && !typed.gross?.trim()) return words.errors.noNumber;
    try {
      this.bodyOf(typed);
      return null;
    } catch (error) {
      return error instanceof Error ? error.message : words.errors.unexpected(0);
    }
  }

  private async send(pieces: Made[]): Promise<Batch> {
    return take(
      api.POST('/api/batches/{batch_id}/pieces', {
        params: { path: { batch_id: this.batch().id } },
        body: { ...head(this.when), pieces },
      }),
    );
  }

  /** Tag several at once, all or none; null and a problem where that is refused. */
  async addAll(rows: PieceTyped[]): Promise<Batch | null> {
    if (this.busy) return null; // Enter struck twice is one piece
    this.busy = true;
    try {
      const answer = await this.send(rows.map((row) => this.bodyOf(row)));
      this.problem = null;
      return answer;
    } catch (error) {
      this.problem = error instanceof Error ? error.message : words.errors.unexpected(0);
      return null;
    } finally {
      this.busy = false;
    }
  }

  /** Tag what is typed; its fields are free for the next one at once, and filled again where it is refused. */
  async add(): Promise<Batch | null> {
    if (this.busy) return null;
    this.problem = this.fault(this.one);
    if (this.problem !== null) return null;
    const typed = { ...this.one };
    Object.assign(this.one, { gross: '', tag: '', raw: '', cured: '' });
    const answer = await this.addAll([typed]);
    if (!answer) Object.assign(this.one, typed);
    return answer;
  }
}
