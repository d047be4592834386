// A piece in the hand: taken off its hook here, put on a free one here or in another place.
import { api, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { When } from '../../forms/when.svelte';
import { session } from '../../shell/session.svelte';
import { words } from '../../words/en';

export interface Carried {
  id: number;
  tag: string;
  /** Where it hangs until it is put elsewhere; null for one that is off its hook and is hung again. */
  from: { rod_id: number; hook: number } | null;
}

type Refresh = (answer: Schema['PieceOut']) => void;

class Hand {
  holds = $state<Carried | null>(null);
  /** When it was hung elsewhere; now by default. */
  readonly when = new When();

  /** Hang a piece on another hook, to be undone in one step; it stays in the hand when the hook is refused. */
  async put(piece: Carried, rod: Schema['RodOut'], hook: number, refresh: Refresh): Promise<void> {
    const params = { path: { piece_id: piece.id } };
    const { from } = piece;
    const move = (rod_id: number, at: number, when: When | null): Promise<Schema['PieceOut']> =>
      take(api.POST('/api/pieces/{piece_id}/move', { params, body: { rod_id, hook: at, ...head(when) } }));
    try {
      if (from === null) {
        const body = { rod_id: rod.id, hook, ...head(this.when) };
        const answer = await take(api.POST('/api/pieces/{piece_id}/hang-again', { params, body }));
        this.putDown();
        refresh(answer);
        session.say(words.piece.hung(piece.tag));
        return;
      }
      const answer = await move(rod.id, hook, this.when);
      this.putDown();
      refresh(answer);
      session.say(words.piece.moved(piece.tag, rod.number, hook), async () =>
        refresh(await move(from.rod_id, from.hook, null)),
      );
    } catch (error) {
      session.complain(error);
    }
  }

  private putDown(): void {
    this.holds = null;
    this.when.clear();
  }
}

export const hand = new Hand();
