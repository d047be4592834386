// A piece in the hand: taken off its hook here, put on a free one here or in another place.
import { api, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { undo } from '../../api/undo';
import { When } from '../../forms/when.svelte';
import { session } from '../../shell/session.svelte';
import { words } from '../../words';

export interface Carried {
  id: number;
  tag: string;
  /** Whether it hangs until it is put elsewhere; else it is off its hook and is hung again. */
  hangs: boolean;
}

/** Told what the piece is now; null: look again. */
type Refresh = (answer: Schema['PieceOut'] | null) => void;

class Hand {
  holds = $state<Carried | null>(null);
  /** When it was hung elsewhere; now by default. */
  readonly when = new When();

  /** Hang a piece on another hook, to be undone in one step; it stays in the hand when the hook is refused. */
  async put(piece: Carried, rod: Schema['RodOut'], hook: number, refresh: Refresh): Promise<void> {
    const way = piece.hangs ? '/api/pieces/{piece_id}/move' : '/api/pieces/{piece_id}/hang-again';
    const params = { path: { piece_id: piece.id } };
    try {
      const answer = await take(
        api.POST(way, { params, body: { rod_id: rod.id, hook, ...head(this.when) } }),
      );
      this.holds = null;
      this.when.clear();
      refresh(answer);
      const said = piece.hangs ? words.piece.moved(piece.tag, rod.number, hook) : words.piece.hung(piece.tag);
      session.say(said, async () => {
        await undo(answer.made);
        refresh(null);
      });
    } catch (error) {
      session.complain(error);
    }
  }
}

export const hand = new Hand();
