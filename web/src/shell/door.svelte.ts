// Whether one signs in here, and who is: asked at the start, told by every refusal, kept for when there is no connection.
import { api, ProblemError, type Schema, take } from '../api/client';
import { keepShows, readShows } from '../units/shows';
import { session } from './session.svelte';

const NAME = 'zymon.me';
type Me = NonNullable<Schema['DoorOut']['me']>;

function remembered(): Me | null {
  try {
    return JSON.parse(localStorage.getItem(NAME) ?? 'null') as Me | null;
  } catch {
    return null;
  }
}

class Door {
  // whoever was here last had signed in: until the door answers, one still does
  locked = $state(remembered() !== null);
  me = $state<Me | null>(remembered());
  tablet = $state<string | null>(null);
  byPin = $state<string[]>([]);
  /** The door has answered, or there is no connection to it. */
  known = $state(false);
  /** Somebody has to sign in before anything is shown. */
  readonly shut = $derived(this.known && this.locked && this.me === null);

  /** Whether people, devices, copies and the workshop itself are theirs to keep: alone on the machine they are. */
  readonly keepsHouse = $derived(this.me === null ? !this.locked : this.me.may_keep_house);

  take(told: Schema['DoorOut']): void {
    const before = this.me;
    [this.locked, this.me, this.tablet, this.byPin] = [told.locked, told.me, told.tablet, told.by_pin];
    this.known = true;
    if (told.me) {
      localStorage.setItem(NAME, JSON.stringify(told.me));
      session.rename(told.me.name);
    } else localStorage.removeItem(NAME);
    if (before && before.id !== told.me?.id) void forgetAnswers();
    // whoever signs in reads everything as they chose, on whichever device
    if (told.me?.shows != null && keepShows(readShows(told.me.shows))) location.reload();
  }

  /** An answer that comes after a later question was answered tells of before. */
  private asked = 0;

  async look(): Promise<void> {
    const mine = ++this.asked;
    try {
      const told = await take(api.GET('/api/door'));
      if (mine === this.asked) this.take(told);
    } catch (error) {
      // without a connection whoever was here last goes on; what they enter waits for them
      if (!(error instanceof ProblemError && error.code === 'unreachable')) session.complain(error);
      this.known = true;
    }
  }

  async leave(): Promise<void> {
    this.asked++;
    await take(api.POST('/api/sign-out'));
    await forgetAnswers();
    await this.look();
  }

  /** Whether entries under this name may be sent by whoever is here. */
  sendsFor(name: string): boolean {
    return !this.locked || this.me?.name === name;
  }
}

/** What this browser keeps for when there is no connection is of whoever is signed in, and of nobody else. */
async function forgetAnswers(): Promise<void> {
  if (typeof caches !== 'undefined') await caches.delete('answers');
}

export const door = new Door();

api.use({
  async onResponse({ response }) {
    if (response.status !== 401) return undefined;
    const told = (await response.clone().json()) as Partial<Schema['Problem']>;
    if (told.code === 'sign_in_first') {
      door.locked = true;
      door.me = null;
      door.known = true;
    }
    return undefined;
  },
});
