"""Changes every limit of safety by a fifth, one at a time, and fails where no test notices.

python scripts/mutants.py             every limit, both ways, on two cores
python scripts/mutants.py COLD_C      those whose name holds the word
"""

import ast
import json
import os
import re
import shutil
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import Queue

ROOT = Path(__file__).resolve().parents[1]
MODULES = {  # file: names in it that are no limits
    "src/zymon/core/ledger/marks.py": {"SLACK"},
    "src/zymon/core/ledger/parasites.py": set(),
    "src/zymon/core/ledger/laboratory.py": {"SPANS"},
    "src/zymon/core/water.py": {
        *("SODIUM_CHLORIDE_G_MOL", "WATER_KG_MOL", "SATURATED_MOLALITY", "_BETA0", "TYPICAL_SALT_PERCENT", "OSWIN_X"),
        *("SORPTION_EXPONENT", "WATER_IN_LEAN", "ESTIMATE_SD"),
    },
}
DATA = ("src/zymon/limits/us.json", "src/zymon/limits/eu.json")
TESTS = ("tests/core/test_ready.py", "tests/core/test_ready_vectors.py", "tests/core/test_limits.py")


@dataclass(frozen=True)
class Mutant:
    """A number in a file, and what stands there instead."""

    file: str
    name: str
    start: int
    end: int
    instead: str


def mutants() -> list[Mutant]:
    """Every limit, a fifth more and a fifth less."""
    found = [m for file, aside in MODULES.items() for m in _of_module(file, aside)]
    return [*found, *(m for file in DATA for m in _of_data(file))]


def _of_module(file: str, aside: set[str]) -> list[Mutant]:
    text = (ROOT / file).read_text()
    lines = [0, *(i + 1 for i, c in enumerate(text) if c == "\n")]
    found = []
    for node in ast.parse(text).body:
        if not isinstance(node, ast.Assign | ast.AnnAssign) or node.value is None:
            continue
        target = node.targets[0] if isinstance(node, ast.Assign) else node.target
        names = [n.id for n in ast.walk(target) if isinstance(n, ast.Name)]
        if not names or not names[0].isupper() or names[0] in aside:
            continue
        numbers = [n for n in ast.walk(node.value) if isinstance(n, ast.Constant) and type(n.value) in (int, float)]
        for i, number in enumerate(sorted(numbers, key=lambda n: (n.lineno, n.col_offset))):
            offset = len(text[lines[number.lineno - 1] :].encode()[: number.col_offset].decode())
            start = lines[number.lineno - 1] + offset
            name = names[i] if len(names) == len(numbers) else f"{names[0]}[{i}]"
            found += _both(file, name, text, start, number.value)
    return found


def _of_data(file: str) -> list[Mutant]:
    """The numbers of a limit profile; its sources and dates are words."""
    text = (ROOT / file).read_text()
    json.loads(text)
    found = []
    for match in re.finditer(r'"(\w+)": (\d+(?:\.\d+)?)(?=[,}\n])', text):
        found += _both(file, f"{match[1]}@{match.start()}", text, match.start(2), float(match[2]))
    return found


def _both(file: str, name: str, text: str, start: int, value: float) -> list[Mutant]:
    written = re.match(r"[\d_.]+", text[start:])
    if written is None or value == 0:
        return []
    end = start + written.end()
    return [Mutant(file, name, start, end, repr(round(value * by, 6))) for by in (1.2, 0.8)]


def unnoticed(mutant: Mutant, copy: Path, tests: tuple[str, ...] = TESTS) -> bool:
    """Whether no test notices a mutant. Parameters: mutant; copy, a folder of its own with the sources; tests."""
    target = copy / Path(mutant.file).relative_to("src")
    text = (ROOT / mutant.file).read_text()
    target.write_text(text[: mutant.start] + mutant.instead + text[mutant.end :])
    try:
        run = subprocess.run(
            [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", "--noconftest", *tests],
            cwd=ROOT, env={**os.environ, "PYTHONPATH": str(copy)}, capture_output=True, check=False,
        )  # fmt: skip
    finally:
        target.write_text(text)
    return run.returncode == 0


def sources(folder: Path) -> Path:
    """A copy of the sources to put mutants in. Parameters: folder, where it is made."""
    made = folder / "src"
    shutil.copytree(ROOT / "src", made, ignore=shutil.ignore_patterns("__pycache__"))
    return made


def main(word: str) -> int:
    """Try them all; gives how many went unnoticed."""
    chosen = [m for m in mutants() if word in m.name]
    with tempfile.TemporaryDirectory() as folder:
        copies: Queue[Path] = Queue()
        for i in range(2):
            copies.put(sources(Path(folder) / str(i)))

        def tried(mutant: Mutant) -> bool:
            copy = copies.get()
            try:
                survived = unnoticed(mutant, copy)
            finally:
                copies.put(copy)
            if survived:
                print(f"UNNOTICED {mutant.file} {mutant.name} -> {mutant.instead}", flush=True)
            return survived

        with ThreadPoolExecutor(2) as pool:
            survivors = sum(pool.map(tried, chosen))
    print(f"{len(chosen) - survivors} of {len(chosen)} changed limits were noticed")
    return survivors


if __name__ == "__main__":
    sys.exit(1 if main(sys.argv[1] if len(sys.argv) > 1 else "") else 0)
