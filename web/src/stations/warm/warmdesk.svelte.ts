// What is noted of a batch in the warm stage; a pH that cannot be is asked about before it counts.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { session } from '../../shell/session.svelte';
import type { When } from '../../forms/when.svelte';

type Detail = Schema['WarmDetail'];

export class WarmDesk {
  busy = $state(false);
  question = $state<string | null>(null);

  constructor(
    readonly batch: number,
    private readonly took: (answer: Detail | null) => void,
  ) {}

  /** Note a pH; true once it counts. A reading that did not get through keeps its identity and is sent again. */
  async read(
    ph: number,
    sample: number | null,
    meter: number | null,
    sure: boolean,
    when: When | null = null,
  ): Promise<boolean> {
    if (this.busy) return false;
    this.busy = true;
    try {
      const answer = await take(
        api.POST('/api/warm/{batch_id}/readings', {
          params: { path: { batch_id: this.batch } },
          body: {
            ...head(when, sure),
            ph,
            sample_c: sample,
            meter_id: meter,
          },
        }),
      );
      this.question = null;
      this.took(answer);
      return true;
    } catch (error) {
      if (error instanceof ProblemError && error.code === 'doubtful') this.question = error.message;
      else session.complain(error);
      return false;
    } finally {
      this.busy = false;
    }
  }

  async note(kind: Schema['EventIn']['kind'], note = '', when: When | null = null): Promise<boolean> {
    try {
      await take(
        api.POST('/api/warm/{batch_id}/events', {
          params: { path: { batch_id: this.batch } },
          body: { ...head(when), kind, note },
        }),
      );
      this.took(null);
      return true;
    } catch (error) {
      session.complain(error);
      return false;
    }
  }

  async strike(what: 'reading' | 'event', id: number, reason: string): Promise<void> {
    const body = { reason, by: session.who };
    try {
      if (what === 'reading')
        await take(
          api.POST('/api/warm/readings/{reading_id}/strike', { params: { path: { reading_id: id } }, body }),
        );
      else
        await take(
          api.POST('/api/warm/events/{event_id}/strike', { params: { path: { event_id: id } }, body }),
        );
      this.took(null);
    } catch (error) {
      session.complain(error);
    }
  }
}
