// The cells whose text is no number: while there is one, what they belong to is not acted on.
import { SvelteSet } from 'svelte/reactivity';

export const unreadCells = new SvelteSet<symbol>();
