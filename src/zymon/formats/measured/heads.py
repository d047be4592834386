"""What the head of a column says it holds, and in which unit: English, Italian, German, French, Spanish."""

import re
import unicodedata
from dataclasses import dataclass
from typing import Literal

Holds = Literal["at", "temperature", "humidity", "tag", "weight", "batch", "ph", "sample_temperature", "meter"]

# how a column may be called, accents and case aside; small words between are left out
_NAMES: dict[Holds, tuple[str, ...]] = {
    "at": (
        *("at", "time", "date", "datetime", "timestamp", "time stamp", "date time", "recorded", "recorded at"),
        *("when", "epoch", "unix time", "local time", "measured at", "weighed at"),
        *("ora", "data", "data ora", "giorno", "orario", "zeit", "datum", "zeitpunkt", "zeitstempel", "datum zeit"),
        *("uhrzeit", "datum uhrzeit", "heure", "date heure", "horodatage"),
        *("fecha", "hora", "fecha hora", "marca tiempo"),
    ),
    "temperature": (
        *("temperature", "temp", "t", "air temperature", "temperature air", "temperatura", "temperatura aria"),
        *("temperatur", "lufttemperatur", "temperature air", "temperatura aire"),
    ),
    "humidity": (
        *("humidity", "rh", "rel humidity", "relative humidity", "hum", "umidita", "umidita relativa", "ur"),
        *("feuchte", "luftfeuchte", "luftfeuchtigkeit", "feuchtigkeit", "relative feuchte", "rel feuchte"),
        *("relative luftfeuchte", "relative luftfeuchtigkeit", "rf", "rel luftfeuchte", "rel luftfeuchtigkeit"),
        *("humidite", "humidite relative", "hr", "humedad", "humedad relativa"),
    ),
    "tag": (
        *("tag", "piece", "piece no", "etichetta", "cartellino", "pezzo"),
        *("etikett", "anhanger", "stuck", "etiquette", "etiqueta", "pieza"),
    ),
    "weight": (
        *("weight", "gross", "gross weight", "peso", "peso lordo", "gewicht", "bruttogewicht"),
        *("poids", "poids brut", "peso bruto"),
    ),
    "batch": ("batch", "batch code", "lot", "lotto", "partita", "charge", "partie", "lote", "partida"),
    "ph": ("ph", "ph value", "value ph", "valore ph", "ph wert", "valeur ph", "valor ph"),
    "sample_temperature": (
        *("sample temperature", "sample temp", "temperatura campione", "temperatur probe", "probentemperatur"),
        *("temperature echantillon", "temperatura muestra"),
    ),
    "meter": ("meter", "ph meter", "strumento", "phmetro", "ph metro", "messgerat", "ph messgerat", "ph metre"),
}
_KNOWN: dict[str, Holds] = {name: holds for holds, names in _NAMES.items() for name in names}
_SMALL = {"e", "di", "del", "della", "dell", "d", "l", "de", "la", "le", "et", "und", "der", "des", "y", "the", "of"}
# which of several a column is: said in the question, not part of what it holds
_WHICH = {
    *("inside", "outside", "indoor", "outdoor", "internal", "external", "interno", "esterno", "interna", "esterna"),
    *("innen", "aussen", "interieur", "exterieur", "interieure", "exterieure", "interior", "exterior"),
    *("probe", "sonda", "sonde", "sensor", "sensore", "fuhler", "channel", "canale", "kanal", "canal", "ch", "ext"),
    *("avg", "mean", "min", "max", "average", "media", "minima", "massima", "mittel"),
}
_UNITS = {
    **dict.fromkeys(("c", "celsius", "deg c", "degc", "grad c"), "C"),
    **dict.fromkeys(("f", "fahrenheit", "deg f", "degf"), "F"),
    **dict.fromkeys(("k", "kelvin"), "K"),
    **dict.fromkeys(("g", "gr", "gram", "grams", "grammi", "gramm", "grammes", "gramos"), "g"),
    **dict.fromkeys(("kg", "kgs", "kilo", "kilos", "kilogram", "kilograms", "chili"), "kg"),
    **dict.fromkeys(("lb", "lbs", "pound", "pounds"), "lb"),
    **dict.fromkeys(("oz", "ounce", "ounces"), "oz"),
    **dict.fromkeys(("%", "percent", "% rh", "%rh", "rh %", "% ur", "% rf", "% hr", "rh"), "%"),
    "ph": "pH",
}
_ZONE = re.compile(r"\b(?:utc|gmt)\s*(?:([+-−])\s*(\d{1,2})(?::?(\d{2}))?)?", re.IGNORECASE)


@dataclass(frozen=True)
class Column:
    """What a column holds by its head: the unit it tells or '', and of times how far from UTC [s] or None."""

    holds: Holds
    unit: str
    offset_s: int | None = None


def unit_of(text: str) -> str:
    """The unit a text tells, as one of C F K g kg lb oz % pH; '' for none.

    >>> unit_of("°F"), unit_of("lbs"), unit_of("x")
    ('F', 'lb', '')
    """
    return _UNITS.get(" ".join(text.replace("°", "").replace("º", "").replace("˚", "").lower().split()), "")


def plain(text: str) -> str:
    """A head without case, accents and signs."""
    bare = unicodedata.normalize("NFKD", text.replace("ß", "ss")).encode("ascii", "ignore").decode().lower()
    return " ".join(re.sub(r"[^a-z]+", " ", bare).split())


def column_of(head: str) -> Column | None:
    """What a column holds, or None where its head does not say.

    >>> column_of("Temp 2 (°F)")
    Column(holds='temperature', unit='F', offset_s=None)
    >>> column_of("dew point (°C)") is None
    True
    """
    spaced = head.replace("_", " ").strip()
    inside = re.search(r"[\[(]\s*([^\])]*?)\s*[\])]", spaced)
    unit, offset_s = "", None
    if inside:
        unit, offset_s = unit_of(inside.group(1)), _offset_s(inside.group(1))
    bare = re.sub(r"[\[(].*?[\])]", " ", spaced)
    if offset_s is None:
        offset_s = _offset_s(bare)
        bare = _ZONE.sub(" ", bare)
    words = [word for word in plain(bare.replace("%", " ")).split() if word not in _SMALL and word not in _WHICH]
    holds = _KNOWN.get(" ".join(words))
    if holds is None and len(words) > 1 and unit_of(words[-1]) and " ".join(words[:-1]) in _KNOWN:
        holds, unit = _KNOWN[" ".join(words[:-1])], unit or unit_of(words[-1])
    if holds is None and "°" in bare:
        tail = bare.rsplit("°", 1)
        holds, unit = _KNOWN.get(plain(tail[0])), unit or unit_of(tail[1])
    if holds is None:
        return None
    if not unit and holds == "humidity" and "%" in head:
        unit = "%"
    return Column(holds, unit, offset_s if holds == "at" else None)


def _offset_s(text: str) -> int | None:
    told = _ZONE.search(text)
    if told is None:
        return None
    sign, hours, minutes = told.groups()
    seconds = int(hours or 0) * 3600 + int(minutes or 0) * 60
    return -seconds if sign in ("-", "−") else seconds
