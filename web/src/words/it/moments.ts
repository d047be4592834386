// Moments as they are said in Italian, turned word by word into what the reader of moments knows.

/** A word with nothing of a word before or behind it. */
const word = (text: string): RegExp => new RegExp(`(?<!\\p{L})(?:${text})(?!\\p{L})`, 'gu');

const MONTHS: Record<string, string> = {
  'gen(?:naio)?': 'jan',
  'feb(?:braio)?': 'feb',
  'mar(?:zo)?': 'mar',
  'apr(?:ile)?': 'apr',
  'mag(?:gio)?': 'may',
  'giu(?:gno)?': 'jun',
  'lug(?:lio)?': 'jul',
  'ago(?:sto)?': 'aug',
  'sett?(?:embre)?': 'sep',
  'ott(?:obre)?': 'oct',
  'nov(?:embre)?': 'nov',
  'dic(?:embre)?': 'dec',
};
const DAYS: Record<string, string> = {
  "lun(?:ed[iì]'?)?": 'mon',
  "mar(?:ted[iì]'?)?": 'tue',
  "mer(?:coled[iì]'?)?": 'wed',
  "gio(?:ved[iì]'?)?": 'thu',
  "ven(?:erd[iì]'?)?": 'fri',
  'sab(?:ato)?': 'sat',
  'dom(?:enica)?': 'sun',
};
const WORDS: readonly [RegExp, string][] = [
  [/(\d)[°º]/g, '$1'],
  // what stands behind a number is a month, so that "12 mar" is in March and "mar" a Tuesday
  ...Object.entries(DAYS).map(([day, name]): [RegExp, string] => [
    word(`(?<!\\d\\.? ?)${day}(?: scors[oa])?`),
    name,
  ]),
  ...Object.entries(MONTHS).map(([month, name]): [RegExp, string] => [
    word(`(?<=\\d)\\.? ?(?:di )?${month}`),
    ` ${name}`,
  ]),
  [word("l' ?altro ?ieri|ieri l' ?altro|altroieri"), 'the day before yesterday'],
  [word('ieri(?: (?:sera|mattina|pomeriggio))?'), 'yesterday'],
  [word('oggi|stamattina|stasera'), 'today'],
  [word('(\\d+) minut[oi] fa'), '$1 min ago'],
  [word('(\\d+) or[ae] fa'), '$1 hours ago'],
  [word("un' ?ora fa"), '1 hour ago'],
  [word('(\\d+) giorn[oi] fa'), '$1 days ago'],
  [word('(\\d+) settiman[ae] fa'), '$1 weeks ago'],
  [word('adesso|ora'), 'now'],
  [word('(?:alle|ore) (\\d{1,2}) e mezz[ao]'), 'at $1:30'],
  [/(?:alle|ore) (\d{1,2})(?![\d:.h])/g, 'at $1:00'],
  [word('alle|ore'), 'at'],
];

/** What was typed, small, in the words that are known. */
export const reads = (typed: string): string =>
  WORDS.reduce((text, [said, as]) => text.replace(said, as), typed.replace(/’/g, "'"));
