"""What a sugar is worth to a culture: lactose is no dextrose, and milk powder is half of it."""

from dataclasses import dataclass

from .sheet import Line

# words of a name, in lower case; what a gram is worth in grams of dextrose; the first that fits counts.
# Estimates: by molar mass where a culture eats all of it, else by what makers and suppliers say that it can use
WORTH: tuple[tuple[tuple[str, ...], float], ...] = (
    (("milk powder", "milkpowder", "dry milk", "dried milk", "skim milk", "whey"), 0.25),
    (("lactose", "milk sugar"), 0.5),
    (("maltodextrin", "starch", "potato flour"), 0.15),
    (("honey", "glucose syrup", "corn syrup", "maple syrup", "invert"), 0.8),
    (("dextrose", "glucose", "grape sugar"), 1.0),
    (("sucrose", "cane", "beet", "brown sugar", "white sugar", "table sugar", "muscovado"), 1.05),
)
AS_DEXTROSE = 1.0


@dataclass(frozen=True)
class Worth:
    """A sugar of the sheet that is not dextrose, and what a gram of it is taken to be worth in dextrose [g/g]."""

    name: str
    dextrose_g_per_g: float


def dextrose_worth(name: str) -> float:
    """What a gram of a sugar is worth in dextrose [g/g]; one that is not known by its name counts as dextrose.

    Parameters: name, as the maker calls it.

    >>> dextrose_worth("Skim milk powder"), dextrose_worth("Lactose"), dextrose_worth("Dextrose")
    (0.25, 0.5, 1.0)
    """
    spelt = " ".join(name.lower().split())
    return next((worth for words, worth in WORTH if any(word in spelt for word in words)), AS_DEXTROSE)


def not_dextrose(lines: tuple[Line, ...]) -> tuple[Worth, ...]:
    """The sugars of a sheet that count for less or more than dextrose. Parameters: lines of it."""
    sugars = ((line.name, dextrose_worth(line.name)) for line in lines if line.role == "sugar")
    return tuple(Worth(name, worth) for name, worth in sugars if worth != AS_DEXTROSE)


def dextrose_percent(lines: tuple[Line, ...], grams: dict[str, float], meat_g: float) -> float:
    """Sugar of all lines as dextrose [% of the meat], in whatever way they were given.

    Parameters: lines of a sheet; grams [g] by the key of a line; meat_g [g].
    """
    if meat_g <= 0:
        return 0.0
    worth_g = sum(
        grams.get(f"line-{i}", 0.0) * dextrose_worth(line.name) for i, line in enumerate(lines) if line.role == "sugar"
    )
    return 100 * worth_g / meat_g
