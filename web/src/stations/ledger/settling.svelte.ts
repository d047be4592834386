// What is entered to settle a hurdle: which entry is open, what is typed, and sending it.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { optionalAs, optionalNumber } from '../../forms/typed';
import { When } from '../../forms/when.svelte';
import { words } from '../../words';

export type Entry = Schema['HurdleOut']['entries'][number];
/** Entries that are typed where the hurdle stands; the others are made elsewhere. */
export const TYPED = [
  'sign',
  'laboratory',
  'parasites',
  'went_in',
  'step',
  'choices',
  'measure_ph',
  'meat',
] as const;
export type Typed = (typeof TYPED)[number];
type Ledger = Schema['LedgerOut'];

const FIRST: Record<string, Schema['LabIn']['what']> = {
  salt: 'salt',
  degree_hours: 'staphylococcal_enterotoxin',
};

const blank = () => ({
  reason: '',
  value: '',
  loss: '',
  note: '',
  c: '',
  days: '',
  thick: '',
  fat: '',
  salt: '',
  curing: '',
  nitrite: '',
  nitrate: '',
});

export class Settling {
  /** What a laboratory tells, and in which units: the server's to say. */
  units = $state<Ledger['lab_units']>({});
  hurdle = $state<string | null>(null);
  entry = $state<Typed | null>(null);
  typed = $state(blank());
  what = $state<Schema['LabIn']['what']>('water_activity');
  unit = $state<Schema['LabIn']['unit']>('');
  of = $state<'product' | 'mix'>('product');
  tag = $state('');
  species = $state<Schema['ParasiteIn']['species'] | ''>('');
  way = $state<Schema['ParasiteIn']['way']>('certified');
  curing = $state<Schema['WentInIn']['curing']>('');
  step = $state<Schema['StepIn']['step']>('held');
  use = $state<Schema['ChoicesIn']['use']>('raw');
  doneBy = $state<Schema['ChoicesIn']['done_by']>('weight');
  meter = $state(0);
  lay = $state<Schema['MeatIn']['kind']>('cold');
  place = $state(0);
  fault = $state<string | null>(null);
  /** What was asked about the entry; sent again, it is as typed. */
  asked = $state(false);
  busy = $state(false);
  readonly when = new When();
  /** Until when the meat lay there. */
  readonly until = new When();

  constructor(
    private readonly batch: () => number,
    private readonly took: (answer: Ledger) => void,
  ) {}

  /** Open an entry for a hurdle; what is known of the batch stands in it already. */
  open(hurdle: string, entry: Typed, ledger: Ledger): void {
    this.hurdle = hurdle;
    this.entry = entry;
    this.fault = null;
    this.asked = false;
    this.typed = blank();
    this.when.clear();
    this.until.clear();
    this.when.open = this.until.open = entry === 'meat' && hurdle !== 'cold_mix';
    this.lay = hurdle === 'cold_mix' ? 'mix' : 'cold';
    this.units = ledger.lab_units;
    this.pick(FIRST[hurdle] ?? 'water_activity');
    const first = ledger.species[0];
    this.species = entry === 'parasites' ? ((first as Schema['ParasiteIn']['species']) ?? 'pork') : '';
    this.curing = '';
    this.use = ledger.use;
    this.doneBy = ledger.done_by;
  }

  close(): void {
    this.hurdle = this.entry = null;
  }

  pick(what: Schema['LabIn']['what']): void {
    this.what = what;
    this.unit = (this.units[what]?.[0] ?? '') as Schema['LabIn']['unit'];
  }

  /** A value that is found or not, rather than measured. */
  get isFound(): boolean {
    return this.unit === 'in 25 g' || this.what === 'staphylococcal_enterotoxin';
  }

  async send(sure = false): Promise<void> {
    if (this.busy || !this.entry) return;
    this.busy = true;
    try {
      this.took(await this.sent(sure));
      this.close();
      this.fault = null;
    } catch (error) {
      this.asked = error instanceof ProblemError && error.code === 'doubtful';
      this.fault = error instanceof Error ? error.message : words.errors.unexpected(0);
    } finally {
      this.busy = false;
    }
  }

  private sent(sure: boolean): Promise<Ledger> {
    const params = { path: { batch_id: this.batch() } };
    const top = head(this.when, sure);
    const hurdle = this.hurdle ?? '';
    const t = this.typed;
    switch (this.entry) {
      case 'sign':
        return take(
          api.POST('/api/batches/{batch_id}/signatures', {
            params,
            body: { hurdle, reason: t.reason, ...top },
          }),
        );
      case 'step':
        return take(
          api.POST('/api/batches/{batch_id}/steps', {
            params,
            body: { hurdle, step: this.step, note: t.note, ...top },
          }),
        );
      case 'choices':
        return take(
          api.PUT('/api/batches/{batch_id}/choices', {
            params,
            body: { use: this.use, done_by: this.doneBy, ...top },
          }),
        );
      case 'parasites': {
        const thick_mm = optionalAs('thick', t.thick);
        return take(
          api.POST('/api/batches/{batch_id}/parasites', {
            params,
            body: {
              species: this.species || 'pork',
              way: this.way,
              temperature_c: optionalAs('temperature', t.c),
              days: optionalNumber(t.days),
              thickness_cm: thick_mm === null ? null : thick_mm / 10,
              note: t.note,
              ...top,
            },
          }),
        );
      }
      case 'meat':
        return take(api.POST('/api/batches/{batch_id}/meat', { params, body: this.meat(top) }));
      case 'measure_ph': {
        const ph = optionalNumber(t.value);
        if (ph === null) throw new Error(words.errors.noNumber);
        return take(
          api.POST('/api/batches/{batch_id}/ph', {
            params,
            body: { ph, meter_id: this.meter || null, ...top },
          }),
        );
      }
      case 'went_in':
        return take(api.POST('/api/batches/{batch_id}/went-in', { params, body: this.wentIn(top) }));
      default:
        return take(api.POST('/api/batches/{batch_id}/laboratory', { params, body: this.laboratory(top) }));
    }
  }

  private meat(top: ReturnType<typeof head>): Schema['MeatIn'] {
    const mixed = this.lay === 'mix';
    return {
      kind: this.lay,
      temperature_c: mixed ? optionalAs('temperature', this.typed.c) : null,
      place_id: mixed ? null : this.place || null,
      to_at: mixed ? null : this.until.at,
      note: this.typed.note,
      ...top,
    };
  }

  private laboratory(top: ReturnType<typeof head>): Schema['LabIn'] {
    const value = optionalNumber(this.typed.value);
    if (value === null) throw new Error(words.errors.noNumber);
    return {
      what: this.what,
      value,
      unit: this.unit,
      taken_of: this.of,
      tag: this.tag || null,
      loss_percent: optionalNumber(this.typed.loss),
      note: this.typed.note,
      ...top,
    };
  }

  private wentIn(top: ReturnType<typeof head>): Schema['WentInIn'] {
    const t = this.typed;
    const share = (text: string): number => (optionalNumber(text) ?? 0) / 100;
    return {
      species: this.species || null,
      fat_percent: optionalNumber(t.fat),
      salt_percent: optionalNumber(t.salt),
      curing: this.curing,
      curing_salt:
        this.curing === 'weighed'
          ? {
              name: words.ledger.curing,
              percent: optionalNumber(t.curing) ?? 0,
              nitrite_fraction: share(t.nitrite),
              nitrate_fraction: share(t.nitrate),
            }
          : null,
      ...top,
    };
  }
}
