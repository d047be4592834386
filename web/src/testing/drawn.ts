// A component as it is drawn from what it is given, without a browser: what stands there, in words and in shapes. What
// happens when it is touched is tried in a real browser.
import { QueryClient } from '@tanstack/svelte-query';
import { type HTMLElement, parse } from 'node-html-parser';
import type { Component } from 'svelte';
import { render } from 'svelte/server';

import Asking from './Asking.svelte';

// what stands on a screen when a figure is missing and nobody thought of it
const SLIPS = /NaN|undefined|Infinity|\[object|\bnull\b/;
// what stands without the space that was meant, since the space at the edge of an element is not kept
const GLUED = /[a-z%][(·]|\)[a-z]|[,;][a-zA-Z]|[a-z][:.][A-Z]/;

export interface Drawn {
  /** All that can be read, its white space as one space. */
  text: string;
  all: (selector: string) => HTMLElement[];
  /** The only one there is. */
  one: (selector: string) => HTMLElement;
  /** The texts of what a selector finds. */
  texts: (selector: string) => string[];
  /** What the only one there is says to those who listen. */
  label: (selector: string) => string;
  /** A figure of the only one there is. */
  figure: (selector: string, name: string) => number;
}

// what stands on lines or in cells of its own is read apart
const BLOCKS = /<\/(td|th|tr|li|p|div|dt|dd|option|label|button|figcaption|h\d)>/g;
const tidy = (text: string): string => text.replace(/\s+/g, ' ').trim();

/**
 * Draw a component. What it asks the server is answered from `answers`, by the keys of the questions; what is not among
 * them has not come yet.
 */
export function drawn<Props extends object>(
  component: Component<Props>,
  props: Props,
  answers: [readonly unknown[], unknown][] = [],
): Drawn {
  const client = new QueryClient();
  for (const [key, answer] of answers) client.setQueryData(key, answer);
  const { body } = render(Asking, { props: { client, component: component as unknown as Component, props } });
  const slip = SLIPS.exec(body);
  if (slip)
    throw new Error(`drawn with ${slip[0]}: …${body.slice(Math.max(0, slip.index - 120), slip.index + 40)}`);
  const root = parse(body.replace(BLOCKS, '$& '));
  const all = (selector: string): HTMLElement[] => root.querySelectorAll(selector);
  const one = (selector: string): HTMLElement => {
    const [found, ...more] = all(selector);
    if (!found || more.length) throw new Error(`${found ? more.length + 1 : 0} of ${selector} in ${body}`);
    return found;
  };
  const text = tidy(root.text);
  const glued = GLUED.exec(text);
  if (glued)
    throw new Error(`glued together: …${text.slice(Math.max(0, glued.index - 60), glued.index + 40)}`);
  return {
    text,
    all,
    one,
    texts: (selector) => all(selector).map((found) => tidy(found.text)),
    label: (selector) => tidy(one(selector).getAttribute('aria-label') ?? ''),
    figure: (selector, name) => Number(one(selector).getAttribute(name)),
  };
}
