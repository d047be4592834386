// What says that a piece is done, in English: its weight, its days, or fingers.
import { unit } from '../../units/quantity';

export const done = {
  by: 'Done by',
  ways: { weight: 'weight', feel: 'feel', days: 'days' },
  means: {
    weight: 'The scale says when it is there; a firm feel confirms it.',
    feel: 'No scale says when it is there. Zymon tells when it is worth feeling; the ledger asks for a firm, clean look at it, or a signature.',
    days: 'Days say nothing of the water in it. When they are over it is felt; the ledger asks for a firm, clean look at it, or a signature.',
  },
  days: 'Days on the hook',
  use: 'To be',
  uses: { raw: 'eaten raw', cooked: 'cooked through' },
  cooked: 'To be cooked: acid, target and dryness are not asked for. It is not safe raw.',
  skin: 'Skin left on one face',
  bone: 'On the bone',
  yesNo: { unknown: 'not said', yes: 'yes', no: 'no' },
  startOptional: `Weight now, ${unit.mass}, if weighed`,
  tag: { weight: '', feel: 'done by feel', days: 'done by days' },
  afterDays: (n: number): string => `done after ${n} days, by feel`,
  noScale: 'Nobody weighed it when it was hung: what it lost is told as a share.',
  model: (loss: string, low: string, high: string): string =>
    `by the model about ${loss} lost now, ${low} to ${high}`,
  worthNow: 'Worth feeling now',
  worthFrom: (day: string): string => `Worth feeling from ${day}`,
  worthWhy: (percent: string): string =>
    `From then on it has likely lost the ${percent} that such goods usually lose. It has no target by weight, so only fingers can say it.`,
  daysWhy: 'Its days are over then. They say nothing of the water in it: feel rim and middle.',
  felt: 'Felt firm to the middle',
  feltWhy: 'It has no target by weight: that it is done rests on your fingers.',
  lost: (loss: string): string => `~${loss} lost`,
  tagWords: { feel: 'feel', felt: 'felt', hold: 'hold' },
  held: 'Soft in the middle: hold it, do not taste',
  heldWhy: (loss: string): string =>
    `After ${loss} of loss that is no matter of waiting: rest it in a bag, feel it again, cut one to see; discard in doubt.`,
  ringWhy: 'By the model its rim is hard and its middle softer: rest it in a bag before it is cut.',
  states: { feel: 'worth feeling', felt: 'felt firm', hold: 'soft in the middle, held' },
  hands: {
    hold: 'Soft in the middle: hold, do not taste',
    feel: 'Worth feeling: rim and middle',
    felt: 'Felt firm: take down, or let it hang',
  },
  fields: {
    done_by: 'done by',
    done_days: 'days on the hook',
    skin: 'skin left on one face',
    bone: 'on the bone',
  },
  notWeighed: 'not weighed',
  feelOrDays: 'feel or days',
  tagged: (tag: string): string => `${tag} is tagged; it is done by feel.`,
};
