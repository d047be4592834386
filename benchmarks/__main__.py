"""Runs every benchmark and writes docs/benchmarks.md."""

import platform
import sys
from datetime import UTC, datetime
from pathlib import Path

from . import accuracy, ferment, page, soak, speed

TARGET = Path(__file__).resolve().parents[1] / "docs" / "benchmarks.md"

INTRO = """# Benchmarks

Written by `make bench` on {day}: {machine}, Python {python}. Run it on your own machine; the figures move with it.

"""


def main() -> None:
    """Measure, print, write."""
    parts = [
        INTRO.format(
            day=datetime.now(UTC).strftime("%d %B %Y"),
            machine=platform.machine(),
            python=platform.python_version(),
        )
    ]
    for title, measure in (
        ("Speed", speed.measure),
        ("Page", page.measure),
        ("Accuracy of the dates", accuracy.measure),
        ("Accuracy of the fall of pH", ferment.measure),
        ("A live chamber for sixty days", soak.measure),
    ):
        print(f"{title} …", flush=True)
        text = measure()
        print(text)
        parts.append(f"## {title}\n\n{text}\n")
    TARGET.write_text("\n".join(parts))
    print(f"written to {TARGET.name}", file=sys.stderr)


if __name__ == "__main__":
    main()
