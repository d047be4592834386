// Where the keys go: into what was opened, back to where it was opened from, and never to the top of the page because
// something under them went away.

const FIELDS =
  'input:not([type="hidden"], [type="file"]):not(:disabled), select:not(:disabled), textarea:not(:disabled)';
/** Parts of a page that can stand for what was in them. */
const PARTS = 'section, article, form, aside, main, dialog, li, tr, fieldset';
const COARSE = '(pointer: coarse)';

/** Put the focus on what is not a control of its own, so that it is read out and the next Tab goes on from there. */
export function standOn(node: HTMLElement): void {
  if (!node.matches('a[href], button, [tabindex], input, select, textarea')) node.tabIndex = -1;
  node.focus({ preventScroll: true });
}

/**
 * Attach to a form that opens: its first field takes the focus, or the form itself where a field would bring up a keyboard
 * of glass; closed, the focus goes back to what it was opened from.
 */
export function takesFocus(node: HTMLElement): () => void {
  const from = document.activeElement;
  const field = matchMedia(COARSE).matches ? null : node.querySelector<HTMLElement>(FIELDS);
  if (field) field.focus();
  else standOn(node);
  return () => {
    const at = document.activeElement;
    if (!(from instanceof HTMLElement) || from === document.body) return;
    if (at === document.body || node.contains(at)) queueMicrotask(() => from.isConnected && from.focus());
  };
}

function inAndAbout(node: Element | null): Element[] {
  const chain: Element[] = [];
  for (let one = node; one && one !== document.body; one = one.parentElement) chain.push(one);
  return chain;
}

/**
 * Where what had the focus goes away (a line struck, a form sent, another page), the focus moves to the nearest part of the
 * page around it that is still there. Gives a function that ends the watch.
 */
export function keepFocus(root: HTMLElement): () => void {
  let around: Element[] = [];
  const remember = (event: FocusEvent): void => {
    around = inAndAbout(event.target as Element);
  };
  const watch = new MutationObserver(() => {
    if (document.activeElement !== document.body || !around.length || around[0]?.isConnected) return;
    const left = around.find((one) => one.isConnected && one !== root && one.matches(PARTS));
    const main = root.querySelector<HTMLElement>('main');
    const next = (left as HTMLElement | undefined) ?? main;
    if (next) standOn(next);
  });
  // what was left by will is not brought back; what is being taken away still hangs together when it tells of it
  const forget = (event: FocusEvent): void => {
    const left = event.target as Element;
    if (event.relatedTarget === null) queueMicrotask(() => left.isConnected && (around = []));
  };
  root.addEventListener('focusin', remember);
  root.addEventListener('focusout', forget);
  watch.observe(root, { childList: true, subtree: true });
  return () => {
    root.removeEventListener('focusin', remember);
    root.removeEventListener('focusout', forget);
    watch.disconnect();
  };
}
