// The texts of the weigh round, in Italian.
import { unit } from '../../units/quantity';
import { plural } from '../plural';

export const round = {
  title: 'Giro di pesata',
  begin: 'Giro di pesata',
  which: {
    due: (n: number): string => `ciò che dice di più (${n})`,
    all: (n: number): string => `tutti (${n})`,
    rod: (rod: number): string => `asta ${rod}`,
    batch: (code: string): string => code,
  },
  why: {
    doubtful: 'un peso in dubbio',
    too_fast: 'asciuga troppo in fretta',
    ready_soon: 'pronto questa settimana',
    batch_never: 'nessuno ha ancora pesato la sua partita: dice di più',
    batch_long_ago: 'la sua partita non si pesa da molto: dice di più',
    second: 'asciuga diversamente dal primo della sua partita',
  },
  start: 'Comincia',
  full: (tag: string) =>
    `Su questo apparecchio non c’è più posto: il peso di ${tag} sta solo in questa pagina. Lasciarla aperta finché tutti i pesi sono mandati.`,
  keepOpen:
    'Dove non c’è segnale, lasciare aperta questa pagina: aperta in http semplice non si potrebbe ricaricare. I pesi restano su questo apparecchio finché sono mandati.',
  nothing: 'Qui non è appeso niente.',
  nothingDue: 'Oggi nessuna pesata direbbe molto. Si possono pesare tutti lo stesso.',
  of: (done: number, all: number): string => `${done} di ${all}`,
  where: (rod: number, hook: number): string => `asta ${rod}, gancio ${hook}`,
  last: (g: string, day: string): string => `ultimo ${g}, ${day}`,
  never: 'mai pesato',
  expected: (range: string): string => `attesi ${range}`,
  weight: `Peso sulla bilancia, ${unit.mass}`,
  enter: 'Invio',
  skip: 'Salta',
  undo: 'Indietro',
  end: 'Fine',
  question: (range: string): string =>
    `Lontano dai ${range} attesi. Ripesare, o ancora Invio se la bilancia segna proprio così.`,
  tare: (g: string): string => `Non è più della sua tara di ${g}.`,
  waiting: (n: number): string =>
    `${plural(n, 'peso aspetta', 'pesi aspettano')} la connessione su questo apparecchio`,
  sent: 'Tutti i pesi sono arrivati.',
  before: (tag: string, g: string): string => `${tag} ${g}`,
  lost: (percent: string): string => `${percent} di calo`,
  ready: (day: string): string => `pronto circa ${day}`,
  isReady: 'pronto di peso',
  isOver: 'oltre il traguardo',
  fast: 'asciuga troppo in fretta',
  done: {
    title: 'Il giro è finito',
    count: (n: number): string => plural(n, 'pezzo pesato', 'pezzi pesati'),
    ready: 'Pronti di peso: sentirli, e tirarli giù',
    fast: 'Troppo veloci: spostarli, o rallentare l’aria',
    soon: 'Pronti questa settimana',
    clock: 'Con l’ora corretta',
    refused: 'Non presi',
    conflict: 'Pesati due volte, diversi: riguardare',
    back: 'Torna al locale',
  },
  keys: 'Invio segna e va avanti; Invio a vuoto salta; ↑ torna indietro; Esc finisce.',
};
