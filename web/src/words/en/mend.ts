// The texts of what goes wrong at the hook and how it is mended, of rods and of photos, in English.
import { unit, warmthText } from '../../units/quantity';
import { plural } from '../plural';
import { numberText } from '../../units/number';

export const mend = {
  title: {
    too_fast: 'Drying too fast: a dry ring closes',
    too_slow: 'Drying too slowly: slime and wrong mould get their chance',
    stuck: 'Stuck: it will not get there in this air',
    overshooting: 'Ready, and going past its target',
  },
  ways: {
    hook: (rod: number, hook: number): string => `Hang it on rod ${rod}, hook ${hook}`,
    humidity: (rh: string): string => `Set the whole place to ${rh} %`,
    airLess: 'Slow the air at it by a third',
    airMore: 'Half as much air again at it',
    wrap: 'Wrap it in a membrane',
    rest: (weeks: string): string => `Seal it and let it rest ${weeks} weeks, then hang it again`,
    take_down: 'Feel it and take it down',
  },
  later: (days: number): string =>
    Math.abs(days) < 0.75
      ? 'same day'
      : `${plural(Math.round(Math.abs(days)), 'day', 'days')} ${days > 0 ? 'later' : 'sooner'}`,
  date: 'date',
  ring: (now: string): string => `ring, now ${now}`,
  ringHelp: 'Ring index: 0 even, 1 a dry rim round a wet core; the strongest still to come.',
  over: (day: string): string =>
    `Past its target by 3 points about ${day}: until then it is harmless, from then on weight and texture are lost.`,
  overSince: (day: string): string =>
    `Past its target by 3 points since about ${day}: weight and texture are being lost.`,
  costs: (g: string, money: string | null): string =>
    `Each day it loses about ${g}${money === null ? '' : `, worth ${money}`}.`,
  move: 'Move it',
};

export const rods = {
  title: 'Rods and hooks',
  rod: (n: number): string => `Rod ${n}`,
  hooks: 'hooks',
  spacing: `between hooks, ${unit.length}`,
  keep: 'Keep',
  add: 'One rod more',
  close: (pairs: string): string => `Too close, air must pass between: ${pairs}`,
  short: (mm: string): string => `Overfull: ${mm} more rod are needed for what hangs here`,
  and: (a: string, b: string): string => `${a} and ${b}`,
  shift: (rh: number | null, c: number | null): string => {
    const said = [
      rh === null ? '' : `${numberText(Math.abs(rh), 0)} points ${rh > 0 ? 'damper' : 'drier'}`,
      c === null ? '' : `${warmthText(Math.abs(c))} ${c > 0 ? 'warmer' : 'colder'}`,
    ];
    return `The air is ${said.filter(Boolean).join(' and ')} than in the two weeks before: everything here feels it.`;
  },
  suits: 'What this place suits',
  suitsHint: `Hours of the last month within ${warmthText(4, 0)} and 9 points of what each family usually hangs in.`,
  verdicts: { fit: 'fit', with_care: 'with care', unfit: 'not fit' },
  mostly: { warm: 'too warm', cold: 'too cold', damp: 'too damp', dry: 'too dry' },
  suitsShare: (share: string): string => `${share} of the hours`,
  suitsOff: (share: string, what: string): string => `${what} in ${share}`,
  unfit: (names: string): string => `Not fit for ${names}.`,
};

export const standins = { scale: 'Put it on the scale', meter: 'Dip the meter' };

export const photos = {
  add: 'Take a photo',
  of: (day: string): string => `Photo of ${day}`,
  strikeWhy: 'Why is it struck?',
  none: 'Kept small, without place or camera in it.',
};
