// Bringing a file in: chosen, read, asked about, shown, confirmed. Nothing is stored before the last step.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { words } from '../../words';

export class Importing {
  step = $state<'choose' | 'reading' | 'shown' | 'storing'>('choose');
  preview = $state<Schema['ImportPreview'] | null>(null);
  problem = $state<string | null>(null);
  leaveOut = $state(false);
  /** What is about to be answered, by what was asked; the offered answer stands there already. */
  answers = $state<Record<string, string>>({});
  /** Whether each line in doubt counts. */
  counts = $state<Record<number, boolean>>({});
  anew = $state(false);
  private given: Record<string, string> = {};
  private file: File | null = null;
  private stopper: AbortController | null = null;

  constructor(private readonly placeId: number) {}

  async read(file: File, given: Record<string, string> = {}): Promise<void> {
    this.file = file;
    this.given = given;
    this.step = 'reading';
    this.problem = null;
    this.preview = null;
    this.leaveOut = false;
    this.counts = {};
    this.anew = false;
    this.stopper = new AbortController();
    const form = new FormData();
    form.set('file', file);
    form.set('place_id', String(this.placeId));
    form.set('answers', JSON.stringify(given));
    try {
      const shown = await take(
        api.POST('/api/imports/preview', {
          body: form as unknown as { file: string; place_id: number; answers: string },
          bodySerializer: (body) => body as unknown as FormData,
          signal: this.stopper.signal,
        }),
      );
      this.answers = Object.fromEntries(shown.questions.map((q) => [q.asked, q.answer ?? q.offered ?? '']));
      this.preview = shown;
      this.step = 'shown';
    } catch (error) {
      this.step = 'choose';
      this.problem = error instanceof ProblemError ? error.message : words.errors.unexpected(0);
    }
  }

  stop(): void {
    this.stopper?.abort();
    this.step = 'choose';
  }

  /** Whether something has to be answered before the rest is worth looking at. */
  get asking(): boolean {
    return this.anew || (this.preview?.questions.some((q) => q.answer === null) ?? false);
  }

  get answered(): boolean {
    return this.preview?.questions.every((q) => this.answers[q.asked]) ?? false;
  }

  async readSo(): Promise<void> {
    if (this.file) await this.read(this.file, { ...this.given, ...this.answers });
  }

  leaveAll(): void {
    this.counts = Object.fromEntries((this.preview?.doubtful ?? []).map((row) => [row.line, false]));
  }

  get blocked(): boolean {
    const p = this.preview;
    if (!p || this.asking || (p.error_count > 0 && !this.leaveOut)) return true;
    const kept = p.doubtful.filter((row) => this.counts[row.line]);
    return p.new + kept.length === 0 || p.doubtful.some((row) => this.counts[row.line] === undefined);
  }

  async confirm(): Promise<Schema['ImportDone'] | null> {
    if (!this.preview || this.blocked) return null;
    this.step = 'storing';
    const lines = (counts: boolean): number[] =>
      (this.preview?.doubtful ?? []).map((row) => row.line).filter((line) => this.counts[line] === counts);
    try {
      return await take(
        api.POST('/api/imports/{token}', {
          params: { path: { token: this.preview.token } },
          body: { leave_out_faults: this.leaveOut, keep: lines(true), leave: lines(false), ...head() },
        }),
      );
    } catch (error) {
      this.step = 'shown';
      this.problem = error instanceof ProblemError ? error.message : words.errors.unexpected(0);
      return null;
    }
  }
}
