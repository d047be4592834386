// A limit profile of the maker's own: begun from one that is there, sent as a whole.
import { api, type Schema, take } from '../../api/client';
import { session } from '../../shell/session.svelte';
import { tidyNumber, typedNumber } from '../../units/number';
import { words } from '../../words';

type Profile = Schema['LimitProfileIn'];
export const GOODS = ['minced', 'intact', 'belly'] as const;
type Goods = (typeof GOODS)[number];
type Amounts = Record<Goods, { nitrite: string; nitrate: string }>;

/** An allowance of degree-hours up to a highest temperature; the last one has none. */
interface Step {
  limit: string;
  to: string;
  bound: 'below' | 'up_to';
}

/** A short name for the records, from what the maker calls it. */
export const shortName = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[^a-z]+|-+$/g, '')
    .slice(0, 19);

export class LimitsForm {
  name = $state('');
  source = $state('');
  asOf = $state('');
  countedAs = $state<Profile['counted_as']>('sodium salt');
  amounts = $state<Amounts>({
    minced: { nitrite: '', nitrate: '' },
    intact: { nitrite: '', nitrate: '' },
    belly: { nitrite: '', nitrate: '' },
  });
  unit = $state<'F' | 'C'>('F');
  threshold = $state('');
  steps = $state<Step[]>([]);
  fault = $state<string | null>(null);
  busy = $state(false);

  /** Start from a profile: its figures, but neither its name nor its source. */
  like(profile: Profile): void {
    this.countedAs = profile.counted_as;
    for (const goods of GOODS) {
      this.amounts[goods] = {
        nitrite: tidyNumber(profile[goods].nitrite_mg_per_kg, 1),
        nitrate: tidyNumber(profile[goods].nitrate_mg_per_kg, 1),
      };
    }
    this.unit = profile.degree_hours.unit;
    this.threshold = tidyNumber(profile.degree_hours.threshold, 1);
    this.steps = profile.degree_hours.steps.map((step) => ({
      limit: tidyNumber(step.limit, 0),
      to: tidyNumber(step.below ?? step.up_to ?? Number.NaN, 1).replace('NaN', ''),
      bound: step.up_to == null ? 'below' : 'up_to',
    }));
  }

  addStep(): void {
    this.steps.splice(-1, 0, { limit: '', to: '', bound: 'below' });
  }

  dropStep(index: number): void {
    this.steps.splice(index, 1);
  }

  /** What is sent, or null where a figure is missing. */
  body(): Schema['LimitProfileNew'] | null {
    const ingoing = (goods: Goods): Schema['Ingoing'] | null => {
      const nitrite = typedNumber(this.amounts[goods].nitrite);
      const nitrate = typedNumber(this.amounts[goods].nitrate);
      return nitrite === null || nitrate === null
        ? null
        : { nitrite_mg_per_kg: nitrite, nitrate_mg_per_kg: nitrate };
    };
    const [minced, intact, belly] = GOODS.map(ingoing);
    const threshold = typedNumber(this.threshold);
    const steps = this.steps.map((step, i) => {
      const limit = typedNumber(step.limit);
      const to = i === this.steps.length - 1 ? null : typedNumber(step.to);
      return limit === null || (to === null && i < this.steps.length - 1)
        ? null
        : { limit, ...(to === null ? {} : { [step.bound]: to }) };
    });
    const id = shortName(this.name);
    if (!minced || !intact || !belly || threshold === null || steps.includes(null) || id.length < 2)
      return null;
    return {
      id,
      name: this.name,
      source: this.source,
      as_of: this.asOf,
      check: words.bench.limitsPage.check,
      counted_as: this.countedAs,
      minced,
      intact,
      belly,
      degree_hours: { unit: this.unit, threshold, steps: steps.filter((step) => step !== null) },
      sources: {},
      residual_as: 'sodium salt',
      listeria_zero: true,
      unchilled: '',
      does_not_know: [],
      made_by: '',
      by: session.who,
    };
  }

  /** Send it; true once it is kept. */
  async add(): Promise<boolean> {
    const body = this.body();
    if (body === null) {
      this.fault = words.bench.limitsPage.missing;
      return false;
    }
    this.busy = true;
    try {
      await take(api.POST('/api/limits', { body }));
      this.fault = null;
      this.name = this.source = this.asOf = '';
      return true;
    } catch (error) {
      this.fault = error instanceof Error ? error.message : words.errors.unexpected(0);
      return false;
    } finally {
      this.busy = false;
    }
  }
}
