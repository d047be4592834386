// What comes in, in Italian: what scales and meters show, files and what is asked of them.
import { plural } from '../plural';

const many = (n: number): string => n.toLocaleString('it');

export const instruments = {
  wired: 'Bilancia sul cavo',
  ago: (s: number) => (s < 2 ? 'adesso' : s < 90 ? `${Math.round(s)} s fa` : `${Math.round(s / 60)} min fa`),
  steady: 'ferma',
  take: 'Prendilo',
  hold: 'Aspetta che sia ferma',
  waiting: 'Aspetto che sia ferma … basta',
  connect: 'Collega una bilancia col cavo',
  disconnect: 'Lascia la bilancia',
  listens: 'collegata, ancora non mostra niente',
  lost: 'la bilancia è stata staccata',
  notConnected: 'Nessuna bilancia è stata collegata.',
};

export const imports = {
  title: 'Porta un file',
  text: 'Un registro del clima, pesi o pH in CSV o .xlsx, o un file degli appesi. Si vede che cosa contiene prima che si tenga qualcosa.',
  choose: 'Scegli un file',
  drop: 'o lascialo qui',
  asksTitle: 'Prima di leggerlo: che cosa intende il file?',
  asksText:
    'Il file non lo dice. Si risponde una volta; il prossimo con la stessa intestazione si legge uguale.',
  other: 'un altro …',
  zoneName: 'Fuso orario, come Europe/Rome',
  saidBefore: (by: string, day: string) => `Come ha detto ${by} il ${day}.`,
  change: 'Rispondi di nuovo',
  readSo: 'Leggilo così',
  firstRows: 'Le prime righe, come si sono capite',
  inFile: 'Nel file',
  asRead: 'Letto come',
  faultyRow: 'non si legge',
  understood: 'Capito',
  would: 'Che cosa porta',
  newRows: (n: number) => `${many(n)} nuove`,
  same: (n: number) => `${many(n)} già qui, saltate`,
  conflict: (n: number) => `${many(n)} diverse da quelle tenute; valgono quelle tenute`,
  faults: (n: number) => plural(n, 'riga sbagliata', 'righe sbagliate'),
  line: (n: number) => (n ? `riga ${n}` : 'file'),
  leaveOut: 'lascia fuori queste righe',
  doubtful: (n: number) => `${many(n)} in dubbio: ${n === 1 ? 'vale' : 'valgono'}?`,
  doubtText: 'Alla bilancia si chiederebbe. Del file non si tiene niente prima che ognuna abbia risposta.',
  count: 'Vale',
  leave: 'Lasciala fuori',
  leaveAll: 'Lasciale fuori tutte',
  confirm: 'Portalo dentro',
  nothing: 'In questo file non c’è niente di nuovo.',
  done: (n: number) => `${many(n)} righe portate dentro`,
  span: (a: string, b: string) => `da ${a} a ${b}`,
  asOf: (day: string) => `Previsione al giorno del file, ${day}`,
  reading: 'Leggo il file …',
  storing: 'Tengo …',
  kinds: { climate: 'Registro del clima', weights: 'Pesi', ph: 'Letture del pH', hang: 'File degli appesi' },
  stop: 'Ferma',
};
