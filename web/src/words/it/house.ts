// The texts of house, in Italian.
import { numberText } from '../../units/number';
import { plural } from '../plural';

const megabytes = (mb: number): string => `${mb < 10 ? numberText(mb, 1) : numberText(mb, 0)} MB`;

export const house = {
  title: 'Casa',
  rooms: {
    workshop: 'Laboratorio',
    people: 'Persone',
    devices: 'Apparecchi',
    alarms: 'Allarmi',
    copies: 'Copie',
  },
  open: 'Casa: persone, apparecchi, allarmi, copie',

  signIn: 'Entra',
  signInHint: 'Tutto ciò che si scrive qui è scritto da chi è entrato.',
  onTablet: (tablet: string) => `${tablet}: toccare il proprio nome, poi il PIN.`,
  name: 'Nome',
  passphrase: 'Parola d’ordine',
  pin: 'PIN',
  oneBack: 'Una cifra indietro',
  in: 'Entra',
  byPassphrase: 'Piuttosto con la parola d’ordine',
  byPin: 'Piuttosto con un PIN',
  forgot:
    'Dimenticata? Un titolare ne dà una nuova. Quella di un titolare si fa sulla macchina stessa: zymon owner NOME.',
  confirm: 'Firmato da voi',
  confirmHint: (name: string) =>
    `${name}, qui si firma. Dare ancora una volta il proprio segreto; vale due minuti.`,
  sign: 'Firma',
  leave: 'Lascia stare',
  signOut: 'Esci',

  workshopHint: 'Come si chiama, a che ora sta, e con quale indirizzo lo raggiungono tablet e cartellini.',
  peopleMany: 'Quanti lavorano qui',
  peopleManyHint: 'per i limiti che lo chiedono',
  address: 'Indirizzo per i tablet',
  addressHint:
    'Cartellini, etichette e calendario portano questo indirizzo; le pagine rispondono con questo nome.',
  noAddress:
    'Nessuno: i cartellini portano solo a questa macchina. Per aprire Zymon alla rete locale, vedere docs/security.md.',
  keep: 'Tieni',
  kept: 'Tenuto',
  calendar: 'Il giro nel proprio calendario',
  calendarHint: 'Abbonarsi a questo indirizzo; porta ciò che c’è da fare, e cambia da sé.',
  calendarOwn: 'Un indirizzo proprio: legge solo il giro, e lo si chiude in Persone.',
  calendarShow: 'Mostra l’indirizzo',

  shown: {
    title: 'Lingua e unità',
    here: 'Come questo browser mostra e legge tutto. Dentro si tiene in grammi, gradi Celsius e millimetri.',
    yours: 'Come leggete tutto, ovunque entriate. Dentro si tiene in grammi, gradi Celsius e millimetri.',
    language: 'Lingua',
    mass: 'Pesi',
    temperature: 'Temperatura',
    length: 'Lunghezze',
    liquid: 'Liquidi',
    hours: 'Ora del giorno',
    week: 'La settimana comincia di',
    days: { '1': 'lunedì', '0': 'domenica', '6': 'sabato' },
    go: 'Mostra così',
    everywhere: 'anche per la posta, e per i calendari per cui nessuno ha scelto',
    files:
      'I file restano come sono: inglese, grammi e gradi Celsius. Un’unità scritta con il numero vale: 1,5 lb, 55 °F.',
  },

  peopleHint: 'Chi lavora qui, che cosa può fare ognuno, e da dove è entrato.',
  alone:
    'Nessuno entra con un nome: chi siede a questa macchina fa tutto. Appena mettete qualcuno a registro, tutti entrano con il proprio.',
  role: 'Ruolo',
  roles: { owner: 'Titolare', maker: 'Salumiere', helper: 'Aiutante', inspector: 'Ispettore' },
  may: {
    owner: 'fa tutto, e tiene persone, apparecchi e limiti',
    maker: 'fa, pesa, corregge e firma',
    helper: 'pesa, misura e spunta; non corregge né firma',
    inspector: 'guarda tutto, non cambia niente',
  },
  since: (day: string, by: string) => `da ${day}, di ${by}`,
  hasPin: 'ha un PIN',
  noPassphrase: 'ancora senza parola d’ordine: darne una',
  waits: (until: string) => `troppi tentativi sbagliati: aspetta fino a ${until}`,
  roleOf: (name: string) => `Ruolo di ${name}`,
  newPassphrase: 'Nuova parola d’ordine',
  passphraseFor: (name: string) => `Nuova parola d’ordine per ${name}`,
  give: 'Dalla',
  giveHint: 'Esce dappertutto, e sceglie la propria una volta rientrato.',
  worksNoMore: 'Non lavora più qui',
  add: 'Aggiungi qualcuno',
  addFirst: 'Comincia a entrare con un nome',
  firstIsOwner: 'Il primo è un titolare: voi.',
  passphraseHint: 'Almeno dieci caratteri; tre o quattro parole che nessuno indovinerebbe.',
  you: 'Voi',
  youAre: (name: string, role: string) => `${name}, ${role}.`,
  aPin: 'Un PIN per i tablet fidati',
  anotherPin: 'Un altro PIN',
  anotherPassphrase: 'Un’altra parola d’ordine',
  passphraseNow: 'Parola d’ordine di adesso',
  pinWanted: 'PIN, da quattro a otto cifre',
  passphraseWanted: 'Nuova parola d’ordine',
  change: 'Cambia',
  pinChanged: 'Il PIN è cambiato',
  passphraseChanged: 'La parola d’ordine è cambiata; altrove siete usciti',
  tablets: 'Tablet fidati',
  tabletsHint: 'Su un tablet appeso alla cella basta un PIN corto. Fidarsene dal tablet stesso.',
  trusted: (by: string, day: string) => `fidato da ${by}, ${day}`,
  trust: 'Fidati di questo apparecchio',
  tabletName: 'Come si chiama questo tablet',
  thisTablet: (name: string) => `Questo apparecchio è fidato come ${name}.`,
  trustNoMore: 'Non fidartene più',
  browsers: 'Entrati',
  aCalendar: 'un calendario',
  browser: (text: string) => /(Firefox|Edg|Chrome|Safari)/.exec(text)?.[1] ?? 'un browser',
  byPinOn: (tablet: string) => `con PIN su ${tablet}`,
  seen: (age: string) => `visto ${age} fa`,
  thisOne: 'questo',
  signOutThere: 'Fallo uscire lì',
  left: 'Hanno lavorato qui',
  leftSince: (day: string, by: string) => `fino a ${day} (${by}); ciò che hanno scritto resta loro`,

  broker: {
    none: () => 'Nessun broker impostato: gli apparecchi mandano in HTTP. Un broker si mette con ZYMON_MQTT.',
    reaching: (where: string) => `Si cerca il broker a ${where} …`,
    linked: (where: string) => `Collegato al broker a ${where}.`,
    away: (where: string) => `Il broker a ${where} non risponde; si riprova da sé.`,
    ended: (where: string) => `Il collegamento al broker a ${where} è stato chiuso.`,
  },
  brokerTold: (age: string, messages: number, refused: number) =>
    `Da ${age}; ${plural(messages, 'messaggio', 'messaggi')}${refused ? `, ${refused} rifiutati` : ''}.`,
  devicesHint:
    'Che cosa manda letture da sé. Ciò che un apparecchio ha mandato resta, qualunque cosa ne sia.',
  noDevices: 'Ancora nessuno.',
  tokenOf: (name: string) => `${name} manda con questa chiave. Si mostra solo stavolta:`,
  newToken: 'Nuova chiave',
  onAgain: 'Riaccendi, con una chiave nuova',
  switchOff: 'Spegni',
  offSince: (day: string, by: string) => `spento ${day}, da ${by}`,
  placeOf: (name: string) => `Locale di ${name}`,
  place: 'Locale',

  copiesHint:
    'Il registro è un solo file. Ogni notte se ne fa una copia, si controlla, e gli si tiene accanto.',
  nightly: 'Copie notturne',
  lastCopy: (at: string) => `L’ultima buona è di ${at}.`,
  old: 'È troppo vecchia.',
  noCopy: 'Non ce n’è ancora nessuna.',
  failed: (why: string) => `L’ultimo tentativo non è riuscito: ${why}`,
  keptFor: (days: number, weeks: number) =>
    `Se ne tiene una per ognuno degli ultimi ${plural(days, 'giorno', 'giorni')}, e per ognuna di ${plural(weeks, 'settimana', 'settimane')}.`,
  notHere: 'Questo server non ne fa da sé.',
  theRecord: 'Il registro',
  theCopies: 'Le copie',
  elsewhere:
    'Stanno entrambi su questa macchina. Portare ogni tanto una copia su un altro disco: un incendio li prende tutti e due.',
  megabytes,
  copyTook: (seconds: number) =>
    seconds < 1
      ? 'Ci ha messo meno di un secondo.'
      : `Ci ha messo ${plural(Math.round(seconds), 'secondo', 'secondi')}.`,
  copyNow: 'Fanne una adesso',
  copied: 'Una copia è stata fatta e controllata',
  disk: 'Posto sul disco',
  diskTold: {
    record: 'Il registro',
    unused: (size: string) => `di cui ${size} vuoti, che si riempiono per primi`,
    copies: (many: number) => `${plural(many, 'sua copia', 'sue copie')}`,
    free: 'Liberi su questo disco',
    readings: 'Letture dell’aria',
  },
  size: (bytes: number) => (bytes < 1e9 ? megabytes(bytes / 1e6) : `${numberText(bytes / 1e9, 1)} GB`),
  thin: 'Dirada il vecchio',
  thinHint: (readings: number, since: string, size: string) =>
    `${readings.toLocaleString('it')} letture più vecchie di ${since} possono diventare medie di cinque minuti con la più bassa e la più alta. Si libererebbero circa ${size}. Grafici, date e giudizi restano come sono; i singoli minuti non tornano.`,
  thinArchive: 'Prima porta fuori tutto',
  thinYes: 'Sì, diradale',
  thinNo: 'Lasciale',
  thinning: (percent: number) => `Si dirada: fatto il ${percent} %. Intanto si può scrivere.`,
  thinFailed: (why: string) => `Si è fermato: ${why}`,
  thinGoOn: 'Continua',
  thinBroken: (by: string, at: string) => `Ciò che ${by} ha cominciato il ${at} non è arrivato alla fine.`,
  thinned: (before: string, was: number, left: number, by: string, at: string) =>
    `Letture più vecchie di ${before}: ${was.toLocaleString('it')} sono diventate ${left.toLocaleString('it')} (${by}, ${at}).`,
  takeOut: 'Porta fuori tutto',
  takeOutHint:
    'Ogni tabella, ogni foto, ogni partita, locale e ricetta in file aperti, con un foglio di calcolo per le persone, in uno zip. Dopo dieci anni ci vuole un minuto o due.',
  takeOutNow: 'Porta fuori tutto',
  noSecrets: 'Parole d’ordine e chiavi restano qui: chi porta dentro l’archivio ne dà di nuove.',
  putBack: 'Rimetti',
  putBackHint:
    'Non mentre Zymon gira. Nella riga di comando di questa macchina; ciò che c’era prima si tiene:',
  bringIn: 'Oppure porta dentro l’archivio di un altro Zymon',
  bringInHint: 'Lo zip scritto da “Porta fuori tutto”. Tutto, o niente.',
  broughtIn: (rows: number) => `Qui ci sono ${rows.toLocaleString('it')} righe.`,
  people:
    'Le parole d’ordine non stanno in nessun archivio. Darne una al titolare su questa macchina: zymon owner NOME.',

  trouble: {
    disk_full:
      'Il disco è pieno: ciò che si scrive adesso non è tenuto. Fare spazio; ciò che c’era prima è al sicuro.',
    read_only: 'Sul registro non si può scrivere: ciò che si scrive adesso non è tenuto.',
    busy: 'Il registro è occupato da altro: l’ultima voce non è stata tenuta.',
  },
  waitsFor: (many: number, names: string) =>
    `${plural(many, 'peso scritto', 'pesi scritti')} da ${names} ${many === 1 ? 'aspetta' : 'aspettano'} che rientri.`,
};
