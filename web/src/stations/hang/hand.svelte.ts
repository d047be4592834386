// A piece in the hand: taken off its hook here, put on a free one here or in another place.
import { api, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
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

  /** Hang a piece on another hook, to be undone in one step; it stays in the hand when the hook is refused. */
  async put(piece: Carried, rod: Schema['RodOut'], hook: number, refresh: Refresh): Promise<void> {
    const params = { path: { piece_id: piece.id } };
    const { from } = piece;
    const move = (rod_id: number, at: number): Promise<Schema['PieceOut']> =>
      take(api.POST('/api/pieces/{piece_id}/move', { params, body: { rod_id, hook: at, ...head() } }));
    try {
      if (from === null) {
        const body = { rod_id: rod.id, hook, ...head() };
        const answer = await take(api.POST('/api/pieces/{piece_id}/hang-again', { params, body }));
        this.holds = null;
        refresh(answer);
        session.say(words.piece.hung(piece.tag));
        return;
      }
      const answer = await move(rod.id, hook);
      this.holds = null;
      refresh(answer);
      session.say(words.piece.moved(piece.tag, rod.number, hook), async () =>
        refresh(await move(from.rod_id, from.hook)),
      );
    } catch (error) {
      session.complain(error);
    }
  }
}

export const hand = new Hand();
