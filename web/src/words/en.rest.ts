// The texts of the Rest, in English.
import { plural } from './plural';

export const rest = {
  title: 'Rest',
  count: (n: number, even: number): string =>
    `${plural(n, 'piece rests', 'pieces rest')}${even ? `, ${even} felt even` : ''}`,
  none: 'Nothing rests.',
  noneHint:
    'Take a piece down at the Hang and let it rest in a bag: here it evens out, and you are told when it is worth a squeeze.',
  shelf: 'No place said',
  bags: { vacuum: 'vacuum bag', paper: 'paper', none: 'no bag', unknown: 'bag not said' },
  since: (days: number, bag: string): string => `${bag}, ${plural(days, 'day', 'days')}`,
  tags: { even: 'even', likely: 'squeeze', soft: 'hold', leaks: 'leaks', never: 'long' },
  states: {
    evening: 'evening out',
    likely: 'likely even, squeeze it',
    even: 'felt even',
    soft: 'soft in the middle, held',
    leaks: 'its bag leaks',
  },
  evenAbout: (day: string): string => `Even about ${day}`,
  between: (range: string): string => `between ${range}, four times in five. It may wait.`,
  never: 'Not even within a year at this temperature',
  likely: 'Likely even: squeeze it',
  likelyWhy: 'The model says so; only fingers can say it. It may wait.',
  even: 'Felt even',
  evenWhy: 'Rim and middle felt alike. It may be cut, or wait: nothing is harmed for months.',
  soft: 'Soft in the middle: hold it, do not taste',
  softWhy: 'Rest it on, feel it again, cut one of the batch to see; discard in doubt.',
  leaks: 'The bag leaks',
  leaksWhy: (lost: string): string => `It lost ${lost} since it was sealed: seal it again, and say so here.`,
  rim: 'rim',
  core: 'middle',
  ring: 'ring',
  gone: (percent: string): string => `${percent} of it gone`,
  squeezed: (rim: string, core: string, day: string, who: string): string =>
    `squeezed ${day}: rim ${rim}, middle ${core} · ${who}`,
  squeeze: 'Squeeze it',
  note: 'Note it',
  tapBoth: 'Tap what rim and middle feel like.',
  noted: (tag: string): string => `${tag}: squeeze noted`,
  now: 'now',
  pick: 'Pick a bag for its dates, its inside, and what to do with it.',
  legend: 'disc: water from rim to middle, as predicted · one colour: even',
  estimate: 'By the model, from what the piece was when it was sealed and the temperature where it lies.',
  caution: 'A bag without air belongs under 5 °C. Local food law and a licensed process come first.',
};
