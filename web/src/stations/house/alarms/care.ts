// Somebody has seen an alarm and takes care: nobody else is told.
import type { QueryClient } from '@tanstack/svelte-query';

import { api, take } from '../../../api/client';
import { keys } from '../../../api/queries';
import { session } from '../../../shell/session.svelte';

export async function takeCare(client: QueryClient, alarm: number): Promise<void> {
  const params = { path: { event_id: alarm } };
  try {
    await take(api.POST('/api/alarms/{event_id}/acknowledge', { params, body: { by: session.who } }));
    for (const queryKey of [['alarms'], keys.line]) void client.invalidateQueries({ queryKey });
  } catch (error) {
    session.complain(error);
  }
}
