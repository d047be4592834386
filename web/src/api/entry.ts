// What every entry brings: an identity (given on its way out), who enters it, the moment it is of, and whether what was
// asked about it is answered.
import type { When } from '../forms/when.svelte';
import { session } from '../shell/session.svelte';

export interface Head {
  uid: string;
  by: string;
  at: string | null;
  sure: boolean;
}

export const head = (when: When | null = null, sure = false): Head => ({
  uid: '',
  by: session.who,
  at: when?.at ?? null,
  sure,
});
