// A piece on its way into packs: how many, how heavy, how wrapped, where kept, for how long by the maker's own period.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { When } from '../../forms/when.svelte';
import { typedNumber } from '../../units/number';
import { typedAs } from '../../units/quantity';
import { words } from '../../words';

export class PackForm {
  number = $state('1');
  net = $state('');
  form = $state<string | null>('piece');
  wrap = $state<string | null>('vacuum');
  keepAt = $state<string | null>('fridge');
  period = $state('');
  /** Whether the period was typed; until then it follows what was given last. */
  typed = $state(false);
  ingredients = $state('');
  place = $state(0);
  note = $state('');
  problem = $state<string | null>(null);
  question = $state<string | null>(null);
  busy = $state(false);
  readonly when = new When();

  constructor(
    private readonly piece: Pick<Schema['PackingOut'], 'piece_id' | 'periods' | 'has_ingredients'>,
  ) {
    this.followPeriod();
  }

  /** The maker's own period as it was given last for such packs. */
  followPeriod(): void {
    if (this.typed) return;
    const last = this.piece.periods.find((p) => p.wrap === this.wrap && p.keep_at === this.keepAt);
    this.period = last ? String(last.period_days) : '';
  }

  /** Grams that all of them weigh; null where a number is missing. */
  get total(): number | null {
    const [number, net] = [typedNumber(this.number), typedAs('mass', this.net)];
    return number === null || net === null ? null : number * net;
  }

  async go(): Promise<Schema['PackingOut'] | null> {
    const [number, net_g] = [typedNumber(this.number), typedAs('mass', this.net)];
    const period = this.period.trim() ? typedNumber(this.period) : null;
    this.problem = null;
    if (number === null || net_g === null || (this.period.trim() && period === null)) {
      this.problem = words.errors.noNumber;
      return null;
    }
    if (this.busy) return null;
    this.busy = true;
    try {
      return await take(
        api.POST('/api/pieces/{piece_id}/packs', {
          params: { path: { piece_id: this.piece.piece_id } },
          body: {
            ...head(this.when, this.question !== null),
            number,
            net_g,
            form: this.form as Schema['PackIn']['form'],
            wrap: this.wrap as Schema['PackIn']['wrap'],
            keep_at: this.keepAt as Schema['PackIn']['keep_at'],
            place_id: this.place || null,
            period_days: period,
            ingredients: this.ingredients.trim() || null,
            note: this.note,
          },
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
