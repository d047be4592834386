// Weights of weigh rounds on this device: each kept under a name of its own until the server has it, whatever page is
// open, and sent as soon as there is a connection.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { door } from '../../shell/door.svelte';
import { session } from '../../shell/session.svelte';
import { rightNow } from '../../units/format';
import { words } from '../../words';

export interface Entry {
  uid: string;
  place: number;
  piece_id: number;
  tag: string;
  gross_g: number;
  at: string;
  by: string;
  confirmed: boolean;
  state: 'waiting' | 'sent' | 'refused';
  answer: Schema['EntryAnswer'] | null;
}

const NAME = 'zymon.weight.';
const RETRY_MS = 5_000;
const AT_ONCE = 100;
/** A round that was left is taken up again for this long; later its weights that are in are a round of the past. */
const ROUND_HOURS = 12;

export class Outbox {
  entries = $state<Entry[]>([]);
  /** The last try found no connection. */
  cut = $state(false);
  private sending: Promise<void> | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly retryMs = RETRY_MS,
    now: number = Date.now(),
  ) {
    this.entries = stored();
    for (const entry of this.entries)
      if (entry.state === 'sent' && now - Date.parse(entry.at) > ROUND_HOURS * 3_600_000) this.drop(entry);
    if (this.waiting.length) void this.send();
  }

  get waiting(): Entry[] {
    return this.entries.filter((entry) => entry.state === 'waiting');
  }

  of(place: number): Entry[] {
    return this.entries.filter((entry) => entry.place === place);
  }

  add(entry: Entry): void {
    if (!keep(entry)) session.complain(new ProblemError('full', words.round.full(entry.tag)));
    this.entries.push(entry);
    void this.send();
  }

  /** Once nothing is on its way to the server. */
  async atRest(): Promise<void> {
    await this.sending;
  }

  /** Take an entry out; one that may be on its way is waited for first, or the server has it all the same. */
  drop(entry: Entry): void {
    localStorage.removeItem(NAME + entry.uid);
    this.entries = this.entries.filter((one) => one.uid !== entry.uid);
  }

  /** Put the round of a place away; what waits still goes on waiting. */
  putAway(place: number): void {
    for (const entry of this.of(place)) if (entry.state !== 'waiting') this.drop(entry);
  }

  /** Send what waits; without a connection it stays, and is tried again. */
  send(): Promise<void> {
    this.sending ??= this.sendAll().finally(() => {
      this.sending = null;
    });
    return this.sending;
  }

  private async sendAll(): Promise<void> {
    clearTimeout(this.timer);
    for (;;) {
      // under whoever typed it: what somebody else typed waits until they are here
      const by = this.waiting.find((entry) => door.sendsFor(entry.by))?.by;
      if (by === undefined) return;
      const batch = this.waiting.filter((entry) => entry.by === by).slice(0, AT_ONCE);
      try {
        const { answers } = await take(
          api.POST('/api/round', {
            body: {
              by,
              typed_by: by,
              sent_at: rightNow(),
              entries: batch.map(({ uid, piece_id, gross_g, at, confirmed }) => ({
                uid,
                piece_id,
                gross_g,
                at,
                confirmed,
              })),
            },
          }),
        );
        this.cut = false;
        for (const answer of answers) {
          const entry = this.entries.find((one) => one.uid === answer.uid);
          if (!entry) continue;
          entry.state = answer.outcome === 'refused' ? 'refused' : 'sent';
          entry.answer = answer;
          keep(entry);
        }
      } catch (error) {
        this.cut = error instanceof ProblemError && error.code === 'unreachable';
        if (!this.cut) session.complain(error);
        this.timer = setTimeout(() => void this.send(), this.retryMs);
        return;
      }
    }
  }
}

/** Whether the device had room for it; what it has none for lives as long as its page. */
function keep(entry: Entry): boolean {
  try {
    localStorage.setItem(NAME + entry.uid, JSON.stringify(entry));
    return true;
  } catch {
    return false;
  }
}

/** What this device holds, in the order in which it was typed. */
function stored(): Entry[] {
  return Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '')
    .filter((name) => name.startsWith(NAME))
    .map((name) => JSON.parse(localStorage.getItem(name) ?? 'null') as Entry | null)
    .filter((entry) => entry !== null)
    .sort((a, b) => a.at.localeCompare(b.at));
}

export const outbox = new Outbox();
