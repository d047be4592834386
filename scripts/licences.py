"""Writes LICENSES.md: the licences of the fonts and scripts that go out with the page. To be run when they change."""

import json
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
MODULES = ROOT / "web" / "node_modules"
# what of it stands in the built page; what only builds or checks it goes out with nobody
SHIPPED = (
    "@fontsource-variable/source-sans-3", "@fontsource/zilla-slab", "@tanstack/query-core", "@tanstack/svelte-query",
    "clsx", "d3-array", "d3-color", "d3-format", "d3-interpolate", "d3-path", "d3-scale", "d3-shape", "d3-time",
    "d3-time-format", "daisyui", "idb", "internmap", "openapi-fetch", "papaparse", "sv-router", "svelte", "tailwindcss",
    "uplot", "workbox-core", "workbox-expiration", "workbox-precaching", "workbox-routing", "workbox-strategies",
)  # fmt: skip


def text_of(folder: Path) -> str:
    """The licence that lies in the folder of a package."""
    found = sorted(p for p in folder.iterdir() if p.name.lower().startswith(("licen", "copying")))
    return found[0].read_text().strip() if found else ""


def main() -> None:
    """Gather them, each text once."""
    by_text: dict[str, list[str]] = {}
    for name in SHIPPED:
        folder = MODULES / name
        told = json.loads((folder / "package.json").read_text())
        text = text_of(folder) or f"{told['license']}, as its package says; no text lies with it."
        by_text.setdefault(text, []).append(f"{name} {told['version']} ({told['license']})")
    parts = ["# Licences of what goes out with the page\n"]
    parts.append("Zymon itself: see LICENSE. The fonts set on paper carry theirs in `src/zymon/formats/fonts`.\n")
    for text, names in by_text.items():
        parts.append(f"## {', '.join(names)}\n\n```\n{text}\n```\n")
    (ROOT / "LICENSES.md").write_text("\n".join(parts))


if __name__ == "__main__":
    main()
