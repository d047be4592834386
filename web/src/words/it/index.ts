// Every text on screen, in Italian: in the words of the trade, not word for word.
import { plural } from '../plural';
import { alarms } from './alarms';
import { bench } from './bench';
import { book } from './book';
import { cut } from './cut';
import { done } from './done';
import { hanging } from './hang';
import { hook } from './hook';
import { house } from './house';
import { imports, instruments } from './incoming';
import { ledger } from './ledger';
import { life, when } from './life';
import { mend, photos, rods, standins } from './mend';
import { place, placeFacts } from './place';
import { plan } from './plan';
import { rest } from './rest';
import { round } from './round';
import { salt, today } from './salt';
import { stock } from './stock';
import { warm } from './warm';

export { default as server } from './server.json';

export const words = {
  pasted: {
    title: 'Incollato',
    hint: 'Che cosa c’è in ogni colonna? Le righe senza spunta restano fuori.',
    column: (n: number) => `La colonna ${n} contiene`,
    row: (n: number) => `Riga ${n}`,
    leftOut: '(tralasciata)',
    take: (n: number) => `Prendi ${plural(n, 'riga', 'righe')}`,
    leave: 'Lascia stare',
    faulty: 'Una riga non si legge: correggerla nel foglio di calcolo, o toglierle la spunta.',
  },
  tour: {
    title: 'Tre passi',
    of: (i: number, n: number) => `${i} di ${n}`,
    steps: {
      bench: {
        title: 'Che cosa entra',
        text: 'Al Banco la ricetta diventa grammi, i sali si confrontano con i limiti e ogni pezzo riceve il suo cartellino. Quello che è già appeso si appende qui, con il peso e il giorno in cui è stato appeso.',
      },
      hang: {
        title: 'Quanto pesa',
        text: 'Un pezzo ha subito la sua data, con un margine onesto. Metterlo ogni tanto sulla bilancia e scrivere il peso: ogni volta il margine si stringe. Lo stesso fa un registro dell’aria, o una lettura del quadrante.',
      },
      today: {
        title: 'Che cosa chiede una mano',
        text: 'Ogni mattina Oggi ha quello che c’è da pesare, girare e togliere, nell’ordine in cui si cammina, e dice che cosa può aspettare e fino a quando. Un difetto si dice lì finché si può rimediare.',
      },
    },
    next: 'Avanti',
    back: 'Indietro',
    done: 'È tutto',
    skip: 'So come si fa',
    again: 'Di nuovo i tre passi',
    toBench: 'Al Banco',
    toToday: 'A Oggi',
  },
  andMore: (tags: string, n: number) => `${tags} e ${n} in più`,
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
  dayUnit: 'gg',
  stationsName: 'Stazioni',
  stations: {
    today: 'Oggi',
    bench: 'Banco',
    salt: 'Sale',
    warm: 'Stufa',
    hang: 'Appesi',
    rest: 'Riposo',
    book: 'Libro',
  },
  noAir: 'nessuna lettura',
  stale: 'letture ferme',
  who: 'Chi è alla cella?',
  theme: 'Luce di giorno o di cantina',
  help: 'Tasti',
  close: 'Chiudi',
  undo: 'Annulla',
  undone: 'annullato subito',
  loading: 'Un momento …',
  asTable: 'Come tabella',
  tables: {
    when: 'quando',
    loss: ['calo, almeno', 'calo, probabile', 'calo, al massimo'] as const,
    ph: ['pH, almeno', 'pH, probabile', 'pH, al massimo'] as const,
    climate: 'Temperatura e umidità',
  },
  find: 'Cerca un cartellino',
  kinds: {
    salame: 'Salame',
    whole_muscle: 'Muscolo intero',
    thin_sausage: 'Salsiccia sottile',
    belly: 'Pancetta',
    breast: 'Petto',
    ham: 'Coscia',
    coated: 'Manzo in crosta',
  },
  shapes: { cylinder: 'tondo', slab: 'piatto', irregular: 'irregolare' },
  casings: {
    natural: 'naturale',
    fibrous: 'fibroso',
    collagen: 'collagene',
    membrane: 'sacco a membrana',
    cloth: 'tela',
    coating: 'stuccatura',
    none: 'nessuno',
  },
  places: {
    chamber: 'Locale di stagionatura',
    warm: 'Stufa',
    salt: 'Frigo di salagione',
    store: 'Dispensa',
  },
  noConnection: (at: string) =>
    `Nessuna connessione. Ciò che si vede si sapeva ${at} o prima. Un giro di pesata va avanti e si manda dopo.`,
  errors: {
    unreachable: 'Zymon non risponde. Non è stato tenuto niente; è ancora in funzione?',
    unexpected: (status: number) => `Non è riuscito (${status}). Non è stato tenuto niente.`,
    noNumber: 'Scrivere un numero, come 612 o 612,5.',
    isNoNumber: (text: string) => `“${text}” non è un numero. Scriverlo come 612 o 612,5, o lasciarlo fuori.`,
    notFound: 'A questo indirizzo non c’è niente.',
  },
  ...hanging,
  place,
  start: {
    title: 'Un nuovo laboratorio',
    text: 'Dargli un nome e dire dove si asciuga. Poi appendere un pezzo: in un minuto si ha la sua data.',
    workshop: 'Laboratorio',
    you: 'Il vostro nome',
    zone: 'Fuso orario',
    open: 'Apri il laboratorio',
  },
  imports,
  instruments,
  keys: {
    title: 'Tasti',
    rows: [
      ['← →', 'prossimo pezzo sull’asta'],
      ['↑ ↓', 'pezzo sull’asta sopra o sotto'],
      ['w', 'pesa il pezzo'],
      ['r', 'giro di pesata'],
      ['h', 'appendi un pezzo'],
      ['b', 'porta un file'],
      ['m', 'sposta il pezzo'],
      ['v', 'disegno o lista'],
      ['/', 'cerca qualunque cosa'],
      ['u', 'annulla l’ultimo passo'],
      ['Esc', 'indietro'],
      ['?', 'questi tasti'],
    ] as const,
    single: 'I tasti di una lettera funzionano (spenti: per chi detta, o posa la mano sui tasti)',
  },
};
