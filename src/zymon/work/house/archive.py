"""The archive: everything out in open formats, as of one moment, and everything in again, all or nothing."""

import hashlib
import re
import tempfile
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from typing import TypeVar
from zipfile import ZIP_DEFLATED, BadZipFile, ZipFile

from sqlalchemy.exc import SQLAlchemyError

from zymon import __version__
from zymon.core.errors import ZymonError
from zymon.store import archive as tables
from zymon.store import bench
from zymon.store.archive import ArchiveError, Manifest
from zymon.store.copies import CopyError, companions, editions, fill_from, take_copy
from zymon.store.database import Database, migrate
from zymon.store.finding import every_batch
from zymon.store.house_models import BroughtIn
from zymon.store.places import ClashError, places, workshop
from zymon.work.bench.recipes import as_file
from zymon.work.book.spreadsheet import workshop_sheet
from zymon.work.files import hang_file
from zymon.work.ledger.settling import batch_file
from zymon.work.premises import Premises, moment
from zymon.work.warm.file import warm_file

Key = TypeVar("Key")


@contextmanager
def _as_of_now(source: Path, now_s: int) -> Iterator[Premises]:
    """A copy of a workshop that stands still, while the workshop itself goes on."""
    with tempfile.TemporaryDirectory(prefix="zymon-archive-") as folder:
        still = Path(folder) / source.name
        take_copy(source, still)
        shop = Premises(db=Database(still), clock=lambda: float(now_s))
        try:
            yield shop
        finally:
            shop.db.close()


def write_archive(source: Path, target: Path, now_s: int) -> Manifest:
    """Everything of a workshop that may be in use, as a zip. The file has its name only once it is whole.

    Raises CopyError.
    """
    part = target.with_name(target.name + ".part")
    try:
        with _as_of_now(source, now_s) as shop, ZipFile(part, "w", ZIP_DEFLATED, compresslevel=6) as out:
            with shop.db.plain() as connection:
                told = tables.write_tables(connection, out)
                photos = tables.write_photos(connection, out)
            for name, content in _files(shop):
                out.writestr(f"files/{name}", content)
            sheet = workshop_sheet(shop)
            out.write(sheet, "spreadsheet.xlsx")
            sheet.unlink()
            manifest = Manifest(
                format=tables.FORMAT, made=moment(now_s), zymon=__version__, edition=editions()[0], tables=told,
                photos=photos,
            )  # fmt: skip
            out.writestr(tables.MANIFEST, manifest.model_dump_json(indent=1))
        part.replace(target)
    except OSError as error:
        raise CopyError("refused.copy_disk", file=str(target), why=error.strerror or str(error)) from error
    finally:
        part.unlink(missing_ok=True)
    return manifest


def _files(shop: Premises) -> Iterator[tuple[str, str | bytes]]:
    """Each batch, place and recipe as a file that can be used alone."""
    with shop.db.reading() as session:
        batches = [(one.id, one.code) for one in every_batch(session)]
        where = [(one.id, one.name) for one in places(session)]
        recipes = [(one.id, one.name, one.versions[-1].number) for one in bench.recipes(session)]
    for batch_id, code in batches:
        yield from _one(f"batch-{code}", lambda of: batch_file(shop, of).model_dump_json(by_alias=True), code)
        yield from _one(f"warm-{code}", lambda of: warm_file(shop, of).model_dump_json(), batch_id)
    for place_id, name in where:
        yield from _one(f"hang-{name}", lambda of: "".join(hang_file(shop, of, finished=True)[1]), place_id)
    for recipe_id, name, version in recipes:
        yield from _one(f"recipe-{name}", lambda of: as_file(shop, *of)[0], (recipe_id, version))


def _one(name: str, written: Callable[[Key], str | bytes], key: Key) -> Iterator[tuple[str, str | bytes]]:
    """A file, or none where what it would say was never entered: a batch that was never warm has no warm file."""
    try:
        yield f"{re.sub(r'[^A-Za-z0-9_-]+', '-', name)}.json", written(key)
    except ZymonError:
        return


def read_archive(archive: Path, target: Path, name: str, now_s: int) -> Manifest:
    """Bring an archive in as a workshop's file of its own. Raises ArchiveError, CopyError; then nothing is there.

    Parameters: archive; target, which must not be there yet; name, of the archive as it was given; now_s [s].
    """
    if target.exists():
        raise CopyError("refused.copy_there", file=str(target))
    part = target.with_name(f"{target.name}.arriving")
    try:
        with ZipFile(archive) as opened:
            told = tables.read_manifest(opened)
            tables.check_tables(opened, told)
            with closing(Database(part, edition=told.edition)) as db:
                with db.plain() as connection:
                    tables.read_tables(connection, opened, told)
                migrate(db.engine)
                with db.writing() as session:
                    session.add(
                        BroughtIn(
                            at_s=now_s, file_name=name[:200], sha256=_fingerprint(archive),
                            made_s=int(told.made.timestamp()),
                        )
                    )  # fmt: skip
        take_copy(part, target)
    except (BadZipFile, SQLAlchemyError) as error:
        raise ArchiveError("refused.archive_damaged") from error
    except OSError as error:
        raise CopyError("refused.copy_disk", file=str(target), why=error.strerror or str(error)) from error
    finally:
        for leftover in (part, *companions(part)):
            leftover.unlink(missing_ok=True)
    return told


def _fingerprint(file: Path) -> str:
    with file.open("rb") as opened:
        return hashlib.file_digest(opened, "sha256").hexdigest()


def bring_in(shop: Premises, archive: Path, name: str) -> Manifest:
    """Bring an archive into a workshop in which nothing is yet, while it is served. Raises as `read_archive`."""
    with shop.db.reading() as session:
        if workshop(session) is not None:
            raise ClashError("refused.workshop_there")
    with tempfile.TemporaryDirectory(prefix="zymon-archive-", dir=shop.db.file.parent) as folder:
        arrived = Path(folder) / "arrived.db"
        told = read_archive(archive, arrived, name, shop.now_s)
        fill_from(shop.db.file, arrived)
    shop.db.engine.dispose()  # what its connections had prepared was of the empty tables
    shop.begin_anew()
    return told
