"""The command line. Imports wait until a command needs them."""

import gc
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

if TYPE_CHECKING:
    from zymon.settings import Settings

app = typer.Typer(add_completion=False, no_args_is_help=True, help="Dates you can believe for every hanging piece.")


def _fail(text: str) -> None:
    print(text, file=sys.stderr)


def _version(wanted: bool) -> None:
    if wanted:
        from zymon import __version__

        print(f"zymon {__version__}")
        raise typer.Exit


@app.callback()
def _root(
    version: Annotated[
        bool, typer.Option("--version", callback=_version, is_eager=True, help="Say the version.")
    ] = False,
) -> None:
    pass


Files = Annotated[list[Path], typer.Argument(metavar="FILE…")]


@app.command("forecast")
def forecast_files(files: Files) -> None:
    """Read hang files; print one forecast per file as a line of JSON."""
    from zymon.formats.hang_file import forecast_bytes

    _line_by_line(files, forecast_bytes)


@app.command("judge")
def judge_files(files: Files) -> None:
    """Read batch files; print the ledger of hurdles of each as a line of JSON."""
    from zymon.formats.ledger_file import judge_bytes

    _line_by_line(files, judge_bytes)


@app.command("ferment")
def ferment_files(files: Files) -> None:
    """Read warm files; print the forecast of the pH of each as a line of JSON."""
    from zymon.formats.warm_file import ferment_bytes

    _line_by_line(files, ferment_bytes)


def _line_by_line(files: list[Path], answer: Callable[[bytes], bytes]) -> None:
    """One answer a line; a file that is wrong gives one line on standard error, the others are still done."""
    failed = False
    for file in files:
        try:
            line = answer(file.read_bytes())
        except (ValueError, OSError) as error:
            _fail(f"{file}: {error.strerror if isinstance(error, OSError) else error}")
            failed = True
            continue
        sys.stdout.buffer.write(line + b"\n")
        sys.stdout.buffer.flush()
    if failed:
        raise typer.Exit(1)


@app.command()
def calc(kind: str, file: Path) -> None:
    """Work every case of a document with the core and print it filled in."""
    import orjson

    from zymon.formats.calc import CalcError, calculate

    try:
        document, good = calculate(kind, orjson.loads(file.read_bytes()))
    except (CalcError, OSError, orjson.JSONDecodeError) as error:
        _fail(f"{file}: {error.strerror if isinstance(error, OSError) else error}")
        raise typer.Exit(1) from error
    sys.stdout.buffer.write(orjson.dumps(document, option=orjson.OPT_INDENT_2) + b"\n")
    if not good:
        raise typer.Exit(1)


def _settings(**given: object) -> "Settings":
    """Settings from the environment and from what was given; what cannot be is said in a line."""
    from pydantic import ValidationError

    from zymon.settings import Settings

    try:
        return Settings(**{k: v for k, v in given.items() if v is not None})  # type: ignore[arg-type] # it checks them
    except ValidationError as error:
        for one in error.errors():
            name = "_".join(["ZYMON", *map(str, one["loc"])]).upper()
            _fail(f"{name}: {one['msg']}" if one["loc"] else one["msg"].removeprefix("Value error, "))
        raise typer.Exit(1) from None


@contextmanager
def _said() -> Iterator[None]:
    """What cannot be done is said in a line, not shown as a fault of the program."""
    from sqlalchemy.exc import DatabaseError

    from zymon.core.errors import ZymonError
    from zymon.words import told

    try:
        yield
    except ZymonError as error:
        _fail(told(error))
    except DatabaseError as error:
        _fail(f"the workshop's file cannot be used: {error.orig}")
    except OSError as error:
        _fail(f"{error.filename or ''}: {error.strerror or error}".removeprefix(": "))
    else:
        return
    raise typer.Exit(1)


Db = Annotated[Path | None, typer.Option(help="The workshop's database file.")]


@contextmanager
def _unswept() -> Iterator[None]:
    """While Zymon itself is read nothing becomes garbage, and the search for it would take a seventh of the start."""
    gc.disable()
    try:
        yield
    finally:
        gc.enable()


@app.command()
def serve(
    db: Db = None,
    port: Annotated[int | None, typer.Option(help="Port; when it is busy, Zymon says so and stops.")] = None,
    host: Annotated[str | None, typer.Option(help="Address to listen on; 0.0.0.0 for the local network.")] = None,
    address: Annotated[
        str | None, typer.Option(help="Address for tablets, as http://192.168.1.20:8420: tags and links carry it.")
    ] = None,
) -> None:
    """Serve a workshop on this machine."""
    with _unswept():
        from zymon.app import run

    with _said():
        run(_settings(db=db, port=port, host=host, address=address))


@app.command()
def demo(
    port: Annotated[int | None, typer.Option(help="Port; the next free one is taken when it is busy.")] = None,
    db: Annotated[Path | None, typer.Option(help="Where the demo workshop is kept.")] = None,
    fresh: Annotated[bool, typer.Option("--fresh", help="Make the demo workshop anew, as of today.")] = False,
) -> None:
    """Serve the made-up workshop, so that there is something to try."""
    with _unswept():
        from zymon.app import next_free, run
        from zymon.demo.build import ensure_demo
        from zymon.demo.live import start
        from zymon.settings import usual_file

    db = db or usual_file("demo.db")
    settings = _settings(db=db, port=port)
    # its simulated instruments speak to it over plain http
    settings.certificate = settings.certificate_key = None
    with _said():
        ensure_demo(db, fresh=fresh)
        run(settings, beside=start, listening=next_free)


@app.command()
def owner(
    name: Annotated[str, typer.Argument(help="Their name, as entries carry it.")],
    db: Db = None,
    passphrase: Annotated[
        str, typer.Option(prompt=True, confirmation_prompt=True, hide_input=True, help="Asked for if not given.")
    ] = "",
) -> None:
    """Make an owner, or give one who forgot it a new passphrase. From then on one signs in."""
    from pydantic import TypeAdapter, ValidationError

    from zymon.store.database import Database
    from zymon.work.house.people import make_owner
    from zymon.work.house.schemas import NewName
    from zymon.work.premises import Premises

    try:
        checked: str = TypeAdapter(NewName).validate_python(name)
    except ValidationError as error:
        _fail(f"name: {error.errors()[0]['msg']}")
        raise typer.Exit(1) from None
    settings = _settings(db=db)
    with _said():
        shop = Premises(db=Database(settings.db, settings.backup_folder), clock=time.time)
        new = make_owner(shop, checked, passphrase)
        shop.db.close()
        print(f"{checked} {'is an owner now' if new else 'has a new passphrase'}; sign in with it.")


def _to_copy(db: Path | None, target: Path) -> Path:
    """The workshop's file that is to be copied. Raises CopyError where there is none, or where the copy would go."""
    from zymon.store.copies import CopyError

    source = _settings(db=db).db
    if target.exists():
        raise CopyError("refused.copy_there", file=str(target))
    if not source.is_file():
        raise CopyError("refused.no_such_file", file=str(source))
    return source


@app.command()
def backup(file: Annotated[Path, typer.Argument(help="Where the copy goes.")], db: Db = None) -> None:
    """Copy a workshop, also while it is served, and look the copy through."""
    from zymon.store.copies import take_copy

    with _said():
        source = _to_copy(db, file)
        counts = take_copy(source, file)
        print(f"{file}: {sum(counts.values()):,} rows in {len(counts)} tables, looked through and whole.")


@app.command()
def restore(file: Annotated[Path, typer.Argument(help="The copy.")], db: Db = None) -> None:
    """Put a copy in the place of a workshop's file; what was there is kept. Not while it is served."""
    from zymon.store.copies import put_back

    target = _settings(db=db).db
    with _said():
        counts, aside = put_back(file, target, int(time.time()))
        print(f"{target}: {sum(counts.values()):,} rows in {len(counts)} tables are back.")
        if aside is not None:
            print(f"What was there before is kept as {aside}.")


@app.command()
def archive(file: Annotated[Path, typer.Argument(help="The zip that is written.")], db: Db = None) -> None:
    """Write everything of a workshop into open files, also while it is served."""
    from zymon.work.house.archive import write_archive

    with _said():
        source = _to_copy(db, file)
        told = write_archive(source, file, int(time.time()))
        rows = sum(table.rows for table in told.tables.values())
        print(f"{file}: {rows:,} rows in {len(told.tables)} tables, {told.photos} photos.")


@app.command()
def unarchive(
    file: Annotated[Path, typer.Argument(help="The archive.")],
    db: Annotated[Path, typer.Option(help="The workshop's file that is made; it must not be there yet.")],
) -> None:
    """Make a workshop of an archive, all or nothing."""
    from zymon.work.house.archive import read_archive

    with _said():
        told = read_archive(file, db, file.name, int(time.time()))
        rows = sum(table.rows for table in told.tables.values())
        print(f"{db}: {rows:,} rows in {len(told.tables)} tables and {told.photos} photos,", end=" ")
        print(f"as they were on {told.made:%Y-%m-%d %H:%M} UTC.")
        if told.tables["person"].rows:
            print("Passphrases and tokens are in no archive: zymon owner NAME gives the owner a new one.")


def main() -> None:
    """Entry point of the `zymon` command."""
    app()
