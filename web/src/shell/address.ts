// What is chosen on a page stands in its address: loaded anew, gone back to, or sent to somebody, it is the same.

export const inAddress = (name: string): string | null => new URLSearchParams(location.search).get(name);

/** Put what is chosen into the address; null takes it out. `step`: a step that "back" takes back. */
export function intoAddress(chosen: Record<string, string | null>, step: boolean): void {
  const search = new URLSearchParams(location.search);
  for (const [name, value] of Object.entries(chosen)) {
    if (value === null) search.delete(name);
    else search.set(name, value);
  }
  const text = search.toString();
  const address = location.pathname + (text ? `?${text}` : '');
  if (address === location.pathname + location.search) return;
  if (step) history.pushState(history.state, '', address);
  else history.replaceState(history.state, '', address);
}
