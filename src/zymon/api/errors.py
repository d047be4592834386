"""One error body for all routes, and one table from what went wrong to its status and code."""

from typing import Any
from zoneinfo import ZoneInfo

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from starlette.exceptions import HTTPException

from zymon.core.errors import OutOfRangeError, ZymonError
from zymon.core.say import Said
from zymon.formats.batch_file import BatchFileError
from zymon.formats.hang_file import HangFileError, place_of
from zymon.formats.measured.faults import MeasurementFileError
from zymon.formats.photo import PhotoError
from zymon.formats.recipe_file import RecipeFileError
from zymon.store.archive import ArchiveError
from zymon.store.copies import CopyError
from zymon.store.database import StoreError, trouble_of
from zymon.store.devices import UnknownDeviceError
from zymon.store.places import ChangedMeanwhileError, ClashError, NotFoundError
from zymon.words import sentence, told
from zymon.work.devices import FloodError
from zymon.work.hang.round import TypedByOtherError
from zymon.work.house.door import ConfirmNeededError, NotAllowedError, NotSignedInError
from zymon.work.house.people import WaitError, WrongSecretError
from zymon.work.imports import NeedsAnswerError
from zymon.work.premises import DoubtfulError
from zymon.work.schemas import SaidOut, said_out

from .faults import fault_said, rule_of

UTC = ZoneInfo("UTC")


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
    (NotSignedInError, 401, "sign_in_first"),
    (WrongSecretError, 403, "wrong_secret"),
    (ConfirmNeededError, 403, "confirm_needed"),
    (NotAllowedError, 403, "not_allowed"),
    (TypedByOtherError, 403, "typed_by_other"),
    (WaitError, 429, "wait"),
    (FloodError, 429, "flood"),
    (NotFoundError, 404, "not_found"),
    (ClashError, 409, "clash"),
    (OutOfRangeError, 422, "out_of_range"),
    (HangFileError, 422, "file_unusable"),
    (MeasurementFileError, 422, "file_unusable"),
    (RecipeFileError, 422, "file_unusable"),
    (BatchFileError, 422, "file_unusable"),
    (PhotoError, 422, "file_unusable"),
    (CopyError, 503, "no_copy"),
    (ArchiveError, 422, "file_unusable"),
)
ANSWERS: dict[int | str, dict[str, Any]] = {
    status: {"model": Problem} for status in sorted({400, 411, 413, 422, 503, 507} | {s for _, s, _ in STATUSES})
}
MEDIA_TYPE = "application/problem+json"  # RFC 9457


def answer(status: int, code: str, detail: str, where: str | None = None, said: Said | None = None) -> JSONResponse:
    """A refusal as it is sent."""
    asked = None if said is None else said_out(said)
    body = Problem(code=code, detail=detail, where=where, said=asked).model_dump()
    return JSONResponse(body, status_code=status, media_type=MEDIA_TYPE)


def problem(error: ZymonError, status: int, code: str, zone: ZoneInfo = UTC) -> JSONResponse:
    """What went wrong, in words and as a code. Parameters: zone, in which times are told."""
    return answer(status, code, told(error, zone), said=error.said)


def install(app: FastAPI) -> None:
    """Answer every known error with its status and a Problem."""

    def handler(status: int, code: str) -> Any:
        async def refuse(request: Request, error: Exception) -> JSONResponse:
            if not isinstance(error, ZymonError):
                return answer(status, code, str(error))
            return problem(error, status, code, request.app.state.context.zone)

        return refuse

    for kind, status, code in STATUSES:
        app.add_exception_handler(kind, handler(status, code))

    @app.exception_handler(HTTPException)
    async def plain(_request: Request, error: HTTPException) -> JSONResponse:
        said = {404: "refused.nothing_here", 405: "refused.not_done_here"}.get(error.status_code)
        code = {404: "not_found", 405: "not_done_here"}.get(error.status_code, "invalid")
        if said is None:
            return answer(error.status_code, code, str(error.detail))
        return problem(ZymonError(said), error.status_code, code)

    @app.exception_handler(StoreError)
    async def disk(request: Request, error: StoreError) -> JSONResponse:
        trouble = trouble_of(error)
        if trouble is None:
            raise error
        request.app.state.context.trouble = trouble
        status, code = (507, "disk_full") if trouble == "disk_full" else (503, trouble)
        return problem(ZymonError(f"refused.{trouble}"), status, code)

    @app.exception_handler(RequestValidationError)
    async def invalid(request: Request, error: RequestValidationError) -> JSONResponse:
        first = error.errors()[0]
        location = tuple(first["loc"][1:]) or tuple(first["loc"])
        where = place_of(location)
        said = fault_said(first, location)
        code = "invalid" if rule_of(first) is None else "out_of_range"
        return answer(422, code, sentence(said, request.app.state.context.zone), where, said)
