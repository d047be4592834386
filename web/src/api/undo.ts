// Taking back what an entry made: the server strikes all of it through, or nothing.
import { session } from '../shell/session.svelte';
import { words } from '../words';
import { api, type Schema, take } from './client';

/** Take back everything that is named, at once or with a reason. Throws a ProblemError where something came after it. */
export async function undo(made: Schema['MadeOut'][], reason: string = words.undone): Promise<void> {
  await take(api.POST('/api/undo', { body: { made, reason, by: session.who } }));
}
