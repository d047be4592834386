"""Changes figures by a fifth, one at a time, and fails where no test notices.

python scripts/mutants.py                    every limit of safety, both ways, on two cores
python scripts/mutants.py COLD_C             those whose name holds the word
python scripts/mutants.py --core salting     every figure of the core's modules whose path holds the word
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
from importlib.util import resolve_name
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
# nothing but pytest itself is loaded: most of what a usual run waits for is the interface, which no figure needs
PYTEST = ("-m", "pytest", "-x", "-q", "-c", os.devnull, "--rootdir", ".", "--import-mode=importlib",
          "-p", "no:cacheprovider", "--noconftest")  # fmt: skip
EXAMPLES = "import doctest, importlib, sys; sys.exit(doctest.testmod(importlib.import_module(sys.argv[1]))[0])"


@dataclass(frozen=True)
class Mutant:
    """A number in a file, and what stands there instead."""

    file: str
    name: str
    start: int
    end: int
    instead: str


def mutants() -> list[Mutant]:
    """Every limit, a fifth more and a fifth less; what is counted on few fingers one more and one less."""
    found = [m for file, aside in MODULES.items() for m in _of_module(file, aside)]
    return [*found, *(m for file in DATA for m in _of_data(file))]


def of_core(word: str) -> list[tuple[Mutant, tuple[str, ...]]]:
    """Every figure of the core's modules, with the tests that import its module or what imports that.

    Parameters: word, in the paths of the modules.
    """
    files = {_module(file): file for file in sorted((ROOT / "src/zymon/core").rglob("*.py"))}
    imports = {module: _imported(file, module) & set(files) for module, file in files.items()}
    tests = {
        str(file.relative_to(ROOT)): _imported(file, "") & set(files)
        for folder in ("core", "links", "formats")
        for file in sorted((ROOT / "tests" / folder).glob("test_*.py"))
    }
    found = []
    for module, file in files.items():
        path = str(file.relative_to(ROOT))
        if word in path:
            beside = {module} | {other for other, used in imports.items() if module in used}
            nearest_first = sorted(tests.items(), key=lambda one: module not in one[1])
            by = tuple(test for test, used in nearest_first if used & beside)
            found += [(mutant, by) for mutant in _of_module(path, set())]
    return found


def _module(file: Path) -> str:
    return ".".join(file.relative_to(ROOT / "src").with_suffix("").parts).removesuffix(".__init__")


def _imported(file: Path, module: str) -> set[str]:
    """What a file imports by name; of what comes from a package both the package and the part of it."""
    found: set[str] = set()
    package = module if file.stem == "__init__" else module.rpartition(".")[0]
    for node in ast.walk(ast.parse(file.read_text())):
        if isinstance(node, ast.ImportFrom):
            base = resolve_name("." * node.level + (node.module or ""), package)
            found |= {base, *(f"{base}.{name.name}" for name in node.names)}
    return found


def _of_module(file: str, aside: set[str]) -> list[Mutant]:
    text = (ROOT / file).read_text()
    lines = [0, *(i + 1 for i, c in enumerate(text) if c == "\n")]
    found = []
    for node in ast.parse(text).body:
        if not isinstance(node, ast.Assign | ast.AnnAssign) or node.value is None:
            continue
        target = node.targets[0] if isinstance(node, ast.Assign) else node.target
        names = [n.id for n in ast.walk(target) if isinstance(n, ast.Name)]
        if not names or not names[0].lstrip("_").isupper() or names[0] in aside:
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
    counted = written[0].isdigit() and written[0] == str(value) and value < 5  # of three a fifth more is none more
    instead = (value + 1, value - 1) if counted else (round(value * by, 6) for by in (1.2, 0.8))
    return [Mutant(file, name, start, end, repr(other)) for other in instead]


def unnoticed(mutant: Mutant, copy: Path, tests: tuple[str, ...] = TESTS) -> bool:
    """Whether no test notices a mutant. Parameters: mutant; copy, a folder of its own with the sources; tests."""
    target = copy / Path(mutant.file).relative_to("src")
    text = (ROOT / mutant.file).read_text()
    target.write_text(text[: mutant.start] + mutant.instead + text[mutant.end :])
    around = {"PYTHONPATH": f"{copy}:tests:.", "PYTEST_DISABLE_PLUGIN_AUTOLOAD": "1"}
    commands = [(*PYTEST, *tests)] if tests else []
    if mutant.file.endswith(".py"):  # its own examples first: they are quicker still
        commands.insert(0, ("-c", EXAMPLES, _module(ROOT / mutant.file)))

    def passes(command: tuple[str, ...]) -> bool:
        whole = [sys.executable, *command]
        return (
            subprocess.run(whole, cwd=ROOT, env=os.environ | around, capture_output=True, check=False).returncode == 0
        )

    try:
        return all(passes(command) for command in commands)
    finally:
        target.write_text(text)


def sources(folder: Path) -> Path:
    """A copy of the sources to put mutants in. Parameters: folder, where it is made."""
    made = folder / "src"
    shutil.copytree(ROOT / "src", made, ignore=shutil.ignore_patterns("__pycache__"))
    return made


def main(words: list[str]) -> int:
    """Try them all; gives how many went unnoticed."""
    word = words[-1] if words and words[-1] != "--core" else ""
    chosen = of_core(word) if "--core" in words else [(m, TESTS) for m in mutants() if word in m.name]
    with tempfile.TemporaryDirectory() as folder:
        copies: Queue[Path] = Queue()
        for i in range(2):
            copies.put(sources(Path(folder) / str(i)))

        def tried(one: tuple[Mutant, tuple[str, ...]]) -> bool:
            mutant, tests = one
            copy = copies.get()
            try:
                survived = unnoticed(mutant, copy, tests)
            finally:
                copies.put(copy)
            if survived:
                print(f"UNNOTICED {mutant.file} {mutant.name} -> {mutant.instead}", flush=True)
            return survived

        with ThreadPoolExecutor(2) as pool:
            survivors = sum(pool.map(tried, chosen))
    print(f"{len(chosen) - survivors} of {len(chosen)} changed figures were noticed")
    return survivors


if __name__ == "__main__":
    sys.exit(1 if main(sys.argv[1:]) else 0)
