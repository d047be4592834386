"""What to do otherwise next time, in lines with numbers: a note on the recipe, or a change of its sheet."""

from collections.abc import Callable
from dataclasses import dataclass
from math import exp
from typing import Literal

from ..say import Said, said
from .ranking import Likely
from .records import Records
from .table import CAUSES, MARKS

Where = Literal["recipe", "hanging", "today", "salt", "warm", "rest"]
SheetField = Literal["salt_percent", "sugar_share"]

POINTS, FEWEST_POINTS, MOST_POINTS = (
    5.0,
    3.0,
    10.0,
)  # of humidity: where none can be worked out; its bounds
WARM_RH, MIX_C, COLD_C, HANG_C = 90.0, 2.0, 4.0, 14.0  # practice
EARLY_WEIGHINGS = (4, 8)  # days on the hook; practice
SALT_STEP = 0.2  # % of the meat, as makers change it; practice
SALT_BOUNDS = (2.0, 4.0)  # percent of the meat; usual practice: no advice leads beyond
SUGAR_SHARE = 2 / 3  # of what went in
USUAL_CURING_PERCENT, ANTIOXIDANT_PERCENT = 0.25, 0.05  # percent of the meat; usual practice
WEEKS_MORE = 3


@dataclass(frozen=True)
class NextTime:
    """One line: what to do, where it is to be told again, and the change of the recipe's sheet where it is one.

    `change`: points of salt [% of the meat], or the share that stays of every sugar.
    """

    says: Said
    where: Where
    field: SheetField | None = None
    change: float | None = None


@dataclass(frozen=True)
class Known:
    """What the lines are worked out from, beside the records; None where it is not known.

    Salt [% of the meat], humidity of the first weeks [%], weeks a rest still takes, loss at the cut [%], target [%].
    """

    salt_percent: float | None = None
    rh_percent: float | None = None
    rest_weeks: float | None = None
    loss_percent: float | None = None
    target_loss_percent: float | None = None
    hook: str | None = None


def next_time(likely: Likely, records: Records, known: Known) -> list[NextTime]:
    """The lines of one cause. Parameters: likely, the cause; records, the measures of the batch; known, beside them."""
    found = (LINES[code](records, known) for code in CAUSES[likely.name].next_time)
    return [line for line in found if line is not None]


def _humidity(records: Records, known: Known) -> NextTime:
    """As much more as brings the pace of the first weeks down to the gentle one."""
    points = POINTS
    if "hurry" in records and known.rh_percent is not None:
        dryness = 100 - known.rh_percent
        points = dryness * (1 - exp(-max(records["hurry"].value, 0.0)))
    points = round(min(max(points, FEWEST_POINTS), MOST_POINTS))
    return NextTime(said("next.humidity", points=points, days=round(MARKS["first_weeks_days"])), "recipe")


def _hook(records: Records, known: Known) -> NextTime | None:
    air = records.get("hook_air")
    if air is None or known.hook is None or air.value < 1.1:
        return None
    return NextTime(said("next.hook", hook=known.hook, days=round(MARKS["first_weeks_days"])), "hanging")


def _weigh_early(_: Records, __: Known) -> NextTime:
    first, second = EARLY_WEIGHINGS
    return NextTime(said("next.weigh_early", first=first, second=second), "today")


def _less_salt(_: Records, known: Known) -> NextTime | None:
    return _salt(known, -SALT_STEP)


def _more_salt(_: Records, known: Known) -> NextTime | None:
    return _salt(known, SALT_STEP)


def _salt(known: Known, step: float) -> NextTime | None:
    if known.salt_percent is None:
        return None
    low, high = SALT_BOUNDS
    to = round(min(max(known.salt_percent + step, low), high), 2)
    if abs(to - known.salt_percent) < 0.01 or (to - known.salt_percent) * step < 0:
        return None
    says = said("next.salt", was_percent=round(known.salt_percent, 2), percent=to)
    return NextTime(says, "recipe", "salt_percent", round(to - known.salt_percent, 2))


def _less_sugar(records: Records, _: Known) -> NextTime | None:
    sugar = records.get("dextrose")
    if sugar is None or sugar.value <= 0:
        return None
    says = said("next.less_sugar", was_percent=round(sugar.value, 2), percent=round(sugar.value * SUGAR_SHARE, 2))
    return NextTime(says, "recipe", "sugar_share", SUGAR_SHARE)


def _rest_longer(_: Records, known: Known) -> NextTime:
    weeks = WEEKS_MORE if known.rest_weeks is None else max(1, round(known.rest_weeks))
    return NextTime(said("next.rest_longer", weeks=weeks), "rest")


def _take_down_earlier(records: Records, known: Known) -> NextTime | None:
    if known.target_loss_percent is None or "over_target" not in records:
        return None
    return NextTime(said("next.take_down_earlier", percent=round(known.target_loss_percent, 1)), "hanging")


def _out_earlier(records: Records, _: Known) -> NextTime:
    taken = records.get("salt_taken")
    if taken is None:
        return NextTime(said("next.out_by_the_clock"), "salt")
    # what is taken up under free salt grows with the root of time: so much of the time would have been enough
    return NextTime(said("next.out_earlier", percent=round(100 * (1 - 1 / taken.value**2))), "salt")


def _plain(code: str, where: Where, **values: float) -> Callable[[Records, Known], NextTime]:
    return lambda _, __: NextTime(said(f"next.{code}", **values), where)


# Steps of the advice: usual practice, small enough to be tasted one at a time
LINES: dict[str, Callable[[Records, Known], NextTime | None]] = {
    "humidity": _humidity,
    "hook": _hook,
    "weigh_early": _weigh_early,
    "warm_humidity": _plain("warm_humidity", "warm", rh_percent=WARM_RH),
    "rest_longer": _rest_longer,
    "take_down_earlier": _take_down_earlier,
    "mix_colder": _plain("mix_colder", "recipe", c=MIX_C),
    "pack_tighter": _plain("pack_tighter", "recipe"),
    "culture": _plain("culture", "recipe"),
    "less_sugar": _less_sugar,
    "cool_sooner": _plain("cool_sooner", "warm", ph=5.0),
    "sour_to_mark": _plain("sour_to_mark", "warm", ph=5.3),
    "less_salt": _less_salt,
    "more_salt": _more_salt,
    "out_earlier": _out_earlier,
    "salt_longer": _plain("salt_longer", "salt"),
    "curing_salt": _plain("curing_salt", "recipe", percent=USUAL_CURING_PERCENT),
    "hang_cooler": _plain("hang_cooler", "hanging", c=HANG_C),
    "antioxidant": _plain("antioxidant", "recipe", percent=ANTIOXIDANT_PERCENT),
    "keep_colder": _plain("keep_colder", "recipe", c=COLD_C),
    "drier": _plain("drier", "hanging", rh_percent=MARKS["damp_rh_percent"]),
}
