// A weigh round: piece after piece; each weight is kept on the device until the server has it.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { newUid } from '../../api/uid';
import { session } from '../../shell/session.svelte';
import { rightNow, typedNumber } from '../../units/format';

export type RoundPiece = Schema['RoundPiece'];
type Answer = Schema['EntryAnswer'];

export interface Entry {
  uid: string;
  piece_id: number;
  tag: string;
  gross_g: number;
  at: string;
  confirmed: boolean;
  state: 'waiting' | 'sent' | 'refused';
  answer: Answer | null;
}

const RETRY_MS = 5_000;

export class Round {
  index = $state(0);
  entries = $state<Entry[]>([]);
  text = $state('');
  question = $state<'far' | 'tare' | 'unread' | null>(null);
  over = $state(false);
  private sending: Promise<void> | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    readonly place: number,
    readonly pieces: RoundPiece[],
    private readonly now: () => string = rightNow,
    private readonly retryMs = RETRY_MS,
  ) {
    this.entries = kept(place);
    while (this.index < pieces.length && this.entries.some((e) => e.piece_id === pieces[this.index]?.id))
      this.index++;
    if (pieces.length > 0 && this.index >= pieces.length) this.over = true;
    if (this.waiting > 0) void this.send();
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
    const grams = typedNumber(this.text);
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
    this.entries.push({
      uid: newUid(),
      piece_id: piece.id,
      tag: piece.tag,
      gross_g: grams,
      at: this.now(),
      confirmed: far,
      state: 'waiting',
      answer: null,
    });
    this.keep();
    this.next();
    void this.send();
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
    const last = this.entries.at(-1);
    if (!last || last.piece_id !== this.pieces[this.index]?.id) return;
    await this.sending;
    this.entries.pop();
    this.keep();
    this.text = String(last.gross_g);
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
    void this.send();
  }

  /** Send what waits; without a connection it stays, and is tried again. */
  send(): Promise<void> {
    this.sending ??= this.sendAll().finally(() => {
      this.sending = null;
    });
    return this.sending;
  }

  /** The round is put away once everything is in. */
  finish(): void {
    clearTimeout(this.timer);
    if (this.waiting === 0) localStorage.removeItem(key(this.place));
  }

  private async sendAll(): Promise<void> {
    clearTimeout(this.timer);
    for (;;) {
      const waiting = this.entries.filter((e) => e.state === 'waiting').slice(0, 100);
      if (!waiting.length) return;
      try {
        const { answers } = await take(
          api.POST('/api/round', {
            body: {
              by: session.who,
              entries: waiting.map(({ uid, piece_id, gross_g, at, confirmed }) => ({
                uid,
                piece_id,
                gross_g,
                at,
                confirmed,
              })),
            },
          }),
        );
        for (const answer of answers) {
          const entry = this.entries.find((e) => e.uid === answer.uid);
          if (!entry) continue;
          entry.state = answer.outcome === 'refused' ? 'refused' : 'sent';
          entry.answer = answer;
        }
        this.keep();
      } catch (error) {
        if (!(error instanceof ProblemError && error.code === 'unreachable')) session.complain(error);
        this.timer = setTimeout(() => void this.send(), this.retryMs);
        return;
      }
    }
  }

  private next(): void {
    this.text = '';
    this.question = null;
    this.index++;
    if (this.index >= this.pieces.length) this.over = true;
  }

  private keep(): void {
    localStorage.setItem(key(this.place), JSON.stringify(this.entries));
  }
}

function key(place: number): string {
  return `zymon.round.${place}`;
}

/** What this device still holds of a round, from before a reload. */
export function kept(place: number): Entry[] {
  const text = localStorage.getItem(key(place));
  return text ? (JSON.parse(text) as Entry[]) : [];
}
