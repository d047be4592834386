// Whether what is shown comes from the server or from this device's memory, and how a page opens without a connection.
import { api } from '../api/client';
import { KEPT_AT } from '../worker/kept';

class Connection {
  /** When the answers on show were given, if they come from memory; null while the server answers. */
  keptAt = $state<string | null>(null);

  heard(response: Response): void {
    const given = response.headers.get(KEPT_AT);
    if (given === null) this.keptAt = null;
    else if (this.keptAt === null || new Date(given) > new Date(this.keptAt)) this.keptAt = given;
  }
}

export const connection = new Connection();

api.use({ onResponse: ({ response }) => connection.heard(response) });

/** Browsers keep a program only from this very machine or over https. */
export const canOpenAlone = isSecureContext && 'serviceWorker' in navigator;

/** Once the worker sees what this page asks; at a first visit that is some seconds after the page is there. */
const watched: Promise<void> = new Promise((done) => {
  if (!canOpenAlone) return;
  if (navigator.serviceWorker.controller) done();
  else navigator.serviceWorker.addEventListener('controllerchange', () => done(), { once: true });
});

/** Keep the program on this device once the page is at rest; `asked` asks anew what was asked before it was watched. */
export function keepProgram(asked: () => void): void {
  if (!import.meta.env.PROD || !canOpenAlone) return;
  if (!navigator.serviceWorker.controller) void watched.then(asked);
  // a browser that forbids it works as before, only not without a connection
  const keep = (): void => void navigator.serviceWorker.register('/worker.js').catch(() => undefined);
  // the words are fetched before anything is drawn: by then the page may have come to rest already
  if (document.readyState === 'complete') keep();
  else addEventListener('load', keep);
}

/** Have the weigh round of a place ready for when there is no connection. */
export async function keepRound(place: number): Promise<void> {
  await watched;
  // when it fails the round is simply asked for when it is begun
  await api
    .GET('/api/places/{place_id}/round', { params: { path: { place_id: place } } })
    .catch(() => undefined);
}
