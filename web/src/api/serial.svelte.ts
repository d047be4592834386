// A scale on a cable, where the browser can speak to one: what it shows is read line by line, nothing is sent to it.
import type { Schema } from './client';

const GRAMS: Record<string, number> = { g: 1, kg: 1000, oz: 28.349523125, lb: 453.59237 };
const LINE = /([-+]?)\s*(\d+(?:[.,]\d+)?)\s*(kg|g|lb|oz)\b/i;
const KEPT = 20;

export interface Shown {
  grams: number;
  at: number;
}

/** The weight a line of a scale tells, in grams; null where it tells none, or one under nothing. */
export function gramsOf(line: string): number | null {
  const found = LINE.exec(line);
  if (!found) return null;
  const value = Number((found[2] ?? '').replace(',', '.')) * (GRAMS[(found[3] ?? '').toLowerCase()] ?? NaN);
  return found[1] === '-' || !(value > 0) ? null : Math.round(value * 1000) / 1000;
}

/** Whether what was shown has come to rest, as the registry of devices says when. */
export function atRest(shown: Shown[], when: Schema['SteadyOut']): boolean {
  const last = shown.at(-1);
  if (!last) return false;
  const near = Math.max(when.within, when.share * last.grams);
  let first = shown.length;
  while (first > 0 && Math.abs((shown[first - 1]?.grams ?? 0) - last.grams) <= near) first -= 1;
  const still = shown.slice(first);
  return still.length >= when.readings && last.at - (still[0]?.at ?? last.at) >= when.over_s * 1000;
}

interface Port {
  open(options: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
  readable: ReadableStream<Uint8Array> | null;
}
interface Serial {
  requestPort(): Promise<Port>;
}

export class SerialScale {
  shown = $state<Shown[]>([]);
  state = $state<'off' | 'on' | 'lost'>('off');
  private port: Port | null = null;
  private reader: ReadableStreamDefaultReader<Uint8Array> | null = null;

  private get serial(): Serial | null {
    return (navigator as unknown as { serial?: Serial }).serial ?? null;
  }
  get offered(): boolean {
    return this.serial !== null;
  }
  get last(): Shown | null {
    return this.shown.at(-1) ?? null;
  }

  /** Ask for a scale and listen to it until it is let go of or the cable is pulled. */
  async connect(baudRate = 9600): Promise<void> {
    if (!this.serial || this.state === 'on') return;
    this.port = await this.serial.requestPort();
    await this.port.open({ baudRate });
    this.shown = [];
    this.state = 'on';
    void this.listen(this.port);
  }

  async disconnect(): Promise<void> {
    await this.reader?.cancel().catch(() => undefined);
    await this.port?.close().catch(() => undefined);
    this.port = this.reader = null;
    this.state = 'off';
  }

  private async listen(port: Port): Promise<void> {
    const text = new TextDecoder();
    let rest = '';
    try {
      this.reader = port.readable?.getReader() ?? null;
      for (;;) {
        const part = await this.reader?.read();
        if (!part || part.done) break;
        rest += text.decode(part.value, { stream: true });
        const lines = rest.split(/[\r\n]+/);
        rest = (lines.pop() ?? '').slice(-200);
        for (const line of lines) this.take(line);
      }
    } catch {
      // the cable was pulled: said by the state
    }
    if (this.state === 'on') this.state = 'lost';
  }

  private take(line: string): void {
    const grams = gramsOf(line);
    if (grams !== null) this.shown = [...this.shown.slice(1 - KEPT), { grams, at: Date.now() }];
  }
}

/** One scale for the whole page: connected once, it fills whichever field is typed in. */
export const serialScale = new SerialScale();
