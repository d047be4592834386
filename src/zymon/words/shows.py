"""In which language and units somebody reads: theirs while they are answered, or the usual ones, as in every file."""

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import asdict, dataclass
from typing import Final, Literal, get_args, get_type_hints
from urllib.parse import parse_qs, urlencode

Language = Literal["en", "it"]


@dataclass(frozen=True)
class Shows:
    """What somebody reads: language, units of what is measured, hours of the day, first day of the week."""

    language: Language = "en"
    mass: Literal["g", "oz"] = "g"
    temperature: Literal["C", "F"] = "C"
    length: Literal["mm", "in"] = "mm"
    liquid: Literal["ml", "floz"] = "ml"
    hours: Literal["24", "12"] = "24"
    week: Literal["0", "1", "6"] = "1"  # Sunday is 0

    @property
    def metric(self) -> bool:
        """Whether grams, degrees Celsius and millimetres are read."""
        return (self.mass, self.temperature, self.length) == ("g", "C", "mm")

    def __str__(self) -> str:
        """As it is kept, with a person or in a cookie."""
        return urlencode(asdict(self))


USUAL: Final = Shows()
CHOICES: Final[dict[str, tuple[str, ...]]] = {name: get_args(kind) for name, kind in get_type_hints(Shows).items()}


def read_shows(text: str | None, otherwise: Shows = USUAL) -> Shows:
    """What was chosen, as it is kept; what is missing or unknown is as it is otherwise.

    >>> read_shows("language=it&mass=stone").language, read_shows("language=it&mass=stone").mass
    ('it', 'g')
    """
    typed = {name: values[-1] for name, values in parse_qs(text or "").items()}
    known = {name: typed[name] for name, choices in CHOICES.items() if typed.get(name) in choices}
    return Shows(**{**asdict(otherwise), **known})


_now: ContextVar[Shows] = ContextVar("shows", default=USUAL)


def showing() -> Shows:
    """What whoever is answered just now reads."""
    return _now.get()


@contextmanager
def shown_as(shows: Shows) -> Iterator[None]:
    """Answer somebody who reads so."""
    before = _now.set(shows)
    try:
        yield
    finally:
        _now.reset(before)
