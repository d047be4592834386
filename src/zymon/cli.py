"""The command line. Imports wait until a command needs them."""

import sys
from collections.abc import Callable
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


@app.command()
def serve(
    db: Annotated[Path | None, typer.Option(help="The workshop's database file.")] = None,
    port: Annotated[int | None, typer.Option(help="Port; the next free one is taken when it is busy.")] = None,
) -> None:
    """Serve a workshop on this machine."""
    from zymon.app import run

    run(_settings(db=db, port=port))


@app.command()
def demo(
    port: Annotated[int | None, typer.Option(help="Port; the next free one is taken when it is busy.")] = None,
    db: Annotated[Path, typer.Option(help="Where the demo workshop is kept.")] = Path("var/demo.db"),
    fresh: Annotated[bool, typer.Option("--fresh", help="Make the demo workshop anew, as of today.")] = False,
) -> None:
    """Serve the made-up workshop, so that there is something to try."""
    from zymon.app import run
    from zymon.demo.build import ensure_demo
    from zymon.demo.live import start

    settings = _settings(db=db, port=port)
    # its simulated instruments speak to it over plain http
    settings.certificate = settings.certificate_key = None
    ensure_demo(db, fresh=fresh)
    run(settings, beside=start)


def main() -> None:
    """Entry point of the `zymon` command."""
    app()
