// A piece on its way into the rest that never hung here: what it is, and how long it dried elsewhere.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { optionalAs } from '../../forms/typed';
import { When } from '../../forms/when.svelte';
import { typedNumber } from '../../units/number';
import { typedAs } from '../../units/quantity';
import { words } from '../../words';
import { USUAL } from '../hang/hangform.svelte';

type OutsideIn = Schema['OutsideIn'];

export class OutsideForm {
  product = $state('');
  tag = $state('');
  lot = $state('');
  kind = $state<OutsideIn['kind']>('whole_muscle');
  shape = $state<OutsideIn['shape']>(USUAL.whole_muscle.shape);
  across = $state('');
  weeks = $state('');
  start = $state('');
  gross = $state('');
  bag = $state<string | null>('vacuum');
  place = $state(0);
  note = $state('');
  problem = $state<string | null>(null);
  question = $state<string | null>(null);
  busy = $state(false);
  readonly when = new When();

  takeKind(): void {
    this.shape = USUAL[this.kind].shape;
  }

  /** The entry as it is sent; null where something is missing. Throws a ProblemError for what is no number. */
  body(): OutsideIn | null {
    const [across_mm, hung_weeks] = [typedAs('length', this.across), typedNumber(this.weeks)];
    const product = this.product.trim();
    if (!product || across_mm === null || hung_weeks === null) return null;
    const tag = this.tag.trim() || product.slice(0, 40);
    return {
      ...head(this.when, this.question !== null),
      tag,
      batch_code: this.lot.trim() || tag,
      product,
      kind: this.kind,
      shape: this.shape,
      casing: USUAL[this.kind].casing,
      across_mm,
      hung_weeks,
      start_weight_g: optionalAs('mass', this.start),
      gross_g: optionalAs('mass', this.gross),
      bag: (this.bag ?? 'unknown') as OutsideIn['bag'],
      place_id: this.place || null,
      note: this.note,
    };
  }

  async go(): Promise<Schema['RestDetail'] | null> {
    if (this.busy) return null;
    this.busy = true;
    try {
      const body = this.body();
      this.problem = body === null ? words.rest.outside.missing : null;
      if (body === null) return null;
      return await take(api.POST('/api/rest/outside', { body }));
    } catch (error) {
      if (error instanceof ProblemError && error.code === 'doubtful') this.question = error.message;
      else this.problem = error instanceof Error ? error.message : words.errors.unexpected(0);
      return null;
    } finally {
      this.busy = false;
    }
  }
}
