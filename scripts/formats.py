"""Writes the published formats: OpenAPI of the server, JSON Schemas of its files, the data dictionary."""

import json
import sys
import tempfile
from pathlib import Path

from zymon.app import make_app
from zymon.formats import batch_file_first as first
from zymon.formats.batch_file import BatchFile
from zymon.formats.dictionary import dictionary_markdown
from zymon.formats.hang_file import ForecastFile, HangFile
from zymon.formats.ledger_file import LedgerFile
from zymon.formats.recipe_file import RecipeFile
from zymon.formats.warm_file import WarmFile, WarmForecastFile
from zymon.settings import Settings
from zymon.store.dictionary import meant
from zymon.words import LANGUAGES, names, sentences

FOLDER = Path(__file__).resolve().parents[1] / "docs" / "formats"
CATALOGUE = "../../web/src/words/{}/server.json"  # said once, in the catalogue of the server


def documents() -> dict[str, str]:
    """File name → content of every published format."""
    with tempfile.TemporaryDirectory() as folder:
        api = make_app(Settings(db=Path(folder) / "formats.db"), behind_the_scenes=False).openapi()
    made = {
        "openapi.json": api,
        "zymon-hang-1.schema.json": HangFile.model_json_schema(),
        "zymon-forecast-1.schema.json": ForecastFile.model_json_schema(),
        "zymon-recipe-1.schema.json": RecipeFile.model_json_schema(),
        "zymon-batch-1.schema.json": first.BatchFile.model_json_schema(),
        "zymon-ledger-1.schema.json": first.LedgerFile.model_json_schema(),
        "zymon-batch-2.schema.json": BatchFile.model_json_schema(),
        "zymon-ledger-2.schema.json": LedgerFile.model_json_schema(),
        "zymon-warm-1.schema.json": WarmFile.model_json_schema(),
        "zymon-warm-forecast-1.schema.json": WarmForecastFile.model_json_schema(),
    }
    said = {CATALOGUE.format(one): {"sentences": dict(sentences(one)), "names": dict(names(one))} for one in LANGUAGES}
    return {
        **{name: _json(document, 1) for name, document in made.items()},
        **{name: _json(document, 2) for name, document in said.items()},
        "data-dictionary.md": dictionary_markdown(meant()),
    }


def _json(document: object, indent: int) -> str:
    return json.dumps(document, indent=indent, ensure_ascii=False, sort_keys=True) + "\n"


if __name__ == "__main__":
    check = "--check" in sys.argv
    stale = []
    for name, content in documents().items():
        file = FOLDER / name
        if check and (not file.exists() or file.read_text() != content):
            stale.append(name)
        elif not check:
            file.write_text(content)
    if stale:
        sys.exit(f"docs/formats is out of date: {', '.join(stale)}; run `make types`")
