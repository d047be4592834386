// Logging one weight: typed, perhaps asked about and weighed again, stored. A small state machine beside its markup.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { undo } from '../../api/undo';
import { head } from '../../api/entry';
import { When } from '../../forms/when.svelte';
import { session } from '../../shell/session.svelte';
import { typedAs, weightAsTyped } from '../../units/quantity';
import { words } from '../../words';

/** A piece as it is now; or null, it has to be asked for anew. */
export type Refresh = (answer: Schema['PieceOut'] | null) => void;

export class WeighEntry {
  text = $state('');
  busy = $state(false);
  /** Why the typed weight is asked about, until it is weighed again, kept, or typed anew. */
  question = $state<string | null>(null);
  /** What the scale showed before it was put on again: a second reading that agrees confirms both. */
  first = $state<number | null>(null);
  problem = $state<string | null>(null);
  readonly when = new When();

  constructor(
    private readonly piece: () => Schema['PieceCard'],
    private readonly refresh: Refresh,
  ) {}

  /** What is typed, in grams; null where it is no weight. */
  get grams(): number | null {
    return typedAs('mass', this.text);
  }

  retype(): void {
    this.question = null;
    this.problem = null;
  }

  /** Asked about, it is put on the scale again. */
  again(): void {
    this.first = this.grams;
    this.text = '';
    this.retype();
  }

  /** Another piece is on screen: nothing that was begun is its. */
  leave(text = ''): void {
    this.text = text;
    this.first = null;
    this.when.clear();
    this.retype();
  }

  async store(sure = false): Promise<boolean> {
    const gross_g = this.grams;
    if (gross_g === null) {
      this.problem = words.errors.noNumber;
      return false;
    }
    if (this.busy) return false;
    this.busy = true;
    this.problem = null;
    const sent = this.text;
    this.text = ''; // digits typed while it is sent are the next weight's
    const { id, tag } = this.piece();
    try {
      const answer = await take(
        api.POST('/api/pieces/{piece_id}/weighings', {
          params: { path: { piece_id: id } },
          body: { gross_g, first_g: this.first, ...head(this.when, sure) },
        }),
      );
      this.leave(this.text);
      this.refresh(null);
      session.say(words.piece.stored(tag, weightAsTyped(gross_g)), async () => {
        await undo(answer.made);
        this.refresh(null);
      });
      return true;
    } catch (error) {
      this.text = sent;
      if (error instanceof ProblemError && error.code === 'doubtful') this.question = error.message;
      else this.problem = error instanceof Error ? error.message : words.errors.unexpected(0);
      return false;
    } finally {
      this.busy = false;
    }
  }
}

export const strike = (weighing_id: number, reason: string): Promise<Schema['PieceOut']> =>
  take(
    api.POST('/api/weighings/{weighing_id}/strike', {
      params: { path: { weighing_id } },
      body: { reason, by: session.who },
    }),
  );

export const restore = (weighing_id: number): Promise<Schema['PieceOut']> =>
  take(
    api.POST('/api/weighings/{weighing_id}/restore', {
      params: { path: { weighing_id } },
      body: { by: session.who },
    }),
  );
