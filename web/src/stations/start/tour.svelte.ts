// Three steps through an empty workshop: which one is shown, and whether this browser has seen them.
const SEEN = 'zymon.tour';

/** The stations that are told of, in the order in which they are first needed. */
export const STEPS = ['bench', 'hang', 'today'] as const;
export type Step = (typeof STEPS)[number];

class Tour {
  private at = $state<number | null>(localStorage.getItem(SEEN) ? null : 0);
  /** Pages that show it: the line points at a station only while there is one. */
  private shown = $state(0);

  /** The step that is shown, or null where it is over. */
  get step(): Step | null {
    return this.at === null ? null : (STEPS[this.at] ?? null);
  }
  get number(): number {
    return (this.at ?? 0) + 1;
  }
  /** The station the line points at. */
  get points(): Step | null {
    return this.shown ? this.step : null;
  }

  next(): void {
    if (this.at === null) return;
    if (this.at + 1 < STEPS.length) this.at += 1;
    else this.end();
  }
  back(): void {
    if (this.at) this.at -= 1;
  }
  end(): void {
    this.at = null;
    localStorage.setItem(SEEN, 'seen');
  }
  again(): void {
    this.at = 0;
  }
  /** Called while a page shows it; gives what is called when it no longer does. */
  show(): () => void {
    this.shown += 1;
    return () => (this.shown -= 1);
  }
}

export const tour = new Tour();
