"""One error body for all routes, and one table from what went wrong to its status and code."""

from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel

from zymon.core.errors import OutOfRangeError, ZymonError
from zymon.formats.cells import MeasurementFileError
from zymon.formats.hang_file import HangFileError, fault_words, place_of
from zymon.formats.photo import PhotoError
from zymon.formats.recipe_file import RecipeFileError
from zymon.store.devices import UnknownDeviceError
from zymon.store.places import ClashError, NotFoundError


class Problem(BaseModel):
    """What went wrong, in the words of the job; `where` names the field or line."""

    code: str
    detail: str
    where: str | None = None


class DoubtfulError(ZymonError, ValueError):
    """A weight or pH that is asked about before it counts."""


class NeedsAnswerError(ZymonError, ValueError):
    """A file that cannot be brought in before a question is answered or its faults are dealt with."""


class FloodError(ZymonError, RuntimeError):
    """More calls than anybody needs."""


# most special first
STATUSES: tuple[tuple[type[Exception], int, str], ...] = (
    (DoubtfulError, 409, "doubtful"),
    (NeedsAnswerError, 409, "answer_needed"),
    (UnknownDeviceError, 401, "unknown_device"),
    (FloodError, 429, "flood"),
    (NotFoundError, 404, "not_found"),
    (ClashError, 409, "clash"),
    (OutOfRangeError, 422, "out_of_range"),
    (HangFileError, 422, "file_unusable"),
    (MeasurementFileError, 422, "file_unusable"),
    (RecipeFileError, 422, "file_unusable"),
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


def _body(code: str, detail: str, where: str | None = None) -> dict[str, Any]:
    return Problem(code=code, detail=detail, where=where).model_dump()


def install(app: FastAPI) -> None:
    """Answer every known error with its status and a Problem."""

    def handler(status: int, code: str) -> Any:
        async def answer(_request: Request, error: Exception) -> JSONResponse:
            return JSONResponse(_body(code, str(error)), status_code=status)

        return answer

    for kind, status, code in STATUSES:
        app.add_exception_handler(kind, handler(status, code))

    @app.exception_handler(RequestValidationError)
    async def invalid(_request: Request, error: RequestValidationError) -> JSONResponse:
        first = error.errors()[0]
        location = tuple(first["loc"][1:]) or tuple(first["loc"])
        where = place_of(location)
        said = fault_words(first)
        name = _FIELDS.get(where, where.replace("_", " "))
        return JSONResponse(_body("invalid", f"{name} {said}", where), status_code=422)
