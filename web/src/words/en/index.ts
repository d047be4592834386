// Every text on screen, in English. Another language is another folder of the same shape.
import { bench } from './bench';
import { book } from './book';
import { alarms } from './alarms';
import { house } from './house';
import { imports, instruments } from './incoming';
import { done } from './done';
import { hanging } from './hang';
import { hook } from './hook';
import { ledger } from './ledger';
import { life, when } from './life';
import { place, placeFacts } from './place';
import { cut } from './cut';
import { stock } from './stock';
import { plan } from './plan';
import { rest } from './rest';
import { round } from './round';
import { mend, photos, rods, standins } from './mend';
import { salt, today } from './salt';
import { warm } from './warm';
import { plural } from '../plural';

export { default as server } from './server.json';

export const words = {
  pasted: {
    title: 'Pasted',
    hint: 'What does each column hold? Rows with the mark off are left out.',
    column: (n: number) => `Column ${n} holds`,
    row: (n: number) => `Row ${n}`,
    leftOut: '(left out)',
    take: (n: number) => `Take ${plural(n, 'row', 'rows')}`,
    leave: 'Leave it',
    faulty: 'A row cannot be read: mend it in the spreadsheet, or take its mark off.',
  },
  tour: {
    title: 'Three steps',
    of: (i: number, n: number) => `${i} of ${n}`,
    steps: {
      bench: {
        title: 'What goes in',
        text: 'At the Bench a recipe is worked to grams, its salts are held against the limits, and each piece gets its tag. What hangs already is hung here, with the weight and the day it was hung.',
      },
      hang: {
        title: 'What it weighs',
        text: 'A piece has its date at once, with an honest window. Put it on the scale now and then and type the weight: each time the window narrows. A log of the air, or a reading off the dial, does the same.',
      },
      today: {
        title: 'What wants a hand',
        text: 'Every morning Today has what is to be weighed, turned and taken out, in the order one walks, and says what may wait and until when. A fault is told there while it can be mended.',
      },
    },
    next: 'Next',
    back: 'Back',
    done: 'That is all',
    skip: 'I know my way',
    again: 'The three steps again',
    toBench: 'To the Bench',
    toToday: 'To Today',
  },
  andMore: (tags: string, n: number) => `${tags} and ${n} more`,
  bench,
  done,
  ledger,
  salt,
  plan,
  rest,
  cut,
  stock,
  book,
  alarms,
  house,
  round,
  hook,
  placeFacts,
  today,
  mend,
  rods,
  photos,
  standins,
  warm,
  life,
  when,
  /** A day, as a unit after a number. */
  dayUnit: 'd',
  stationsName: 'Stations',
  stations: {
    today: 'Today',
    bench: 'Bench',
    salt: 'Salt',
    warm: 'Warm',
    hang: 'Hang',
    rest: 'Rest',
    book: 'Book',
  },
  noAir: 'no readings',
  stale: 'readings stopped',
  who: 'Who is at the chamber?',
  theme: 'Day or cellar light',
  help: 'Keys',
  close: 'Close',
  undo: 'Undo',
  undone: 'undone at once',
  loading: 'One moment …',
  asTable: 'As a table',
  tables: {
    when: 'when',
    loss: ['loss, at least', 'loss, likely', 'loss, at most'],
    ph: ['pH, at least', 'pH, likely', 'pH, at most'],
    climate: 'Temperature and humidity',
  },
  find: 'Find a tag',
  kinds: {
    salame: 'Salame',
    whole_muscle: 'Whole muscle',
    thin_sausage: 'Thin sausage',
    belly: 'Belly',
    breast: 'Breast',
    ham: 'Leg',
    coated: 'Coated beef',
  },
  shapes: { cylinder: 'round', slab: 'flat', irregular: 'irregular' },
  casings: {
    natural: 'natural',
    fibrous: 'fibrous',
    collagen: 'collagen',
    membrane: 'membrane bag',
    cloth: 'cloth',
    coating: 'paste coat',
    none: 'none',
  },
  places: { chamber: 'Drying place', warm: 'Warm cupboard', salt: 'Salting fridge', store: 'Store' },
  noConnection: (at: string) =>
    `No connection. What you see was known on ${at} or before. A weigh round goes on and is sent later.`,
  errors: {
    unreachable: 'Zymon does not answer. Nothing was stored; is it still running?',
    unexpected: (status: number) => `That did not work (${status}). Nothing was stored.`,
    noNumber: 'Type a number, such as 612 or 612,5.',
    isNoNumber: (text: string) => `“${text}” is no number. Type it as 612 or 612,5, or leave it out.`,
    notFound: 'There is nothing at this address.',
  },
  ...hanging,
  place,
  start: {
    title: 'A new workshop',
    text: 'Give it a name and say what you dry in. Then hang a piece: you will have its date in a minute.',
    workshop: 'Workshop',
    you: 'Your name',
    zone: 'Time zone',
    open: 'Open the workshop',
  },
  imports,
  instruments,
  keys: {
    title: 'Keys',
    rows: [
      ['← →', 'next piece on the rod'],
      ['↑ ↓', 'piece on the rod above or below'],
      ['w', 'weigh the piece'],
      ['r', 'weigh round'],
      ['h', 'hang a piece'],
      ['b', 'bring in a file'],
      ['m', 'move the piece'],
      ['v', 'drawing or list'],
      ['/', 'find whatever there is'],
      ['u', 'undo the last step'],
      ['Esc', 'back'],
      ['?', 'these keys'],
    ],
    single: 'Keys of one letter work (off: for dictation, or a hand that rests on the keys)',
  },
} as const;
