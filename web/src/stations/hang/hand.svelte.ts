// A piece in the hand: taken off its hook here, put on a free one here or in another place.
import { api, type Schema, take } from '../../api/client';
import { session } from '../../shell/session.svelte';
import { words } from '../../words/en';

export interface Carried {
  id: number;
  tag: string;
  /** Where it hangs until it is put elsewhere. */
  from: { rod_id: number; hook: number };
}

type Refresh = (answer: Schema['PieceOut']) => void;

class Hand {
  holds = $state<Carried | null>(null);

  /** Hang a piece on another hook, to be undone in one step; it stays in the hand when the hook is refused. */
  async put(piece: Carried, rod: Schema['RodOut'], hook: number, refresh: Refresh): Promise<void> {
    const hang = (rod_id: number, at: number): Promise<Schema['PieceOut']> =>
      take(
        api.POST('/api/pieces/{piece_id}/move', {
          params: { path: { piece_id: piece.id } },
          body: { rod_id, hook: at, by: session.who },
        }),
      );
    try {
      const answer = await hang(rod.id, hook);
      this.holds = null;
      refresh(answer);
      session.say(words.piece.moved(piece.tag, rod.number, hook), async () =>
        refresh(await hang(piece.from.rod_id, piece.from.hook)),
      );
    } catch (error) {
      session.complain(error);
    }
  }
}

export const hand = new Hand();
