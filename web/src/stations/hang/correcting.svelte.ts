// Correcting what was declared of a piece: a number, a casing, or the moment it was hung; with a reason, on record.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { When } from '../../forms/when.svelte';
import { typedNumber } from '../../units/number';
import { fieldText, quantityOf, typedAs } from '../../units/quantity';
import { words } from '../../words';
import type { Refresh } from './weigh.svelte';

export type Field = Schema['CorrectionIn']['field'];
type Value = Schema['CorrectionIn']['value'];

/** What was declared, field by field, as it stands. */
export const declared = (piece: Schema['PieceOut']): Record<Field, Value> => ({
  hung_at: piece.card.hung_at,
  start_weight_g: piece.card.start_weight_g,
  tare_g: piece.card.tare_g,
  target_loss_percent: piece.card.target_loss_percent,
  diameter_mm: piece.diameter_mm,
  thickness_mm: piece.thickness_mm,
  length_mm: piece.declared_length_mm,
  casing: piece.casing,
  done_by: piece.card.done_by,
  done_days: piece.card.done_days,
  skin: yesNo(piece.skin),
  bone: yesNo(piece.bone),
});
const yesNo = (said: boolean | null): 'yes' | 'no' | null => (said === null ? null : said ? 'yes' : 'no');

/** Fields of which one of a few is chosen, with what can be chosen. */
export const chosen: Partial<Record<Field, Record<string, string>>> = {
  casing: words.casings,
  done_by: words.done.ways,
  skin: words.done.yesNo,
  bone: words.done.yesNo,
};

/** A number that was declared, in the units of the reader. */
export function declaredText(field: Field, value: number | string | null | undefined): string | null {
  const quantity = quantityOf(field);
  if (value == null || quantity === null || Number.isNaN(Number(value))) return value?.toString() ?? null;
  return fieldText(quantity, Number(value));
}

export class Correcting {
  field = $state<Field | null>(null);
  text = $state('');
  reason = $state('');
  problem = $state<string | null>(null);
  /** Whether what was asked about is so all the same. */
  question = $state<string | null>(null);
  /** The moment it was hung, where that is what was wrong. */
  readonly hung = new When();

  constructor(
    private readonly piece: () => Schema['PieceOut'],
    private readonly refresh: Refresh,
  ) {}

  begin(field: Field): void {
    this.field = this.field === field ? null : field;
    this.text =
      declaredText(field, declared(this.piece())[field]) ?? (chosen[field]?.unknown ? 'unknown' : '');
    this.reason = '';
    this.problem = this.question = null;
    this.hung.clear();
    this.hung.open = field === 'hung_at';
  }

  async send(sure = false): Promise<void> {
    if (this.field === null) return;
    try {
      const body = {
        field: this.field,
        value: this.value(this.field),
        reason: this.reason,
        ...head(null, sure),
      };
      const params = { path: { piece_id: this.piece().card.id } };
      this.refresh(await take(api.POST('/api/pieces/{piece_id}/correct', { params, body })));
      this.field = null;
      this.question = null;
    } catch (error) {
      const said = error instanceof Error ? error.message : words.errors.unexpected(0);
      if (error instanceof ProblemError && error.code === 'doubtful') this.question = said;
      else this.problem = said;
    }
  }

  private value(field: Field): Value {
    if (field === 'hung_at') {
      const at = this.hung.at;
      if (at === null) throw new ProblemError('when', words.declared.whenHung, 'value');
      return at;
    }
    if (chosen[field]) return this.text === 'unknown' ? null : (this.text as Value);
    const quantity = quantityOf(field);
    const number = quantity ? typedAs(quantity, this.text) : typedNumber(this.text);
    if (number === null && this.text.trim() !== '')
      throw new ProblemError('number', words.errors.noNumber, 'value');
    return number;
  }
}
