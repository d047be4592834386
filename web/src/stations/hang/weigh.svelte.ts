// Logging one weight: typed, perhaps asked about, stored. A small state machine beside its markup.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { session } from '../../shell/session.svelte';
import { grams, typedNumber } from '../../units/format';
import { words } from '../../words/en';

export type Refresh = (answer: Schema['PieceOut']) => void;

export class WeighEntry {
  text = $state('');
  busy = $state(false);
  /** Why the typed weight is asked about, until it is kept or typed anew. */
  question = $state<string | null>(null);
  problem = $state<string | null>(null);

  constructor(
    private readonly piece: () => Schema['PieceCard'],
    private readonly refresh: Refresh,
  ) {}

  retype(): void {
    this.question = null;
    this.problem = null;
  }

  async store(confirmed = false): Promise<boolean> {
    const gross_g = typedNumber(this.text);
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
          body: { gross_g, confirmed, by: session.who },
        }),
      );
      this.question = null;
      this.refresh(answer);
      const entered = answer.weighings.reduce((a, b) => (a.id > b.id ? a : b));
      session.say(words.piece.stored(tag, grams(gross_g)), async () => {
        this.refresh(await strike(entered.id, 'undone at once'));
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
