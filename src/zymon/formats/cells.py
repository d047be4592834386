"""The cells of a measurement file: its encoding and delimiter, what a header calls its column, times and numbers."""

import csv
import math
import re
import unicodedata
from collections.abc import Callable
from datetime import datetime
from zoneinfo import ZoneInfo

# how a column may be called, accents and case aside: English, Italian, German, French, Spanish
_NAMES: dict[str, tuple[str, ...]] = {
    "at": (
        *("at", "time", "date", "datetime", "timestamp", "date time", "date/time", "recorded"),
        *("ora", "data", "data ora", "zeit", "datum", "zeitpunkt", "datum zeit", "uhrzeit"),
        *("heure", "date heure", "horodatage", "fecha", "hora", "fecha hora"),
    ),
    "temperature": ("temperature", "temp", "t", "temperatura", "temperatur", "temperature c", "temperature f"),
    "humidity": (
        *("humidity", "rh", "rel humidity", "relative humidity", "umidita", "umidita relativa", "ur"),
        *("feuchte", "luftfeuchte", "luftfeuchtigkeit", "relative feuchte", "rel feuchte"),
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
}


class MeasurementFileError(ValueError):
    """A file that cannot be read as measurements at all; the text says what to do."""


def _plain(text: str) -> str:
    bare = unicodedata.normalize("NFKD", text).encode("ascii", "ignore").decode().lower()
    return " ".join(re.sub(r"[^a-z/ ]+", " ", bare.replace("_", " ")).split())


def column_of(header: str) -> tuple[str, str] | None:
    """What a column holds and the unit its header tells, or None."""
    spaced = header.replace("_", " ")
    inside = re.search(r"[\[(]\s*([^\])]*?)\s*[\])]", spaced)
    unit = _plain(inside.group(1).replace("°", "").replace("º", "")) if inside else ""
    name = _plain(re.sub(r"[\[(].*?[\])]", " ", spaced).replace("°", " "))
    tail = re.fullmatch(r"(.+?) (c|f|g|kg|oz|lb|percent|utc|celsius|fahrenheit)", name)
    if tail and not unit:
        name, unit = tail.group(1), tail.group(2)
    for column, names in _NAMES.items():
        if name in names:
            return column, {"celsius": "c", "fahrenheit": "f"}.get(unit, unit)
    return None


def decoded(data: bytes) -> tuple[str, str]:
    """The text of a file and the encoding it was read in. Raises MeasurementFileError."""
    if b"\x00" in data[:65536]:
        raise MeasurementFileError("this is not a text file; export the readings as CSV and bring that")
    try:
        return data.decode("utf-8-sig"), "UTF-8"
    except UnicodeDecodeError:
        return data.decode("latin-1"), "Latin-1"


def delimiter_of(text: str) -> str:
    """What stands between the cells of a file."""
    head = [line for line in text[:8192].splitlines() if line.strip()][:20]
    try:
        return csv.Sniffer().sniff("\n".join(head[:1]), delimiters=",;\t").delimiter
    except csv.Error:
        return max(",;\t", key=lambda d: head[0].count(d) if head else 0)


_DAY_FIRST = re.compile(r"(\d{1,2})[./-](\d{1,2})[./-](\d{4})(?:[ T]+(\d{1,2}):(\d{2})(?::(\d{2}))?)?$")


def clock(zone: ZoneInfo) -> Callable[[str], float]:
    """A reader of times to seconds since 1970; local times are of `zone`, the repeated autumn hour is told by order.

    Zones change on whole hours, so an hour is worked out once and its minutes are added: a million rows take a second.
    """
    last = -math.inf
    hours: dict[str, tuple[float, bool]] = {}

    def start_of(text: str, fold: int) -> tuple[float, bool]:
        found = _DAY_FIRST.match(text)
        if found:
            d, m, y, hh, mm, ss = found.groups()
            at = datetime(int(y), int(m), int(d), int(hh or 0), int(mm or 0), int(ss or 0))
        else:
            at = datetime.fromisoformat(text)
        local = at.tzinfo is None
        return (at.replace(tzinfo=zone, fold=fold) if local else at).timestamp(), local

    def read(text: str) -> float:
        nonlocal last
        zulu = text[-1:] == "Z"
        bare = text[:-1] if zulu else text
        minute, second = bare[14:16], bare[17:]
        if bare[13:14] == ":" and minute.isdigit() and (len(bare) == 16 or (len(bare) == 19 and second.isdigit())):
            key = bare[:13] + text[-1:] if zulu else bare[:13]
            known = hours.get(key)
            if known is None:
                known = hours[key] = start_of(bare[:13] + ":00:00" + ("Z" if zulu else ""), 0)
            extra = int(minute) * 60 + int(second or 0)
            if extra >= 3600 or int(second or 0) > 59:
                raise ValueError(text)
            seconds, local = known[0] + extra, known[1]
        else:
            seconds, local = start_of(text, 0)
        if local and seconds <= last < seconds + 3600:
            later = start_of(text, 1)[0]
            if later > last:
                seconds = later
        last = seconds
        return seconds

    return read


def number(text: str) -> float:
    """A number as loggers and spreadsheets write it, with a unit or a decimal comma perhaps. Raises ValueError."""
    try:
        value = float(text)
    except ValueError:
        value = float(text.replace(",", ".").replace("\u2212", "-").rstrip(" %°CFgk"))
    if not math.isfinite(value):
        raise ValueError(text)
    return value
