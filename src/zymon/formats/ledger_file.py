"""The ledger file, `zymon-ledger/2`, and the judging of batch files of either edition."""

from typing import Any, Literal

import orjson
from pydantic import BaseModel, ConfigDict, ValidationError

from zymon.core.ledger import batch as core
from zymon.core.ledger.hurdle import Hurdle
from zymon.core.ledger.judge import HELD, Ledger, judge
from zymon.core.say import Said
from zymon.words import USUAL, sentence

from . import batch_file_first as first
from .batch_course import batch_of
from .batch_file import BatchFile, BatchFileError
from .hang_file import first_error, iso


class WasFailRow(BaseModel):
    """That a hurdle failed until it was corrected."""

    until: str
    by: str
    reason: str


class SignedRow(BaseModel):
    """Who answers for it."""

    by: str
    at: str
    reason: str


class HurdleRow(BaseModel):
    """One hurdle of the ledger, in words."""

    name: str
    state: core.State
    value: float | str | None
    limit: float | str | None
    unit: str
    known: core.Known
    source: str
    why: str | None
    settles: str | None
    cautions: list[str]
    pieces: list[str] | None
    was_fail: WasFailRow | None
    signed: SignedRow | None
    evidence: list[tuple[str, str, str]]


class LedgerFile(BaseModel):
    """The ledger of a batch."""

    model_config = ConfigDict(protected_namespaces=())

    format: Literal["zymon-ledger/2"] = "zymon-ledger/2"
    id: str
    ready: bool
    use: core.Use
    why: list[str]
    check: str
    hurdles: list[HurdleRow]


def read_batch(document: dict[str, Any]) -> BatchFile:
    """Check a batch file of the second edition. Raises BatchFileError naming the place."""
    if document.get("format") != "zymon-batch/2":
        raise BatchFileError(f"format: expected 'zymon-batch/2' or 'zymon-batch/1', got {document.get('format')!r}")
    try:
        return BatchFile.model_validate(document)
    except ValidationError as error:
        raise BatchFileError(first_error(error)) from error


def _document(data: bytes) -> dict[str, Any]:
    try:
        document: Any = orjson.loads(data)
    except orjson.JSONDecodeError as error:
        raise BatchFileError(f"line {error.lineno}: not JSON ({error.msg})") from error
    if not isinstance(document, dict):
        raise BatchFileError("file: a batch file is a JSON object")
    return document


def judge_bytes(data: bytes) -> bytes:
    """One batch file of either edition in, its ledger out, as a JSON line without its end. Raises BatchFileError."""
    document = _document(data)
    if document.get("format") == "zymon-batch/1":
        return first.judge_document(document)
    return orjson.dumps(judge_file(read_batch(document)).model_dump())


def judge_file(file: BatchFile) -> LedgerFile:
    """The ledger of a batch file of the second edition."""
    return ledger_out(judge(batch_of(file)))


def ledger_out(ledger: Ledger) -> LedgerFile:
    """The ledger document of the core's answer, in words."""
    return LedgerFile(
        id=ledger.id,
        ready=ledger.ready,
        use="cooked" if ledger.use == "cooked" else "raw",
        why=[
            sentence(why, shows=USUAL) if hurdle in HELD else f"{hurdle}: {sentence(why, shows=USUAL)}"
            for hurdle, why in ledger.why
        ],
        check=_words(ledger.check) or "",
        hurdles=[_hurdle(h) for h in ledger.hurdles],
    )


def _words(of: Said | None) -> str | None:
    return None if of is None else sentence(of, shows=USUAL)


def _hurdle(h: Hurdle) -> HurdleRow:
    signed, was = h.signed, h.was_fail
    return HurdleRow(
        name=h.name,
        state=h.state,
        value=round(h.value, 4) if isinstance(h.value, float) else h.value,
        limit=_words(h.limit) if isinstance(h.limit, Said) else h.limit,
        unit=h.unit,
        known=h.known,
        source=h.source,
        why=_words(h.why),
        settles=_words(h.settles),
        cautions=[sentence(c, shows=USUAL) for c in h.cautions],
        pieces=None if h.pieces is None else list(h.pieces),
        was_fail=None if was is None else WasFailRow(until=iso(was.until_s), by=was.by, reason=was.reason),
        signed=None if signed is None else SignedRow(by=signed.by, at=iso(signed.at_s), reason=signed.reason),
        evidence=[(iso(e.from_s), iso(e.to_s), sentence(e.says, shows=USUAL)) for e in h.evidence],
    )
