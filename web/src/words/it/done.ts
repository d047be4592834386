// What says that a piece is done, in Italian.
import { unit } from '../../units/quantity';

export const done = {
  by: 'Fatto a',
  ways: { weight: 'peso', feel: 'sentimento', days: 'giorni' },
  means: {
    weight: 'Quando c’è lo dice la bilancia; le dita lo confermano.',
    feel: 'Nessuna bilancia dice quando c’è. Zymon dice quando conviene sentirlo; il registro chiede che qualcuno lo trovi sodo e pulito, o una firma.',
    days: 'I giorni non dicono nulla dell’acqua che contiene. Quando sono passati si sente; il registro chiede che qualcuno lo trovi sodo e pulito, o una firma.',
  },
  days: 'Giorni sul gancio',
  use: 'Da mangiare',
  uses: { raw: 'crudo', cooked: 'ben cotto' },
  cooked: 'Da cuocere: acidità, traguardo e asciugatura non si chiedono. Crudo non è sicuro.',
  skin: 'Cotenna lasciata su una faccia',
  bone: 'Con l’osso',
  yesNo: { unknown: 'non detto', yes: 'sì', no: 'no' },
  startOptional: `Peso adesso, ${unit.mass}, se pesato`,
  tag: { weight: '', feel: 'fatto a sentimento', days: 'fatto a giorni' },
  afterDays: (n: number): string => `fatto dopo ${n} giorni, a sentimento`,
  noScale: 'All’appesa nessuno l’ha pesato: il suo calo si dice come quota.',
  model: (loss: string, low: string, high: string): string =>
    `per il modello circa ${loss} di calo adesso, da ${low} a ${high}`,
  worthNow: 'Da sentire adesso',
  worthFrom: (day: string): string => `Da sentire dal ${day}`,
  worthWhy: (percent: string): string =>
    `Da allora ha probabilmente perso il ${percent} che questi salumi perdono di solito. Non ha un traguardo di peso, perciò lo dicono solo le dita.`,
  daysWhy:
    'Allora i suoi giorni sono passati. Non dicono nulla dell’acqua che contiene: sentire bordo e cuore.',
  felt: 'Sentito sodo fino al cuore',
  feltWhy: 'Non ha un traguardo di peso: che sia fatto sta alle vostre dita.',
  lost: (loss: string): string => `~${loss} di calo`,
  tagWords: { feel: 'sentire', felt: 'sentito', hold: 'fermo' },
  held: 'Molle al cuore: trattenerlo, non assaggiare',
  heldWhy: (loss: string): string =>
    `Dopo ${loss} di calo non è più questione di aspettare: farlo riposare in busta, sentirlo di nuovo, tagliarne uno per vedere; nel dubbio buttarlo.`,
  ringWhy: 'Per il modello il bordo è duro e il cuore più molle: farlo riposare in busta prima del taglio.',
  states: { feel: 'da sentire', felt: 'sentito sodo', hold: 'molle al cuore, trattenuto' },
  hands: {
    hold: 'Molli al cuore: trattenere, non assaggiare',
    feel: 'Da sentire: bordo e cuore',
    felt: 'Sentiti sodi: tirarli giù, o lasciarli appesi',
  },
  fields: {
    done_by: 'fatto a',
    done_days: 'giorni sul gancio',
    skin: 'cotenna lasciata su una faccia',
    bone: 'con l’osso',
  },
  notWeighed: 'non pesato',
  feelOrDays: 'sentimento o giorni',
  tagged: (tag: string): string => `${tag} ha il cartellino; si fa a sentimento.`,
};
