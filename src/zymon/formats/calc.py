"""The shell calculator's documents: every case of a document worked with the core, `expect` filled in."""

from collections.abc import Callable, Mapping
from dataclasses import asdict, dataclass, field
from typing import Any

from zymon.core import curing, water
from zymon.core.air import air_state
from zymon.core.degree_hours import degree_hours, longest_hours
from zymon.core.errors import OutOfRangeError
from zymon.core.formulation import Part, acid_ceiling, blend, formulate, two_part_blend, worst_rounding_error
from zymon.core.pieces import composition, filled_length, target_by_basis, target_weight
from zymon.limits import shipped
from zymon.words import told

Case = dict[str, Any]


class CalcError(ValueError):
    """A document the calculator cannot read at all."""


@dataclass(frozen=True)
class Section:
    """Cases of one shape: how they are worked, under which key the answer stands, inputs that are no numbers."""

    work: Callable[..., Any]
    answer: str = "expect"
    inputs: Mapping[str, type] = field(default_factory=dict)


def _record(function: Callable[..., Any]) -> Callable[..., Case]:
    return lambda **inputs: asdict(function(**inputs))


def _targets(start_gross_g: float, tare_g: float, target_loss_percent: float) -> Case:
    return asdict(target_weight(start_gross_g, tare_g, target_loss_percent))


def _casing(**inputs: float) -> Case:
    return {"filled_length_mm": filled_length(**inputs)}


def _blend(parts: list[Any]) -> Case:
    if not all(isinstance(part, dict) for part in parts):
        raise OutOfRangeError("refused.part_shape")
    return asdict(blend([Part(**part) for part in parts]))


def _rounding(grams: float, scale_resolution_g: float) -> Case:
    return {"worst_rounding_error_percent": worst_rounding_error(grams, scale_resolution_g)}


def _cure_time(thickness_mm: float, weight_kg: float) -> Case:
    def days(rule: str, margin_percent: float = 0.0) -> float:
        return curing.cure_days(rule, thickness_mm, weight_kg, margin_percent)

    return {
        "linear_1_5_days_per_cm": days("linear"),
        "square_law_cylinder_0_097_days_per_cm2": days("square"),
        "by_weight_2_days_per_kg": days("by_weight"),
        "with_20_percent_margin": {"linear": days("linear", 20), "square": days("square", 20)},
    }


def _diffusion(fourier_number: float) -> Case:
    shapes: tuple[curing.Geometry, ...] = ("slab", "cylinder", "sphere")
    return {shape: asdict(curing.uptake(shape, fourier_number)) for shape in shapes}


def _degree_hours(temperature_c: list[Any], ph_reached_hour: float) -> Case:
    if not all(isinstance(p, list) and len(p) == 2 and all(_number(v) for v in p) for p in temperature_c):
        raise OutOfRangeError("refused.temperatures_shape")
    points = [(float(hour), float(c)) for hour, c in temperature_c]
    out: Case = {}
    for name, profile, key in (("us", "us", "degree_hours_f"), ("canada", "eu", "degree_hours_c")):
        found = degree_hours(points, ph_reached_hour, shipped()[profile].degree_hours)
        out[name] = {key: found.used, "limit": found.limit, "pass": found.passes}
    return out


def _constant(temperature_f: float) -> float:
    return longest_hours(temperature_f, shipped()["us"].degree_hours)


def _brine(molality: float) -> Case:
    return {"water_activity": water.brine_water_activity(molality)}


# kind of document → its sections → the function whose parameters are the keys of a case
SECTIONS: dict[str, dict[str, Section]] = {
    "formulation": {
        "cases": Section(_record(formulate), inputs={"salt_basis": str}),
        "blend": Section(_blend, inputs={"parts": list}),
        "two_part_blend": Section(_record(two_part_blend)),
        "scale_rounding": Section(_rounding),
    },
    "acid": {"cases": Section(_record(acid_ceiling))},
    "pieces": {
        "targets": Section(_targets),
        "loss_basis": Section(target_by_basis),
        "casing": Section(_casing),
        "composition": Section(_record(composition)),
    },
    "air": {"cases": Section(_record(air_state))},
    "cure-time-rules": {"cases": Section(_cure_time)},
    "diffusion": {"cases": Section(_diffusion)},
    "degree-hours": {
        "cases": Section(_degree_hours, inputs={"temperature_c": list}),
        "us_constant_temperature": Section(_constant, answer="expect_max_hours"),
    },
    "water-activity": {
        "cases": Section(_brine),
        "brine_in_meat": Section(_record(water.brine_in_meat)),
    },
}
_WORDS: dict[type, str] = {str: "a word", list: "a list"}


def _number(value: Any) -> bool:
    return isinstance(value, int | float) and not isinstance(value, bool)


def _work(section: Section, case: Any) -> tuple[Any, bool]:
    if not isinstance(case, dict):
        return {"error": "a case must be an object of inputs"}, False
    kept = {k: v for k, v in case.items() if not k.startswith("expect") and k != "error"}
    inputs = {k: v for k, v in kept.items() if k not in ("about", "note")}
    for name, value in inputs.items():
        wanted = section.inputs.get(name)
        if not (isinstance(value, wanted) if wanted else _number(value)):
            kind = _WORDS[wanted] if wanted else "a number"
            return {**kept, "error": f"{name} must be {kind}, got {value!r}"}, False
    try:
        return {**kept, section.answer: section.work(**inputs)}, True
    except OutOfRangeError as error:
        return {**kept, "error": told(error)}, False
    except TypeError as error:
        return {**kept, "error": f"inputs do not fit: {str(error).split('() ')[-1]}"}, False


def calculate(kind: str, document: Any) -> tuple[Any, bool]:
    """Work a document; give it back filled in, and whether every case could be worked.

    Raises CalcError for a kind or a section that is not known.
    """
    if kind not in SECTIONS:
        raise CalcError(f"'{kind}' is not a kind the calculator knows; it knows {', '.join(sorted(SECTIONS))}")
    if not isinstance(document, dict):
        raise CalcError("the document must be a JSON object")
    sections = SECTIONS[kind]
    out: dict[str, Any] = {}
    good = True
    for key, value in document.items():
        if key in sections:
            if not isinstance(value, list):
                raise CalcError(f"{key}: must be a list of cases")
            worked = [_work(sections[key], case) for case in value]
            out[key] = [w[0] for w in worked]
            good = good and all(w[1] for w in worked)
        elif isinstance(value, list):
            raise CalcError(f"{key}: not known here; known are {', '.join(sections)}")
        else:
            out[key] = value
    return out, good
