// What if: the air or the target changed from now on. Asked of the server shortly after each move of a slider.
import { api, type Schema, take } from '../../api/client';

export class WhatIf {
  humidity = $state(0);
  temperature = $state(0);
  /** Steps of air at the piece, −2 … 2, each by a half more or less. */
  air = $state(0);
  target = $state(0);
  casing = $state<Schema['PieceOut']['casing'] | ''>('');
  /** A free hook as `rod id/hook`, or none. */
  hook = $state('');
  answer = $state<Schema['WhatIfOut'] | null>(null);
  problem = $state<string | null>(null);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private asked = 0;
  /** Where the sliders stood before any was moved: what is left there is not asked about. */
  private was = { humidity: 0, temperature: 0, target: 0 };

  constructor(private readonly piece: () => Schema['PieceOut']) {}

  /** Back to how things are. */
  reset(): void {
    const { air_ahead, card } = this.piece();
    this.humidity = Math.round(air_ahead.rh_percent ?? 78);
    this.temperature = air_ahead.temperature_c ?? 13;
    this.air = 0;
    this.casing = '';
    this.hook = '';
    this.target = card.aim_percent;
    this.was = { humidity: this.humidity, temperature: this.temperature, target: this.target };
    this.answer = null;
    this.problem = null;
    this.asked++;
    clearTimeout(this.timer);
  }

  moved(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.ask(), 120);
  }

  private async ask(): Promise<void> {
    const turn = ++this.asked;
    const { card } = this.piece();
    const [rod, hook] = this.hook.split('/').map(Number);
    const moved = (slider: keyof WhatIf['was']): number | null =>
      this[slider] === this.was[slider] ? null : this[slider];
    try {
      const answer = await take(
        api.POST('/api/pieces/{piece_id}/what-if', {
          params: { path: { piece_id: card.id } },
          body: {
            rh_percent: moved('humidity'),
            temperature_c: moved('temperature'),
            air: 1.5 ** this.air,
            target_loss_percent: card.target_loss_percent === null ? null : moved('target'),
            casing: this.casing || null,
            rod_id: rod || null,
            hook: hook ?? null,
          },
        }),
      );
      if (turn === this.asked) this.answer = answer;
    } catch (error) {
      if (turn === this.asked) this.problem = error instanceof Error ? error.message : null;
    }
  }
}
