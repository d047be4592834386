// A place in the making: what it is, where pieces hang or lie in it, what it is set to where something is set.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { optionalAs, optionalNumber } from '../../forms/typed';
import { fieldText } from '../../units/quantity';
import { words } from '../../words';

export type Sort = NonNullable<Schema['PlaceIn']['sort']>;
export type What = Sort | 'warm' | 'salt' | 'store';
export type Stirring = NonNullable<Schema['PlaceIn']['stirring']>;

/** What is usually set, °C and %, where a controller sets it; a start, not a rule. */
const SET: Partial<Record<What, [number, string]>> = {
  drying_chamber: [13, '78'],
  dehydrator: [35, ''],
  warm: [24, '90'],
  salt: [3, ''],
  store: [8, '70'],
};
const NOT_HUNG_IN: readonly What[] = ['warm', 'salt', 'store'];

export class PlaceForm {
  name = $state('');
  what = $state<What>('drying_chamber');
  stirring = $state<Stirring | ''>('');
  rods = $state('2');
  hooks = $state('6');
  temperature = $state(fieldText('temperature', 13));
  humidity = $state('78');
  spacing = $state('');

  readonly hangs = $derived(!NOT_HUNG_IN.includes(this.what));
  readonly controlled = $derived(this.what in SET);
  /** Pieces lie on its shelves instead of hanging from rods. */
  readonly shelves = $derived(this.what === 'household_fridge');

  pick(what: What): void {
    this.what = what;
    const [c, rh] = SET[what] ?? [null, ''];
    [this.temperature, this.humidity] = [fieldText('temperature', c), rh];
    this.stirring = '';
    if (this.shelves) [this.rods, this.hooks] = ['1', '6'];
  }

  async make(): Promise<Schema['PlaceOut']> {
    const many = this.hangs ? (optionalNumber(this.rods) ?? 0) : 0;
    if (this.hangs && (many < 1 || many > 40 || !Number.isInteger(many)))
      throw new ProblemError('invalid', `${this.shelves ? words.place.shelves : words.place.rods}: 1–40`);
    const body: Schema['PlaceIn'] = {
      name: this.name,
      kind: this.hangs ? 'chamber' : (this.what as Schema['PlaceIn']['kind']),
      sort: this.hangs ? (this.what as Sort) : null,
      stirring: (this.hangs && this.stirring) || null,
      hooks_per_rod: Array.from({ length: many }, () => optionalNumber(this.hooks) ?? 0),
      hook_spacing_mm: this.shelves ? null : optionalAs('length', this.spacing),
      setpoint: {
        temperature_c: this.controlled ? optionalAs('temperature', this.temperature) : null,
        rh_percent: this.controlled ? optionalNumber(this.humidity) : null,
      },
      ...head(),
    };
    return take(api.POST('/api/places', { body }));
  }
}
