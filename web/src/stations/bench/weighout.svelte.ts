// One thing at a time: which is next, what was poured, and what to do about a pour that went wrong.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { newUid } from '../../api/uid';
import { When } from '../../forms/when.svelte';
import { typedAs } from '../../units/quantity';
import { words } from '../../words';
import { isFar } from './pours';

type Out = Schema['WeighOutOut'];
type Thing = Schema['ThingOut'];

interface Unsent {
  uid: string;
  key: string;
  grams: number;
  lot: string;
  /** What this screen showed to be in the bowl of it. */
  seen_g: number;
  at: string | null;
}

export class WeighOut {
  state = $state<Out | null>(null);
  chosen = $state<string | null>(null);
  typed = $state('');
  lot = $state('');
  asked = $state<number | null>(null);
  problem = $state<string | null>(null);
  unsent = $state<Unsent | null>(null);
  busy = $state(false);
  readonly when = new When();

  constructor(readonly id: number) {
    try {
      this.unsent = JSON.parse(localStorage.getItem(this.kept) ?? 'null') as Unsent | null;
    } catch {
      this.unsent = null;
    }
  }

  private get kept(): string {
    return `zymon.pour.${this.id}`;
  }

  get things(): Thing[] {
    return this.state?.things ?? [];
  }

  /** What is to be weighed now: the one picked, else the first that is not right yet. */
  get now(): Thing | null {
    return (
      this.things.find((thing) => thing.key === this.chosen) ??
      this.things.find((thing) => thing.state !== 'right') ??
      null
    );
  }

  take(state: Out): void {
    this.state = state;
    this.problem = null;
  }

  pick(key: string | null): void {
    this.typed = '';
    this.turnTo(key);
  }

  private turnTo(key: string | null): void {
    this.chosen = key;
    this.asked = null;
    this.problem = null;
    this.lot = this.now?.lot ?? '';
  }

  async load(): Promise<void> {
    await this.run(() =>
      take(api.GET('/api/weigh-outs/{weigh_out_id}', { params: { path: { weigh_out_id: this.id } } })),
    );
    this.lot = this.now?.lot ?? '';
    if (this.unsent) await this.send();
  }

  /** Note the typed weight; a far one is asked about first. */
  async pour(confirmed = false): Promise<void> {
    const thing = this.now;
    const grams = typedAs('mass', this.typed);
    if (!thing || this.busy) return; // Enter struck twice is one pour
    if (grams === null || grams <= 0) {
      this.problem = words.errors.noNumber;
      return;
    }
    if (!confirmed && isFar(thing, grams)) {
      this.asked = grams;
      return;
    }
    await this.note(thing.key, grams);
  }

  /** What was too much is taken out again. */
  async takeOut(thing: Thing): Promise<void> {
    await this.note(thing.key, Number(thing.missing_g.toFixed(2)));
  }

  private async note(key: string, grams: number): Promise<void> {
    if (this.unsent) return this.send(); // what waits to be sent goes first, and is never written over
    const at = this.moment();
    if (at === undefined) return;
    const seen_g = this.things.find((thing) => thing.key === key)?.weighed_g ?? 0;
    this.unsent = { uid: newUid(), key, grams, seen_g, lot: this.lot.trim(), at };
    localStorage.setItem(this.kept, JSON.stringify(this.unsent));
    this.typed = '';
    await this.send();
  }

  /** The moment it is of, null for now; undefined where it cannot be read, which is said. */
  private moment(): string | null | undefined {
    try {
      return this.when.at;
    } catch (error) {
      this.problem = error instanceof Error ? error.message : words.errors.unexpected(0);
      return undefined;
    }
  }

  /** Send what is kept here; sent twice it counts once. */
  async send(): Promise<void> {
    const entry = this.unsent;
    if (!entry || this.busy) return;
    this.busy = true;
    const sent = await this.run(() =>
      take(
        api.POST('/api/weigh-outs/{weigh_out_id}/entries', {
          params: { path: { weigh_out_id: this.id } },
          body: { ...head(), ...entry },
        }),
      ),
    );
    this.busy = false;
    if (sent === 'unreachable') {
      this.problem = words.bench.weigh.notSent;
      return;
    }
    this.unsent = null;
    localStorage.removeItem(this.kept);
    if (sent === 'refused' && this.typed === '' && entry.grams > 0) this.typed = String(entry.grams);
    if (sent === 'done') {
      const same = this.things.find((thing) => thing.key === entry.key);
      // digits typed meanwhile stay in the box
      this.turnTo(same && same.state !== 'right' ? same.key : null);
    }
  }

  async rescale(thing: Thing): Promise<void> {
    await this.run(() =>
      take(
        api.POST('/api/weigh-outs/{weigh_out_id}/rescale', {
          params: { path: { weigh_out_id: this.id } },
          body: { key: thing.key, ...head(this.when) },
        }),
      ),
    );
    this.pick(null);
  }

  async strike(entry: number): Promise<void> {
    await this.run(() =>
      take(
        api.POST('/api/weigh-out-entries/{entry_id}/strike', {
          params: { path: { entry_id: entry } },
          body: { reason: words.bench.weigh.struck, ...head() },
        }),
      ),
    );
    this.pick(null);
  }

  async temperature(celsius: number): Promise<void> {
    await this.run(() =>
      take(
        api.PUT('/api/weigh-outs/{weigh_out_id}/temperature', {
          params: { path: { weigh_out_id: this.id } },
          body: { temperature_c: celsius, ...head(this.when) },
        }),
      ),
    );
  }

  /** Somebody else weighed into the same bowl: it is shown as it is by now. */
  private async look(): Promise<void> {
    const params = { path: { weigh_out_id: this.id } };
    this.take(await take(api.GET('/api/weigh-outs/{weigh_out_id}', { params })));
  }

  private async run(call: () => Promise<Out>): Promise<'done' | 'refused' | 'unreachable'> {
    try {
      this.take(await call());
      return 'done';
    } catch (error) {
      this.problem = error instanceof Error ? error.message : words.errors.unexpected(0);
      if (error instanceof ProblemError && error.code === 'changed_meanwhile') await this.look();
      return error instanceof ProblemError && error.code === 'unreachable' ? 'unreachable' : 'refused';
    }
  }
}
