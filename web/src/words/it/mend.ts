// What goes wrong at the hook and how it is mended, rods and photos, in Italian.
import { numberText } from '../../units/number';
import { unit, warmthText } from '../../units/quantity';
import { plural } from '../plural';

export const mend = {
  title: {
    too_fast: 'Asciuga troppo in fretta: si chiude una crosta',
    too_slow: 'Asciuga troppo piano: patina e muffe sbagliate ne approfittano',
    stuck: 'Fermo: in quest’aria non ci arriva',
    overshooting: 'Pronto, e va oltre il traguardo',
  },
  ways: {
    hook: (rod: number, hook: number): string => `Appenderlo all’asta ${rod}, gancio ${hook}`,
    humidity: (rh: string): string => `Mettere tutto il locale al ${rh} %`,
    airLess: 'Un terzo di aria in meno su di lui',
    airMore: 'Metà aria in più su di lui',
    wrap: 'Avvolgerlo in una membrana',
    rest: (weeks: string): string => `Sigillarlo e farlo riposare ${weeks} settimane, poi riappenderlo`,
    take_down: 'Sentirlo e tirarlo giù',
  },
  later: (days: number): string =>
    Math.abs(days) < 0.75
      ? 'stesso giorno'
      : `${plural(Math.round(Math.abs(days)), 'giorno', 'giorni')} ${days > 0 ? 'dopo' : 'prima'}`,
  date: 'data',
  ring: (now: string): string => `crosta, ora ${now}`,
  ringHelp: 'Indice di crosta: 0 uniforme, 1 bordo secco su cuore bagnato; la più forte che deve venire.',
  over: (day: string): string =>
    `Oltre il traguardo di 3 punti circa il ${day}: fin lì non fa male, da lì si perdono peso e consistenza.`,
  overSince: (day: string): string =>
    `Oltre il traguardo di 3 punti circa dal ${day}: si perdono peso e consistenza.`,
  costs: (g: string, money: string | null): string =>
    `Ogni giorno perde circa ${g}${money === null ? '' : `, che valgono ${money}`}.`,
  move: 'Spostalo',
};

export const rods = {
  title: 'Aste e ganci',
  rod: (n: number): string => `Asta ${n}`,
  hooks: 'ganci',
  spacing: `fra i ganci, ${unit.length}`,
  keep: 'Tieni',
  add: 'Un’asta in più',
  close: (pairs: string): string => `Troppo vicini, in mezzo deve passare aria: ${pairs}`,
  short: (length: string): string => `Troppo pieno: a ciò che è appeso servono ancora ${length} di asta`,
  and: (a: string, b: string): string => `${a} e ${b}`,
  shift: (rh: number | null, c: number | null): string => {
    const said = [
      rh === null ? '' : `${numberText(Math.abs(rh), 0)} punti più ${rh > 0 ? 'umida' : 'secca'}`,
      c === null ? '' : `${warmthText(Math.abs(c))} più ${c > 0 ? 'calda' : 'fredda'}`,
    ];
    return `L’aria è ${said.filter(Boolean).join(' e ')} che nelle due settimane prima: qui lo sente tutto.`;
  },
  suits: 'Per che cosa va bene questo locale',
  suitsHint: `Ore dell’ultimo mese entro ${warmthText(4, 0)} e 9 punti da dove ogni genere di solito sta appeso.`,
  verdicts: { fit: 'va bene', with_care: 'con attenzione', unfit: 'non va' },
  mostly: { warm: 'troppo caldo', cold: 'troppo freddo', damp: 'troppo umido', dry: 'troppo secco' },
  suitsShare: (share: string): string => `${share} delle ore`,
  suitsOff: (share: string, what: string): string => `${what} nel ${share}`,
  unfit: (names: string): string => `Non va per ${names}.`,
};

export const standins = { scale: 'Mettilo sulla bilancia', meter: 'Immergi il pHmetro' };

export const photos = {
  add: 'Fai una foto',
  of: (day: string): string => `Foto di ${day}`,
  strikeWhy: 'Perché si barra?',
  none: 'Tenute piccole, senza luogo né macchina.',
};
