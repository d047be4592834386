"""One error body for all routes, and one table from what went wrong to its status and code."""

from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel

from zymon.core.errors import OutOfRangeError, ZymonError
from zymon.core.say import Said
from zymon.formats.batch_file import BatchFileError
from zymon.formats.cells import MeasurementFileError
from zymon.formats.hang_file import HangFileError, fault_words, place_of
from zymon.formats.photo import PhotoError
from zymon.formats.recipe_file import RecipeFileError
from zymon.store.devices import UnknownDeviceError
from zymon.store.places import ChangedMeanwhileError, ClashError, NotFoundError
from zymon.words import told
from zymon.work.devices import FloodError
from zymon.work.imports import NeedsAnswerError
from zymon.work.premises import DoubtfulError
from zymon.work.schemas import SaidOut, said_out


class Problem(BaseModel):
    """What went wrong, in the words of the job; `where` names the field or line; `said`, the same as a code."""

    code: str
    detail: str
    where: str | None = None
    said: SaidOut | None = None


# most special first
STATUSES: tuple[tuple[type[Exception], int, str], ...] = (
    (DoubtfulError, 409, "doubtful"),
    (NeedsAnswerError, 409, "answer_needed"),
    (ChangedMeanwhileError, 409, "changed_meanwhile"),
    (UnknownDeviceError, 401, "unknown_device"),
    (FloodError, 429, "flood"),
    (NotFoundError, 404, "not_found"),
    (ClashError, 409, "clash"),
    (OutOfRangeError, 422, "out_of_range"),
    (HangFileError, 422, "file_unusable"),
    (MeasurementFileError, 422, "file_unusable"),
    (RecipeFileError, 422, "file_unusable"),
    (BatchFileError, 422, "file_unusable"),
    (PhotoError, 422, "file_unusable"),
)
ANSWERS: dict[int | str, dict[str, Any]] = {
    status: {"model": Problem} for status in sorted({400, 422} | {s for _, s, _ in STATUSES})
}

_FIELDS = {
    "gross_g": "weight",
    "start_weight_g": "start weight",
    "tare_g": "tare",
    "target_loss_percent": "target loss",
    "diameter_mm": "diameter",
    "thickness_mm": "thickness",
    "length_mm": "length",
    "batch_code": "batch",
    "fat_percent": "fat",
    "salt_percent": "salt",
    "temperature_c": "temperature",
    "rh_percent": "humidity",
}


def _body(code: str, detail: str, where: str | None = None, said: Said | None = None) -> dict[str, Any]:
    asked = None if said is None else said_out(said)
    return Problem(code=code, detail=detail, where=where, said=asked).model_dump()


def install(app: FastAPI) -> None:
    """Answer every known error with its status and a Problem."""

    def handler(status: int, code: str) -> Any:
        async def answer(request: Request, error: Exception) -> JSONResponse:
            if not isinstance(error, ZymonError):
                return JSONResponse(_body(code, str(error)), status_code=status)
            detail = told(error, request.app.state.context.zone)
            return JSONResponse(_body(code, detail, said=error.said), status_code=status)

        return answer

    for kind, status, code in STATUSES:
        app.add_exception_handler(kind, handler(status, code))

    @app.exception_handler(RequestValidationError)
    async def invalid(request: Request, error: RequestValidationError) -> JSONResponse:
        first = error.errors()[0]
        location = tuple(first["loc"][1:]) or tuple(first["loc"])
        where = place_of(location)
        rule = first.get("ctx", {}).get("error")
        if isinstance(rule, ZymonError):  # a rule of the job, met while the entry was read
            detail = told(rule, request.app.state.context.zone)
            return JSONResponse(_body("out_of_range", detail, where, rule.said), status_code=422)
        said = fault_words(first)
        name = _FIELDS.get(where, where.replace("_", " "))
        return JSONResponse(_body("invalid", f"{name} {said}", where), status_code=422)
