// The texts of the weigh round, in English.
import { unit } from '../../units/quantity';
import { plural } from '../plural';

export const round = {
  title: 'Weigh round',
  begin: 'Weigh round',
  which: {
    due: (n: number): string => `what tells most (${n})`,
    all: (n: number): string => `all (${n})`,
    rod: (rod: number): string => `rod ${rod}`,
    batch: (code: string): string => code,
  },
  why: {
    doubtful: 'a weight in doubt',
    too_fast: 'dries too fast',
    ready_soon: 'ready this week',
    batch_never: 'nobody weighed its batch yet: it tells most',
    batch_long_ago: 'its batch was not weighed for long: it tells most',
    second: 'dries otherwise than the first of its batch',
  },
  start: 'Begin',
  full: (tag: string) =>
    `This device has no room left: the weight of ${tag} is kept in this page only. Leave it open until all weights are sent.`,
  keepOpen:
    'Where there is no signal, leave this page open: opened over plain http it could not be loaded again. Weights stay on this device until they are sent.',
  nothing: 'Nothing hangs here.',
  nothingDue: 'No weighing would tell much today. All can be weighed all the same.',
  of: (done: number, all: number): string => `${done} of ${all}`,
  where: (rod: number, hook: number): string => `rod ${rod}, hook ${hook}`,
  last: (g: string, day: string): string => `last ${g}, ${day}`,
  never: 'never weighed',
  expected: (range: string): string => `expected ${range}`,
  weight: `Weight on the scale, ${unit.mass}`,
  enter: 'Enter',
  skip: 'Skip',
  undo: 'Back',
  end: 'End',
  question: (range: string): string =>
    `Far from the ${range} expected. Weigh again, or Enter once more if the scale does show it.`,
  tare: (g: string): string => `That is no more than its tare of ${g}.`,
  waiting: (n: number): string =>
    `${plural(n, 'weight waits', 'weights wait')} on this device for the connection`,
  sent: 'All weights are in.',
  before: (tag: string, g: string): string => `${tag} ${g}`,
  lost: (percent: string): string => `${percent} lost`,
  ready: (day: string): string => `ready about ${day}`,
  isReady: 'ready by weight',
  isOver: 'past its target',
  fast: 'dries too fast',
  done: {
    title: 'The round is done',
    count: (n: number): string => plural(n, 'piece weighed', 'pieces weighed'),
    ready: 'Ready by weight: feel, and take down',
    fast: 'Too fast: move, or slow the air',
    soon: 'Ready this week',
    clock: 'Timed anew',
    refused: 'Not taken',
    conflict: 'Weighed twice, differently: look again',
    back: 'Back to the room',
  },
  keys: 'Enter notes it and goes on; Enter on nothing skips; ↑ goes back; Esc ends.',
};
