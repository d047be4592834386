"""Runs every benchmark, or those that are named by their modules, and writes docs/benchmarks.md."""

import platform
import sys
from datetime import UTC, datetime
from pathlib import Path

from . import accuracy, book, courses, crowd, decade, ferment, full, page, planner, safety, shelf, soak, speed

TARGET = Path(__file__).resolve().parents[1] / "docs" / "benchmarks.md"

INTRO = """# Benchmarks

Written by `make bench`: {machine}, Python {python}. Run it on your own machine; the figures move with it.

"""


def main() -> None:
    """Measure, print, write; what is not measured this time stays as it was."""
    before = dict(part.split("\n", 1) for part in TARGET.read_text().split("\n## ")[1:]) if TARGET.exists() else {}
    day = datetime.now(UTC).strftime("%d %B %Y")
    parts = [
        INTRO.format(
            machine=platform.machine(),
            python=platform.python_version(),
        )
    ]
    for title, measure in (
        ("Speed", speed.measure),
        ("Twenty people at once", crowd.measure),
        ("A full house", full.measure),
        ("Ten years of minutes", decade.measure),
        ("The planner", planner.measure),
        ("Shelf", shelf.measure),
        ("Book", book.measure),
        ("Safety", safety.measure),
        ("Page", page.measure),
        ("Accuracy of the dates", accuracy.measure),
        ("Usual outcomes", courses.measure),
        ("Accuracy of the fall of pH", ferment.measure),
        ("A live chamber for sixty days", soak.measure),
    ):
        if sys.argv[1:] and measure.__module__.rsplit(".", 1)[-1] not in sys.argv[1:] and title in before:
            parts.append(f"## {title}\n{before[title]}".rstrip() + "\n\n")
            continue
        print(f"{title} …", flush=True)
        text = measure()
        print(text)
        parts.append(f"## {title}\n\nMeasured on {day}.\n\n{text}\n")
    TARGET.write_text("\n".join(parts))
    print(f"written to {TARGET.name}", file=sys.stderr)


if __name__ == "__main__":
    main()
