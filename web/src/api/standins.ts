// The simulated scale and meter of a simulated workshop: they send by the open interface, and this asks what they sent.
import { api, take } from './client';

/** What the simulated scale shows of a piece, in grams. */
export async function onTheScale(piece: number): Promise<number | null> {
  const path = { piece_id: piece };
  return (await take(api.POST('/api/standins/weigh/{piece_id}', { params: { path } }))).value;
}

/** What the simulated meter shows of a batch's pinch. */
export async function dipped(batch: number): Promise<number | null> {
  const path = { batch_id: batch };
  return (await take(api.POST('/api/standins/dip/{batch_id}', { params: { path } }))).value;
}
