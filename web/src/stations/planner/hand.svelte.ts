// The plan in hand: what is wished, looked at by the server with every change, and kept when somebody says so.
import { api, ProblemError, type Schema, take } from '../../api/client';
import { head } from '../../api/entry';
import { dayOf, daysLater, nearest, noonOf } from '../../units/days';
import { timeZone } from '../../units/format';

export type Wish = Schema['Wish'];
export type Planned = Schema['PlanOut'];

const LOOK_AFTER_MS = 120;
const SOME_DAYS = 84;

/** About what a piece of a sheet weighs in the end, to begin with. */
export const atTheTable = ({ plan }: Schema['SheetModel']): number =>
  Math.round((plan.piece_g * (1 - plan.target_loss_percent / 100)) / 10) * 10;

/** A wish for goods of a sheet, with what is usual where nothing was said. */
export function wishFor(product: string, sheet: Schema['SheetModel'], wanted: string): Wish {
  return {
    occasion: '',
    product,
    sheet,
    recipe_id: null,
    version: null,
    pieces: 12,
    table_g: atTheTable(sheet),
    wanted,
    place_id: null,
    start: null,
    wait_days: 0,
    rest_days: 0,
    frozen: false,
    order_days: 0,
    chance: 0.8,
  };
}

/** A day some months after now, to begin with: at noon in the workshop's time zone. */
export function someDay(now: string): string {
  const day = daysLater(now, SOME_DAYS);
  return noonOf(dayOf(day, timeZone()), timeZone())?.toISOString() ?? day;
}

/** What another page brought to be planned, until the planner takes it. */
export const brought: { wish: Wish | null } = { wish: null };

export class Hand {
  wish = $state<Wish | null>(null);
  looked = $state<Schema['LookedAt'] | null>(null);
  days = $state<Schema['DayOut'][]>([]);
  kept = $state<Planned | null>(null); // the plan that this is a change of
  changed = $state(false);
  problem = $state<string | null>(null);
  looking = $state(false);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private asked = 0;

  /** What is shown: as it was looked at last, moved to where it is held now. */
  get plan(): Planned | null {
    return this.looked?.plan ?? this.kept;
  }

  /** The chance at the start that is held now, known before the server has looked again. */
  get chance(): number | null {
    const plan = this.plan;
    if (!plan) return null;
    const start = this.wish?.start;
    if (!start || start === plan.start) return plan.chance;
    return this.days[nearest(this.days, start)]?.chance ?? plan.chance;
  }

  begin(wish: Wish): void {
    this.clear();
    this.wish = wish;
    this.changed = true;
    this.look(0);
  }

  async take(id: number): Promise<void> {
    this.clear();
    const asked = ++this.asked;
    const found = await take(api.GET('/api/plans/{plan_id}', { params: { path: { plan_id: id } } }));
    if (asked !== this.asked) return;
    const plan = found.plan;
    this.kept = plan;
    this.days = found.days;
    this.wish = {
      ...wishFor(plan.product, found.sheet, plan.wanted),
      occasion: plan.occasion,
      recipe_id: found.recipe_id,
      version: found.version,
      pieces: plan.pieces,
      table_g: plan.table_g,
      place_id: plan.place_id,
      start: plan.start,
      wait_days: plan.wait_days,
      rest_days: plan.rest_days,
      frozen: plan.frozen,
      order_days: plan.order_days,
      chance: plan.asked_chance,
    };
  }

  /** Change the wish; where it is to be begun is looked for anew unless a start was chosen. */
  set(change: Partial<Wish>): void {
    if (!this.wish) return;
    this.wish = { ...this.wish, ...change };
    this.changed = true;
    this.look();
  }

  /** The same goods of another diameter or to another loss. */
  setGoods(change: Partial<Schema['SheetModel']['plan']>): void {
    if (!this.wish) return;
    this.set({ sheet: { ...this.wish.sheet, plan: { ...this.wish.sheet.plan, ...change } } });
  }

  move(days: number): void {
    const from = this.wish?.start ?? this.plan?.start;
    if (from && days) this.set({ start: daysLater(from, days) });
  }

  private look(after = LOOK_AFTER_MS): void {
    clearTimeout(this.timer);
    this.asked += 1; // an answer that is on its way is of what was wished before
    this.looking = true; // what is shown is of what was wished before: it is not to be kept
    this.timer = setTimeout(() => void this.lookNow(), after);
  }

  private async lookNow(): Promise<void> {
    if (!this.wish) return;
    const asked = ++this.asked;
    try {
      const body = this.wish;
      const looked = this.kept?.id
        ? await take(
            api.POST('/api/plans/{plan_id}/look', { params: { path: { plan_id: this.kept.id } }, body }),
          )
        : await take(api.POST('/api/plans/look', { body }));
      if (asked !== this.asked) return; // something was changed meanwhile
      this.looked = looked;
      this.days = looked.days;
      this.problem = null;
      this.wish.place_id ??= looked.plan.place_id;
    } catch (error) {
      if (asked === this.asked) this.problem = error instanceof ProblemError ? error.message : String(error);
    } finally {
      if (asked === this.asked) this.looking = false;
    }
  }

  /** Keep it; gives back what came of the entry. */
  async keep(reason: string): Promise<Schema['PlanKept']> {
    if (!this.wish) throw new Error('no wish');
    const start = this.wish.start ?? this.plan?.start ?? null;
    const body = { ...this.wish, start, ...head() };
    const answer =
      this.kept?.id && this.kept.setting_id
        ? await take(
            api.POST('/api/plans/{plan_id}', {
              params: { path: { plan_id: this.kept.id } },
              body: { ...body, seen: this.kept.setting_id, reason },
            }),
          )
        : await take(api.POST('/api/plans', { body }));
    this.kept = answer.plan;
    this.days = answer.days;
    this.looked = null;
    this.changed = false;
    this.wish = { ...this.wish, start: answer.plan.start, place_id: answer.plan.place_id };
    return answer;
  }

  clear(): void {
    clearTimeout(this.timer);
    this.asked += 1;
    this.wish = this.looked = this.kept = this.problem = null;
    this.days = [];
    this.changed = this.looking = false;
  }
}
