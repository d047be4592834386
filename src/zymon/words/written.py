"""Values as they are read: numbers, weights, temperatures, lengths and times, in the language and units of a reader."""

from collections.abc import Callable
from datetime import UTC, date, datetime, tzinfo
from typing import Final

from babel import Locale
from babel.dates import format_date, format_datetime
from babel.numbers import format_decimal

from .shows import Shows

G_PER_OZ: Final = 28.349523125
MM_PER_IN: Final = 25.4


def number(value: float, shows: Shows, digits: int = 6) -> str:
    """A number without useless zeros, with the mark of the language."""
    if not abs(value) < 1e15:  # beyond what is written out, and what is no number
        return f"{value:g}"
    return format_decimal(round(value, digits), "0." + "#" * digits, locale=shows.language)


def weight(g: float, shows: Shows) -> str:
    """A weight of a piece or a pour [g], whole where it is whole."""
    if shows.mass == "oz":
        return f"{number(g / G_PER_OZ, shows, 2)} oz"
    return f"{number(g, shows, 2)} g"


def scale_weight(g: float, shows: Shows) -> str:
    """A weight as a scale will show it [g]: tenths of what is light, whole grams of the rest."""
    if shows.mass == "oz":
        return f"{format_decimal(g / G_PER_OZ, '0.0', locale=shows.language)} oz"
    if g < 100:
        return f"{format_decimal(g, '0.0', locale=shows.language)} g"
    return f"{g:,.0f} g".replace(",", "\u2009")


def net_weight(g: float, shows: Shows) -> str:
    """The weight that stands on a pack [g]: whole grams, beside them ounces for whoever reads those."""
    if shows.mass == "oz":
        return f"{format_decimal(g / G_PER_OZ, '0.0', locale=shows.language)} oz ({g:.0f} g)"
    return f"{g:.0f} g"


def celsius_or_fahrenheit(c: float, shows: Shows) -> float:
    """A temperature [°C] in the degrees of a reader."""
    return c * 1.8 + 32 if shows.temperature == "F" else c


def temperature(c: float, shows: Shows) -> str:
    """A temperature [°C]."""
    return f"{number(celsius_or_fahrenheit(c, shows), shows, 1)} °{shows.temperature}"


def warmth(kelvin: float, shows: Shows) -> str:
    """A difference of temperatures [K]: without the offset of the scale."""
    if shows.temperature == "F":
        return f"{number(kelvin * 1.8, shows, 1)} °F"
    return f"{number(kelvin, shows, 1)} °C"


def length(mm: float, shows: Shows) -> str:
    """A length [mm]."""
    if shows.length == "in":
        return f"{number(mm / MM_PER_IN, shows, 2)} in"
    return f"{number(mm, shows, 1)} mm"


def price(per_kg: float, shows: Shows) -> str:
    """What a kilogram costs, or a pound, without the name of the money."""
    of = per_kg * 16 * G_PER_OZ / 1000 if shows.mass == "oz" else per_kg
    return f"{format_decimal(of, '0.00', locale=shows.language)}/{'lb' if shows.mass == 'oz' else 'kg'}"


def day(at: date, shows: Shows, weekday: bool = False) -> str:
    """A day with its year."""
    return format_date(at, "EEE d MMM y" if weekday else "d MMM y", locale=shows.language)


def moment(at: datetime, shows: Shows, weekday: bool = False) -> str:
    """A day and a time of it, in the time zone that it is given in."""
    hour = "h:mm a" if shows.hours == "12" else "HH:mm"
    return f"{day(at, shows, weekday)} {format_datetime(at, hour, tzinfo=at.tzinfo, locale=shows.language)}"


def plural_form(value: float, shows: Shows) -> str:
    """Which plural a number takes in a language: one, other."""
    form: str = Locale.parse(shows.language).plural_form(value)
    return form


def much(kg: float, shows: Shows) -> str:
    """Much weight [kg]."""
    if shows.mass == "oz":
        return f"{number(kg * 1000 / G_PER_OZ / 16, shows, 1)} lb"
    return f"{number(kg, shows, 1)} kg"


Writer = Callable[[float, Shows, tzinfo], str]
# by what follows the name of a value in a sentence, as in `{worst:c}`, or else, for those of ENDINGS, by how it ends
WRITERS: Final[dict[str, Writer]] = {
    "g": lambda value, shows, _: weight(value, shows),
    "c": lambda value, shows, _: temperature(value, shows),
    "k": lambda value, shows, _: warmth(value, shows),
    "mm": lambda value, shows, _: length(value, shows),
    "kg": lambda value, shows, _: much(value, shows),
    "per_kg": lambda value, shows, _: price(value, shows),
    "s": lambda value, shows, zone: moment(datetime.fromtimestamp(value, UTC).astimezone(zone), shows, weekday=True),
    "day_s": lambda value, shows, zone: day(datetime.fromtimestamp(value, UTC).astimezone(zone), shows, weekday=True),
}
ENDINGS: Final = ("day_s", "s", "g", "c", "mm")


def written(name: str, way: str | None, value: float, shows: Shows, zone: tzinfo) -> str:
    """A value of a sentence. Parameters: name; way, where the sentence says how; value; shows; zone of its times."""
    ending = next((one for one in ENDINGS if name.endswith(f"_{one}")), "")
    writer = WRITERS.get(way or ending)
    return number(value, shows) if writer is None else writer(value, shows, zone)
