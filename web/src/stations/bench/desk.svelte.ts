// The sheet on the desk: what is typed, worked out by the server at every keystroke, and kept in this browser.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { session } from '../../shell/session.svelte';
import { words } from '../../words';
import { said } from '../../words/said';

export type Sheet = Schema['SheetModel'];
export type Line = Sheet['lines'] extends (infer L)[] | undefined ? L : never;
type Family = Schema['FamilyOut'];
type Reference = Schema['ReferenceOut'];

const KEPT = 'zymon.sheet';

interface Kept {
  sheet: Sheet;
  product: string;
  profile: string;
  recipe: { id: number; version: number } | null;
}

/** What usually goes in, as it is called. */
const usual = words.bench.usual;

/** The usual sheet of a family. */
export function usualSheet(family: Family, salts: Reference['curing_salts']): Sheet {
  const curing = salts.find((salt) => salt.id === family.curing_salt);
  const minced = family.minced;
  return {
    parts: minced
      ? [
          { name: usual.shoulder, weight_g: 3800, fat_percent: 8, lot: '' },
          { name: usual.fat, weight_g: 1200, fat_percent: 85, lot: '' },
        ]
      : [{ name: family.name, weight_g: family.piece_g, fat_percent: family.fat_percent, lot: '' }],
    salt_percent: family.salt_percent,
    salt_basis: 'exact',
    curing: curing
      ? {
          name: curing.name,
          percent: family.curing_salt_percent,
          nitrite_fraction: curing.nitrite_fraction,
          nitrate_fraction: curing.nitrate_fraction,
          by_spoon: false,
        }
      : null,
    lines: [
      ...(family.warm === 'culture'
        ? ([
            { name: usual.dextrose, role: 'sugar', basis: 'percent', amount: 0.3, note: '', salt_percent: 0 },
            {
              name: usual.culture,
              role: 'culture',
              basis: 'per_kg',
              amount: 0.25,
              note: '',
              salt_percent: 0,
            },
          ] as const)
        : []),
      { name: usual.pepper, role: 'spice', basis: 'percent', amount: 0.3, note: '', salt_percent: 0 },
    ],
    plan: {
      family: family.id,
      goods: minced ? 'minced' : family.belly ? 'belly' : 'intact',
      species: family.species,
      kind: family.kind,
      shape: family.shape,
      casing: family.casing,
      salting: family.salting,
      warm: family.warm,
      surface: family.surface,
      loss_basis: 'hung',
      target_loss_percent: family.target_loss_percent,
      across_mm: family.across_mm,
      piece_g: family.piece_g,
      use: 'raw',
      done_by: 'weight',
    },
    curing_known: true,
    dose_known: true,
    note: '',
  };
}

export class Desk {
  sheet = $state<Sheet>() as Sheet;
  product = $state('');
  profile = $state('us');
  recipe = $state<{ id: number; version: number } | null>(null);
  worked = $state<Schema['WorkedOut'] | null>(null);
  problem = $state<ProblemError | null>(null);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private asked = 0;

  readonly faults = $derived<Record<string, string>>(
    Object.fromEntries((this.worked?.problems ?? []).map((found) => [found.where, said(found.said)])),
  );
  readonly grams = $derived<Record<string, Schema['LineOut']>>(
    Object.fromEntries((this.worked?.lines ?? []).map((line) => [line.key, line])),
  );

  constructor(readonly reference: Reference) {
    const kept = localStorage.getItem(KEPT);
    try {
      const read = kept ? (JSON.parse(kept) as Kept) : null;
      if (!read?.sheet.plan) throw new Error('nothing kept');
      this.sheet = read.sheet;
      this.product = read.product;
      this.profile = read.profile;
      this.recipe = read.recipe;
    } catch {
      this.startFrom(reference.families[0] as Family);
    }
    void this.work();
  }

  get family(): Family | undefined {
    return this.reference.families.find((family) => family.id === this.sheet.plan.family);
  }

  /** Take a step that puts another sheet in place of this one; what is given back brings this one again. */
  replaced(step: () => void): () => void {
    const before = $state.snapshot({ sheet: this.sheet, product: this.product, recipe: this.recipe });
    step();
    return () => {
      Object.assign(this, before);
      this.changed();
    };
  }

  startFrom(family: Family): void {
    this.sheet = usualSheet(family, this.reference.curing_salts);
    this.product = family.name;
    this.recipe = null;
    this.changed();
  }

  open(recipe: Schema['RecipeOut'], number: number): void {
    const version = recipe.versions.find((found) => found.number === number);
    if (!version) return;
    this.sheet = structuredClone($state.snapshot(version.sheet)) as Sheet;
    this.product = recipe.name;
    this.recipe = { id: recipe.id, version: number };
    this.changed();
  }

  /** Called after every keystroke: kept at once, worked out shortly after. */
  changed(): void {
    const kept: Kept = {
      sheet: this.sheet,
      product: this.product,
      profile: this.profile,
      recipe: this.recipe,
    };
    localStorage.setItem(KEPT, JSON.stringify(kept));
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.work(), 60);
  }

  async work(): Promise<void> {
    const turn = ++this.asked;
    try {
      const answer = await take(
        api.POST('/api/bench/work', { body: { sheet: this.sheet, profile: this.profile } }),
      );
      if (turn !== this.asked) return;
      this.worked = answer;
      this.problem = null;
    } catch (error) {
      if (turn === this.asked) this.problem = error instanceof ProblemError ? error : null;
    }
  }

  /** Grams typed for a line: turned back into its share, since the share is what a recipe keeps. */
  setGrams(index: number, grams: number): void {
    const line = this.sheet.lines?.[index];
    const meat = this.worked?.meat_g ?? 0;
    if (!line || meat <= 0) return;
    line.amount =
      line.basis === 'percent'
        ? (grams * 100) / meat
        : line.basis === 'per_kg'
          ? (grams * 1000) / meat
          : grams;
    this.changed();
  }

  /** A share of the meat typed for a line that is kept in grams, and the other way round. */
  setShare(index: number, share: number): void {
    const line = this.sheet.lines?.[index];
    const meat = this.worked?.meat_g ?? 0;
    if (!line) return;
    const inGrams = line.basis === 'absolute' || line.basis === 'fixed';
    line.amount = inGrams ? (share * meat) / 100 : share;
    this.changed();
  }

  /** Plain salt in grams: what the share covers besides it stays. */
  setSaltGrams(grams: number): void {
    const meat = this.worked?.meat_g ?? 0;
    const plain = this.grams['salt']?.grams;
    if (meat <= 0 || plain === undefined) return;
    this.sheet.salt_percent += ((grams - plain) * 100) / meat;
    this.changed();
  }

  setCuringGrams(grams: number): void {
    const meat = this.worked?.meat_g ?? 0;
    if (!this.sheet.curing || meat <= 0) return;
    this.sheet.curing.percent = (grams * 100) / meat;
    this.changed();
  }

  /** Another basis for a line: the grams stay what they are. */
  setBasis(index: number, basis: NonNullable<Line['basis']>): void {
    const line = this.sheet.lines?.[index];
    const grams = this.grams[`line-${index}`]?.grams;
    if (!line) return;
    line.basis = basis;
    if (grams !== undefined) this.setGrams(index, grams);
    else this.changed();
  }

  async reshape(call: Promise<Sheet>): Promise<void> {
    try {
      this.sheet = await call;
      this.changed();
    } catch (error) {
      session.complain(error);
    }
  }
  blendTo(fat: number): Promise<void> {
    return this.reshape(
      take(api.POST('/api/bench/blend', { body: { sheet: this.sheet, fat_percent: fat } })),
    );
  }
  scaleTo(meat: number): Promise<void> {
    return this.reshape(take(api.POST('/api/bench/scale', { body: { sheet: this.sheet, meat_g: meat } })));
  }
}
