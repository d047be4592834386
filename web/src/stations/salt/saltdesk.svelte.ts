// What is done to pieces in salt: noted once however often it is tapped, taken back by striking it through.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import type { When } from '../../forms/when.svelte';
import { session } from '../../shell/session.svelte';

export type Card = Schema['SaltCard'];
export type EventKind = Schema['NoteIn']['kind'];
type Extra = Partial<Omit<Schema['NoteIn'], 'uid' | 'pieces' | 'kind' | 'by'>>;

export class SaltDesk {
  busy = $state(false);
  /** A question that a weight raised; the weight counts once it is answered. */
  question = $state<string | null>(null);

  /** `took`: what the station is now; `behind`: somebody else was here first, look again. */
  constructor(
    private readonly took: (answer: Schema['SaltOut']) => void,
    private readonly behind: () => void,
  ) {}

  /** Note something; null where it was refused or asked about, which `question` or the notice tells. */
  async note(
    kind: EventKind,
    pieces: number[],
    extra: Extra = {},
    when: When | null = null,
  ): Promise<Schema['SaltOut'] | null> {
    if (this.busy) return null;
    this.busy = true;
    try {
      const answer = await take(
        api.POST('/api/salt/events', {
          body: {
            ...head(when),
            pieces,
            kind,
            free_salt: false,
            note: '',
            not_weighed: false,
            ...extra,
          },
        }),
      );
      this.question = null;
      this.took(answer);
      return answer;
    } catch (error) {
      if (error instanceof ProblemError && error.code === 'doubtful') this.question = error.message;
      else {
        session.complain(error);
        this.behind();
      }
      return null;
    } finally {
      this.busy = false;
    }
  }

  async strike(event: number, reason: string): Promise<boolean> {
    try {
      this.took(
        await take(
          api.POST('/api/salt/events/{event_id}/strike', {
            params: { path: { event_id: event } },
            body: { reason, by: session.who },
          }),
        ),
      );
      return true;
    } catch (error) {
      session.complain(error);
      return false;
    }
  }
}
