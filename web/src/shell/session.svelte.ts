// What this browser remembers: who is at the chamber, day or cellar light, and the steps that can be undone.
import { words } from '../words';

function remembered(key: string, otherwise: string): string {
  return localStorage.getItem(`zymon.${key}`) ?? otherwise;
}

class Session {
  who = $state(remembered('who', 'maker'));
  dark = $state(
    remembered('light', matchMedia('(prefers-color-scheme: dark)').matches ? 'cellar' : 'day') === 'cellar',
  );
  notice = $state<{ text: string; problem: boolean; undo: (() => Promise<void>) | null } | null>(null);
  private timer: ReturnType<typeof setTimeout> | undefined;

  rename(name: string): void {
    this.who = name.trim() || 'maker';
    localStorage.setItem('zymon.who', this.who);
  }

  turnLight(): void {
    this.dark = !this.dark;
    localStorage.setItem('zymon.light', this.dark ? 'cellar' : 'day');
  }

  /** Say what was done; `undo` takes it back. It stays until the next step, so that a late second thought still counts. */
  say(text: string, undo: (() => Promise<void>) | null = null): void {
    this.notice = { text, problem: false, undo };
    clearTimeout(this.timer);
    this.timer = setTimeout(() => (this.notice = null), undo ? 60_000 : 6_000);
  }

  complain(error: unknown): void {
    clearTimeout(this.timer);
    this.notice = {
      text: error instanceof Error ? error.message : words.errors.unexpected(0),
      problem: true,
      undo: null,
    };
  }

  async undo(): Promise<void> {
    const step = this.notice?.undo;
    if (!step) return;
    this.notice = null;
    try {
      await step();
    } catch (error) {
      this.complain(error);
    }
  }
}

export const session = new Session();
