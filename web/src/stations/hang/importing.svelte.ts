// Bringing a file in: chosen, read, shown, confirmed. Nothing is stored before the last step.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { words } from '../../words/en';

export class Importing {
  step = $state<'choose' | 'reading' | 'shown' | 'storing'>('choose');
  preview = $state<Schema['ImportPreview'] | null>(null);
  problem = $state<string | null>(null);
  leaveOut = $state(false);
  private file: File | null = null;
  private stopper: AbortController | null = null;

  constructor(private readonly placeId: number) {}

  async read(file: File, unit?: 'C' | 'F'): Promise<void> {
    this.file = file;
    this.step = 'reading';
    this.problem = null;
    this.preview = null;
    this.leaveOut = false;
    this.stopper = new AbortController();
    const form = new FormData();
    form.set('file', file);
    form.set('place_id', String(this.placeId));
    if (unit) form.set('temperature_unit', unit);
    try {
      this.preview = await take(
        api.POST('/api/imports/preview', {
          body: form as unknown as { file: string; place_id: number },
          bodySerializer: (body) => body as unknown as FormData,
          signal: this.stopper.signal,
        }),
      );
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

  async say(unit: 'C' | 'F'): Promise<void> {
    if (this.file) await this.read(this.file, unit);
  }

  get blocked(): boolean {
    const p = this.preview;
    return !p || p.new === 0 || p.asks.length > 0 || (p.error_count > 0 && !this.leaveOut);
  }

  async confirm(): Promise<Schema['ImportDone'] | null> {
    if (!this.preview || this.blocked) return null;
    this.step = 'storing';
    try {
      return await take(
        api.POST('/api/imports/{token}', {
          params: { path: { token: this.preview.token } },
          body: { leave_out_faults: this.leaveOut, ...head() },
        }),
      );
    } catch (error) {
      this.step = 'shown';
      this.problem = error instanceof ProblemError ? error.message : words.errors.unexpected(0);
      return null;
    }
  }
}
