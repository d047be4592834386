// A weigh round: piece after piece; what is typed goes to the outbox of this device at once.
import { api, type Schema, take } from '../../api/client';
import { newUid } from '../../api/uid';
import { session } from '../../shell/session.svelte';
import { rightNow } from '../../units/format';
import { type Entry, Outbox, outbox } from './outbox.svelte';
import { fieldText, typedAs } from '../../units/quantity';

export type RoundPiece = Schema['RoundPiece'];

export class Round {
  index = $state(0);
  text = $state('');
  question = $state<'far' | 'tare' | 'unread' | null>(null);
  over = $state(false);

  constructor(
    readonly place: number,
    readonly pieces: RoundPiece[],
    private readonly box: Outbox = outbox,
    private readonly now: () => string = rightNow,
  ) {
    while (this.index < pieces.length && this.entries.some((e) => e.piece_id === pieces[this.index]?.id))
      this.index++;
    if (pieces.length > 0 && this.index >= pieces.length) this.over = true;
  }

  get entries(): Entry[] {
    return this.box.of(this.place);
  }
  get piece(): RoundPiece | null {
    return this.over ? null : (this.pieces[this.index] ?? null);
  }
  get waiting(): number {
    return this.entries.filter((e) => e.state === 'waiting').length;
  }
  get previous(): Entry | null {
    return this.entries.at(-1) ?? null;
  }

  typed(): void {
    this.question = null;
  }

  /** Enter: note what is typed and go on; nothing typed skips; a far weight is noted when it is entered twice. */
  enter(): void {
    const piece = this.piece;
    if (!piece) return;
    if (this.text.trim() === '') {
      this.skip();
      return;
    }
    const grams = typedAs('mass', this.text);
    if (grams === null || grams <= 0) {
      this.question = 'unread';
      return;
    }
    if (grams <= piece.tare_g) {
      this.question = 'tare';
      return;
    }
    const far = grams < piece.ask_low_g || grams > piece.ask_high_g;
    if (far && this.question !== 'far') {
      this.question = 'far';
      return;
    }
    this.box.add({
      uid: newUid(),
      place: this.place,
      piece_id: piece.id,
      tag: piece.tag,
      gross_g: grams,
      at: this.now(),
      by: session.who,
      confirmed: far,
      state: 'waiting',
      answer: null,
    });
    this.next();
  }

  skip(): void {
    this.next();
  }

  /** Back to the piece before; its weight of this round is taken back, struck through where it was stored already. */
  async back(): Promise<void> {
    if (this.index === 0) return;
    this.over = false;
    this.index = Math.min(this.index, this.pieces.length) - 1;
    this.text = '';
    this.question = null;
    const typed = this.previous;
    if (!typed || typed.piece_id !== this.pieces[this.index]?.id) return;
    await this.box.atRest();
    const last = this.previous; // as the server answered it
    if (!last) return;
    this.box.drop(last);
    this.text = fieldText('mass', last.gross_g);
    const stored = last.answer?.weighing_id;
    if (!stored) return;
    try {
      await take(
        api.POST('/api/weighings/{weighing_id}/strike', {
          params: { path: { weighing_id: stored } },
          body: { reason: 'taken back in the round', by: session.who },
        }),
      );
    } catch (error) {
      session.complain(error);
    }
  }

  end(): void {
    this.over = true;
    void this.box.send();
  }

  /** The round is put away; weights that still wait are sent from wherever the maker goes. */
  finish(): void {
    this.box.putAway(this.place);
  }

  private next(): void {
    this.text = '';
    this.question = null;
    this.index++;
    if (this.index >= this.pieces.length) this.over = true;
  }
}
