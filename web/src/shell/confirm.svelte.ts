// What is signed asks for the passphrase or PIN once more: the entry waits, and goes on by itself when it was given.
import { api, type Schema } from '../api/client';

class Confirm {
  open = $state(false);
  private waiting: ((given: boolean) => void)[] = [];

  ask(): Promise<boolean> {
    this.open = true;
    return new Promise((done) => this.waiting.push(done));
  }

  answer(given: boolean): void {
    this.open = false;
    for (const done of this.waiting.splice(0)) done(given);
  }
}

export const confirm = new Confirm();

const again = new WeakMap<Request, Request>();

api.use({
  onRequest({ request }) {
    if (request.method !== 'GET') again.set(request, request.clone());
    return undefined;
  },
  async onResponse({ request, response }) {
    if (response.status !== 403) return undefined;
    const told = (await response.clone().json()) as Partial<Schema['Problem']>;
    const kept = again.get(request);
    if (told.code !== 'confirm_needed' || !kept || !(await confirm.ask())) return undefined;
    return fetch(kept);
  },
});
