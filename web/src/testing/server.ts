// A server made of answers: every call is written down, the next answer of its address is given back.
type Answer = { status?: number; body: unknown } | 'unreachable';

let current: FakeServer | null = null;

/** The fetch of the tests: asks the server made last. */
export function serve(request: Request): Promise<Response> {
  return current ? current.answer(request) : Promise.reject(new TypeError('no server'));
}

export class FakeServer {
  private readonly calls: { path: string; body: unknown }[] = [];
  private readonly answers = new Map<string, Answer[]>();

  constructor() {
    // eslint-disable-next-line @typescript-eslint/no-this-alias -- the last one made is the one that is asked
    current = this;
  }

  /** What an address answers, in turn; the last one again and again. */
  on(path: string, ...answers: Answer[]): this {
    this.answers.set(path, answers);
    return this;
  }

  bodies(path: string): unknown[] {
    return this.calls.filter((call) => call.path === path).map((call) => call.body);
  }

  async answer(request: Request): Promise<Response> {
    const path = new URL(request.url).pathname;
    const text = await request.clone().text();
    this.calls.push({ path, body: text ? JSON.parse(text) : null });
    const waiting = this.answers.get(path) ?? [];
    const found = waiting.length > 1 ? waiting.shift() : waiting[0];
    if (found === undefined || found === 'unreachable') throw new TypeError('no connection');
    return new Response(JSON.stringify(found.body), {
      status: found.status ?? 200,
      headers: { 'Content-Type': 'application/json' },
    });
  }
}
