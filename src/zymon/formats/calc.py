"""The shell calculator's documents: every case of a document worked with the core, `expect` filled in."""

from collections.abc import Callable
from dataclasses import asdict
from typing import Any

from zymon.core.air import air_state
from zymon.core.errors import OutOfRangeError
from zymon.core.pieces import composition, filled_length, target_by_basis, target_weight

Case = dict[str, Any]


class CalcError(ValueError):
    """A document the calculator cannot read at all."""


def _casing(**inputs: float) -> Case:
    return {"filled_length_mm": filled_length(**inputs)}


def _record(function: Callable[..., Any]) -> Callable[..., Case]:
    return lambda **inputs: asdict(function(**inputs))


# kind of document → its sections → the function whose parameters are the keys of a case
SECTIONS: dict[str, dict[str, Callable[..., Case]]] = {
    "pieces": {
        "targets": lambda start_gross_g, tare_g, target_loss_percent: asdict(
            target_weight(start_gross_g, tare_g, target_loss_percent)
        ),
        "loss_basis": target_by_basis,
        "casing": _casing,
        "composition": _record(composition),
    },
    "air": {"cases": _record(air_state)},
}


def _work(function: Callable[..., Case], case: Any) -> tuple[Any, bool]:
    if not isinstance(case, dict):
        return {"error": "a case must be an object of inputs"}, False
    inputs = {k: v for k, v in case.items() if not k.startswith("expect") and k not in ("about", "note", "error")}
    kept = {k: v for k, v in case.items() if not k.startswith("expect") and k != "error"}
    wrong = [k for k, v in inputs.items() if isinstance(v, bool) or not isinstance(v, int | float)]
    if wrong:
        return {**kept, "error": f"{wrong[0]} must be a number, got {inputs[wrong[0]]!r}"}, False
    try:
        return {**kept, "expect": function(**inputs)}, True
    except OutOfRangeError as error:
        return {**kept, "error": str(error)}, False
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
