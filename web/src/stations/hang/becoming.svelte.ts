// Taking a piece down and what becomes of it: its weight or that it was not weighed, what stands against it, what next.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { When } from '../../forms/when.svelte';
import { typedAs, weightText } from '../../units/quantity';
import { words } from '../../words';

export type Kind = Schema['BecomeIn']['kind'];
export type How = Schema['BecomeIn']['how'];

/** How a state can be, the usual first. */
export const HOW: Record<Kind, readonly How[]> = {
  down: [''],
  resting: ['vacuum', 'paper', 'none'],
  cut: [''],
  kept: [''],
  gone: ['eaten', 'sold', 'given', 'discarded'],
};

export class Becoming {
  weight = $state('');
  notWeighed = $state(false);
  kind = $state<Kind>('resting');
  how = $state<How>('vacuum');
  place = $state(0);
  note = $state('');
  question = $state<string | null>(null);
  problem = $state<string | null>(null);
  first = $state<number | null>(null);
  busy = $state(false);
  against = $state<Schema['Against'] | null>(null);
  readonly when = new When();
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly piece: { id: number; tag: string },
    /** Whether it still hangs: then it is taken down first, with its weight. */
    readonly hangs: boolean,
  ) {
    if (hangs) void this.look();
  }

  pick(kind: Kind): void {
    this.kind = kind;
    this.how = HOW[kind][0] ?? '';
  }

  /** What stands against it at what is typed so far. */
  typed(): void {
    this.question = null;
    this.notWeighed = false;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.look(), 250);
  }

  async look(): Promise<void> {
    const gross_g = typedAs('mass', this.weight);
    try {
      this.against = await take(
        api.GET('/api/pieces/{piece_id}/against', {
          params: { path: { piece_id: this.piece.id }, query: gross_g === null ? {} : { gross_g } },
        }),
      );
    } catch {
      this.against = null; // it is asked again when it is taken down
    }
  }

  again(): void {
    this.first = typedAs('mass', this.weight);
    this.weight = '';
    this.question = null;
  }

  /** The piece as it is then, or null where something is asked or missing. */
  async go(sure = false): Promise<Schema['PieceOut'] | null> {
    const gross_g = typedAs('mass', this.weight);
    this.problem = null;
    if (this.hangs && gross_g === null && !this.notWeighed) {
      this.problem = this.weight.trim() ? words.errors.noNumber : words.life.takeDown.weightOrNot;
      return null;
    }
    if (this.busy) return null;
    this.busy = true;
    const params = { path: { piece_id: this.piece.id } };
    try {
      const state = {
        kind: this.kind,
        how: this.how,
        place_id: this.place || null,
        note: this.note,
        ...head(this.when, sure),
      };
      if (!this.hangs) return await take(api.POST('/api/pieces/{piece_id}/become', { params, body: state }));
      const body = { ...state, gross_g, first_g: this.first, not_weighed: this.notWeighed };
      return await take(api.POST('/api/pieces/{piece_id}/take-down', { params, body }));
    } catch (error) {
      if (error instanceof ProblemError && error.code === 'doubtful') this.question = error.message;
      else this.problem = error instanceof Error ? error.message : words.errors.unexpected(0);
      return null;
    } finally {
      this.busy = false;
    }
  }

  get firstShown(): string | null {
    return this.first === null ? null : words.life.scale.first(weightText(this.first));
  }
}
