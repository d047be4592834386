import { singleKeys } from './single.svelte';

/** Whether a key belongs to a field, or to a shortcut of the browser's own. */
function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  if (event.ctrlKey || event.metaKey || event.altKey) return true;
  return !!target && (['INPUT', 'SELECT', 'TEXTAREA'].includes(target.tagName) || target.isContentEditable);
}

/** Whether a dialog lies over the page, so that no key means what is under it. */
export const underDialog = (): boolean => document.querySelector('dialog[open]') !== null;

/** Whether a key is meant for the page: not typed into a field, and not one letter where those are turned off. */
export function isForThePage(event: KeyboardEvent): boolean {
  return !isTyping(event) && !underDialog() && (singleKeys.on || event.key.length > 1);
}
