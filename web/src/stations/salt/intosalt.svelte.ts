// Muscles on their way into the salt: which batch, how, where; weights as they are typed.
import { api, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { When } from '../../forms/when.svelte';
import { tidyNumber, typedNumber } from '../../units/number';
import { fieldText, typedAs } from '../../units/quantity';
import { words } from '../../words';

type Way = Schema['WayOut']['id'];
type Geometry = Schema['PutInIn']['geometry'];

export class IntoSaltForm {
  batch = $state(0); // 0: a muscle that did not lie on the Bench
  product = $state('');
  code = $state('');
  family = $state('');
  way = $state<Way>('measured');
  percent = $state('');
  geometry = $state<Geometry>('cylinder');
  skin = $state('');
  free = $state(false);
  pierced = $state(false);
  species = $state<NonNullable<Schema['QuickBatch']['species']>>('pork');
  curing = $state(''); // asked: '' not said yet, none, unknown, or the id of a curing salt
  curingPercent = $state('0.25');
  weighed = $state(true);
  place = $state(0);
  container = $state('');
  muscles = $state([{ raw: '', across: '' }]);
  fault = $state<string | null>(null);
  busy = $state(false);
  readonly when = new When();

  constructor(
    private readonly waiting: Schema['WaitingBatch'][],
    private readonly families: Schema['FamilyOut'][],
    places: Schema['PlaceOut'][],
    nextCode: string,
    private readonly ways: Schema['WayOut'][],
    readonly salts: Schema['CuringSaltOut'][] = [],
  ) {
    this.place = (places.find((one) => one.kind === 'salt') ?? places[0])?.id ?? 0;
    this.code = nextCode;
    const first = waiting.find((one) => !one.begun);
    if (first) this.pickBatch(first.id);
    else if (families[0]) this.pickFamily(families[0].id);
  }

  pickBatch(id: number): void {
    this.batch = id;
    const found = this.waiting.find((one) => one.id === id);
    if (!found) {
      if (this.families[0] && !this.family) this.pickFamily(this.families[0].id);
      return;
    }
    this.way = found.way;
    this.percent = tidyNumber(found.percent, 2);
    this.geometry = found.geometry;
    const many = found.begun ? 1 : Math.max(1, Math.min(12, Math.round(found.meat_g / found.piece_g)));
    this.muscles = Array.from({ length: many }, () => ({
      raw: '',
      across: fieldText('length', found.across_mm, 0),
    }));
  }

  pickFamily(id: string): void {
    this.family = id;
    const found = this.families.find((one) => one.id === id);
    if (!found) return;
    this.product = found.name;
    this.species = found.species as NonNullable<Schema['QuickBatch']['species']>;
    this.curingPercent = tidyNumber(found.curing_salt_percent || 0.25, 2);
    this.way = found.salting as Way;
    this.percent = tidyNumber(found.salt_percent, 2);
    this.geometry = found.shape === 'slab' ? 'slab' : found.kind === 'ham' ? 'sphere' : 'cylinder';
    this.skin = found.kind === 'ham' ? '40' : '';
    this.muscles = this.muscles.map((one) => ({ ...one, across: fieldText('length', found.across_mm, 0) }));
  }

  get chosenWay(): Schema['WayOut'] | undefined {
    return this.ways.find((one) => one.id === this.way);
  }

  get openSalt(): boolean {
    const chosen = this.chosenWay;
    return chosen?.dose === 'free' || (chosen?.may_be_free === true && this.free);
  }

  /** The batch of muscles that never lay on the Bench; undefined while nobody said what is in the salt. */
  private quick(): Schema['QuickBatch'] | undefined {
    const base = {
      code: this.code,
      product: this.product,
      family: this.family,
      species: this.species,
      dose_known: this.weighed,
    };
    if (this.curing === '') return undefined;
    if (this.curing === 'none' || this.curing === 'unknown') return { ...base, curing: this.curing };
    const salt = this.salts.find((one) => one.id === this.curing);
    const percent = typedNumber(this.curingPercent);
    if (!salt || percent === null) return undefined;
    return {
      ...base,
      curing: 'weighed',
      curing_salt: {
        name: salt.name,
        percent,
        nitrite_fraction: salt.nitrite_fraction,
        nitrate_fraction: salt.nitrate_fraction,
      },
    };
  }

  /** What a scale shows goes to the first muscle without a weight, or to one more. */
  putOn(grams: number): void {
    const next = this.muscles.find((one) => one.raw.trim() === '');
    if (next) next.raw = fieldText('mass', grams);
    else this.muscles.push({ raw: fieldText('mass', grams), across: this.muscles.at(-1)?.across ?? '' });
  }

  /** Salt to weigh for what is typed so far [g]; null with open salt or without weights. */
  get dose(): number | null {
    const percent = typedNumber(this.percent);
    const grams = this.muscles.reduce((sum, one) => sum + (typedAs('mass', one.raw) ?? 0), 0);
    if (percent === null || grams <= 0 || this.openSalt) return null;
    const sheet = this.waiting.find((one) => one.id === this.batch);
    // as its sheet was weighed, while its share stands
    const perKg = sheet && tidyNumber(sheet.percent, 2) === this.percent ? sheet.salt_g_per_kg : null;
    return perKg === null ? (grams * percent) / 100 : (grams * perKg) / 1000;
  }

  /** Put them in; the station as it is then, or null with `fault` said. */
  async put(): Promise<Schema['SaltOut'] | null> {
    if (this.busy) return null;
    const filled = this.muscles.filter((one) => one.raw.trim() !== '');
    const muscles = filled.map((one) => ({
      raw_g: typedAs('mass', one.raw),
      across_mm: typedAs('length', one.across),
    }));
    const percent = typedNumber(this.percent);
    const skin = this.skin.trim() === '' ? 0 : typedNumber(this.skin);
    if (
      !muscles.length ||
      muscles.some((m) => m.raw_g === null || m.across_mm === null) ||
      percent === null ||
      skin === null
    ) {
      this.fault = words.errors.noNumber;
      return null;
    }
    const quick = this.batch ? null : this.quick();
    if (quick === undefined) {
      this.fault = words.salt.put.curingAsked;
      return null;
    }
    this.busy = true;
    try {
      const answer = await take(
        api.POST('/api/salt', {
          body: {
            batch_id: this.batch || null,
            quick: this.batch ? null : quick,
            muscles: muscles.map((m) => ({ raw_g: m.raw_g ?? 0, across_mm: m.across_mm ?? 0 })),
            geometry: this.geometry,
            skin_share: skin / 100,
            way: this.way,
            free_salt: this.free,
            pierced: this.pierced,
            percent,
            place_id: this.place,
            container: this.container,
            rules: ['linear', 'square', 'diffusion'],
            margin_percent: 0,
            ...head(this.when),
          },
        }),
      );
      this.fault = null;
      this.when.clear();
      return answer;
    } catch (error) {
      this.fault = error instanceof Error ? error.message : words.errors.unexpected(0);
      return null;
    } finally {
      this.busy = false;
    }
  }
}
