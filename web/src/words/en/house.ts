// Words of the House: the door, people, devices, copies of the record.
import { plural } from '../plural';
import { numberText } from '../../units/number';

const megabytes = (mb: number): string => `${mb < 10 ? numberText(mb, 1) : numberText(mb, 0)} MB`;

export const house = {
  title: 'House',
  rooms: { workshop: 'Workshop', people: 'People', devices: 'Devices', alarms: 'Alarms', copies: 'Copies' },
  open: 'House: people, devices, alarms, copies',

  signIn: 'Sign in',
  signInHint: 'Everything entered here is entered by whoever is signed in.',
  onTablet: (tablet: string) => `${tablet}: tap your name, then your PIN.`,
  name: 'Name',
  passphrase: 'Passphrase',
  pin: 'PIN',
  oneBack: 'One digit back',
  in: 'In',
  byPassphrase: 'With a passphrase instead',
  byPin: 'With a PIN instead',
  forgot:
    'Forgotten? An owner gives you a new passphrase. An owner’s own is made on the machine itself: zymon owner NAME.',
  confirm: 'Signed by you',
  confirmHint: (name: string) =>
    `${name}, this is signed. Give your secret once more; it holds for two minutes.`,
  sign: 'Sign',
  leave: 'Leave it',
  signOut: 'Sign out',

  workshopHint: 'What it is called, where its clock stands, and by which address tablets and tags reach it.',
  peopleMany: 'How many work here',
  peopleManyHint: 'for limits that ask',
  address: 'Address for tablets',
  addressHint: 'Tags, labels and the calendar carry this address; pages are answered under its name.',
  noAddress:
    'None: tags lead to this machine only. To open Zymon to the local network, see docs/security.md.',
  keep: 'Keep',
  kept: 'Kept',
  calendar: 'The round in your calendar',
  calendarHint: 'Subscribe to this address; it brings what is due, and changes by itself.',
  calendarOwn: 'An address of your own: it only reads the round, and you can end it under People.',
  calendarShow: 'Show the address',

  shown: {
    title: 'Language and units',
    here: 'As this browser shows and reads everything. Inside, all is kept in grams, degrees Celsius and millimetres.',
    yours:
      'As you read everything, wherever you sign in. Inside, all is kept in grams, degrees Celsius and millimetres.',
    language: 'Language',
    mass: 'Weights',
    temperature: 'Temperature',
    length: 'Lengths',
    liquid: 'Liquids',
    hours: 'Time of day',
    week: 'A week begins on',
    days: { '1': 'Monday', '0': 'Sunday', '6': 'Saturday' },
    go: 'Show it so',
    everywhere: 'also for mails, and for calendars that nobody chose for',
    files:
      'Files stay as they are: English, grams and degrees Celsius. A unit typed with a number counts: 1.5 lb, 55 °F.',
  },

  peopleHint: 'Who works here, what each may do, and where they are signed in.',
  alone:
    'Nobody signs in: whoever sits at this machine does everything. Once you put somebody on record, everybody signs in.',
  role: 'Role',
  roles: { owner: 'Owner', maker: 'Maker', helper: 'Helper', inspector: 'Inspector' },
  may: {
    owner: 'does everything, and keeps people, devices and limits',
    maker: 'makes, weighs, corrects and signs',
    helper: 'weighs, measures and ticks; does not correct or sign',
    inspector: 'looks at everything, changes nothing',
  },
  since: (day: string, by: string) => `since ${day}, by ${by}`,
  hasPin: 'has a PIN',
  noPassphrase: 'no passphrase yet: give one',
  waits: (until: string) => `too many wrong tries: waits until ${until}`,
  roleOf: (name: string) => `Role of ${name}`,
  newPassphrase: 'New passphrase',
  passphraseFor: (name: string) => `New passphrase for ${name}`,
  give: 'Give it',
  giveHint: 'They are signed out everywhere, and choose their own once they are in.',
  worksNoMore: 'Works here no more',
  add: 'Add somebody',
  addFirst: 'Begin signing in',
  firstIsOwner: 'The first is an owner: you.',
  passphraseHint: 'At least ten characters; three or four words that nobody would guess.',
  you: 'You',
  youAre: (name: string, role: string) => `${name}, ${role}.`,
  aPin: 'A PIN for trusted tablets',
  anotherPin: 'Another PIN',
  anotherPassphrase: 'Another passphrase',
  passphraseNow: 'Passphrase as it is now',
  pinWanted: 'PIN, four to eight digits',
  passphraseWanted: 'New passphrase',
  change: 'Change it',
  pinChanged: 'Your PIN is changed',
  passphraseChanged: 'Your passphrase is changed; you are signed out everywhere else',
  tablets: 'Trusted tablets',
  tabletsHint: 'On a tablet that hangs at the chamber a short PIN will do. Trust it from the tablet itself.',
  trusted: (by: string, day: string) => `trusted by ${by}, ${day}`,
  trust: 'Trust this device',
  tabletName: 'What this tablet is called',
  thisTablet: (name: string) => `This device is trusted as ${name}.`,
  trustNoMore: 'Trust it no more',
  browsers: 'Signed in',
  aCalendar: 'a calendar',
  browser: (text: string) => /(Firefox|Edg|Chrome|Safari)/.exec(text)?.[1] ?? 'a browser',
  byPinOn: (tablet: string) => `by PIN on ${tablet}`,
  seen: (age: string) => `seen ${age} ago`,
  thisOne: 'this one',
  signOutThere: 'Sign out there',
  left: 'Worked here',
  leftSince: (day: string, by: string) => `until ${day} (${by}); what they entered stays theirs`,

  broker: {
    none: () => 'No broker is set: devices send over HTTP. A broker is set by ZYMON_MQTT.',
    reaching: (where: string) => `Reaching the broker at ${where} …`,
    linked: (where: string) => `Linked with the broker at ${where}.`,
    away: (where: string) => `The broker at ${where} does not answer; it is tried again by itself.`,
    ended: (where: string) => `The link with the broker at ${where} was ended.`,
  },
  brokerTold: (age: string, messages: number, refused: number) =>
    `For ${age}; ${messages} ${messages === 1 ? 'message' : 'messages'}${refused ? `, ${refused} refused` : ''}.`,
  devicesHint: 'What sends readings by itself. What a device sent stays, whatever becomes of it.',
  noDevices: 'None yet.',
  tokenOf: (name: string) => `${name} sends with this token. It is shown this once:`,
  newToken: 'New token',
  onAgain: 'On again, with a new token',
  switchOff: 'Switch off',
  offSince: (day: string, by: string) => `switched off ${day}, by ${by}`,
  placeOf: (name: string) => `Place of ${name}`,
  place: 'Place',

  copiesHint: 'The record is one file. A copy is taken every night, looked through, and kept beside it.',
  nightly: 'Nightly copies',
  lastCopy: (at: string) => `The last good one is of ${at}.`,
  old: 'That is too old.',
  noCopy: 'There is none yet.',
  failed: (why: string) => `The latest try came to nothing: ${why}`,
  keptFor: (days: number, weeks: number) =>
    `One is kept for each of the last ${plural(days, 'day', 'days')}, and for each of ${plural(weeks, 'week', 'weeks')}.`,
  notHere: 'This server takes none by itself.',
  theRecord: 'The record',
  theCopies: 'The copies',
  elsewhere: 'Both are on this machine. Carry a copy to another disk now and then: a fire takes both.',
  megabytes,
  copyTook: (seconds: number) =>
    seconds < 1
      ? 'It took less than a second.'
      : `It took ${plural(Math.round(seconds), 'second', 'seconds')}.`,
  copyNow: 'Take one now',
  copied: 'A copy was taken and looked through',
  disk: 'Room on the disk',
  diskTold: {
    record: 'The record',
    unused: (size: string) => `of it ${size} is empty and is filled first`,
    copies: (many: number) => `${plural(many, 'copy', 'copies')} of it`,
    free: 'Free on this disk',
    readings: 'Readings of the air',
  },
  size: (bytes: number) =>
    bytes < 1e9
      ? megabytes(bytes / 1e6)
      : `${(bytes / 1e9).toLocaleString('en', { maximumFractionDigits: 1 })} GB`,
  thin: 'Thin what is old',
  thinHint: (readings: number, since: string, size: string) =>
    `${readings.toLocaleString('en')} readings older than ${since} could become means of five minutes with their lowest and highest. About ${size} would become empty. Charts, dates and judgements stay as they are; the single minutes do not come back.`,
  thinArchive: 'Take everything out first',
  thinYes: 'Yes, thin them',
  thinNo: 'Leave them',
  thinning: (percent: number) => `Thinning: ${percent} % done. Entries go on meanwhile.`,
  thinFailed: (why: string) => `It stopped: ${why}`,
  thinGoOn: 'Go on',
  thinBroken: (by: string, at: string) => `What ${by} began on ${at} did not come to its end.`,
  thinned: (before: string, was: number, left: number, by: string, at: string) =>
    `Readings older than ${before}: ${was.toLocaleString('en')} became ${left.toLocaleString('en')} (${by}, ${at}).`,
  takeOut: 'Take everything out',
  takeOutHint:
    'Every table, every photo, every batch, place and recipe in open files, with a spreadsheet for people, in one zip. After ten years it takes a minute or two.',
  takeOutNow: 'Take everything out',
  noSecrets: 'Passphrases and tokens stay here: whoever brings the archive in gives new ones.',
  putBack: 'Put back',
  putBackHint: 'Not while Zymon runs. In a shell on this machine; what was there before is kept:',
  bringIn: 'Or bring in an archive of another Zymon',
  bringInHint: 'The zip that “Take everything out” wrote. All of it, or nothing.',
  broughtIn: (rows: number) => `${rows.toLocaleString('en')} rows are here.`,
  people: 'Passphrases are in no archive. Give the owner one on this machine: zymon owner NAME.',

  trouble: {
    disk_full:
      'The disk is full: what is entered now is not kept. Make room; what was entered before is safe.',
    read_only: 'The record cannot be written to: what is entered now is not kept.',
    busy: 'The record is held by something else: what was entered last was not kept.',
  },
  waitsFor: (many: number, names: string) =>
    `${plural(many, 'weight', 'weights')} typed by ${names} ${many === 1 ? 'waits' : 'wait'} until they sign in.`,
};
