"""Pieces of a batch that went the same way: their mix, their meat, their stages on one line."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import TypeVar

from ..formulation import sodium_chloride_g
from .batch import Batch, Formulation, Part, Piece, Stage
from .dose import taken_up_percent
from .line import Interval, Line

Tagged = TypeVar("Tagged", Part, Formulation, Stage)


@dataclass(frozen=True)
class View:
    """A batch as far as it concerns some of its pieces. `batch` holds the stages of these pieces only."""

    batch: Batch
    pieces: tuple[Piece, ...]
    parts: tuple[Part, ...]
    formulation: Formulation | None

    @cached_property
    def tags(self) -> tuple[str, ...]:
        """Its tags."""
        return tuple(p.tag for p in self.pieces)

    @cached_property
    def end_s(self) -> float:
        """Where their line ends [s]."""
        return self.batch.ends_s(self.pieces)

    @cached_property
    def line(self) -> Line:
        """Their line of temperature."""
        return Line(self.batch.stages, self.end_s)

    def stages(self, *kinds: str) -> tuple[Stage, ...]:
        """Their stages of some kinds, in time order. Parameters: kinds."""
        found = (s for s in self.batch.stages if s.kind in kinds and s.from_s <= self.batch.now_s)
        return tuple(sorted(found, key=lambda s: s.from_s))

    def span(self, stage: Stage) -> Interval:
        """From when to when a stage lasted, as far as the line goes [s]. Parameters: stage."""
        return stage.from_s, self.end_s if stage.to_s is None else min(stage.to_s, self.end_s)

    @cached_property
    def curing(self) -> bool:
        """Whether they are in salt now."""
        return any(s.to_s is None or s.to_s > self.batch.now_s for s in self.stages("cure"))

    @cached_property
    def meat_g(self) -> float | None:
        """The meat that their mix was weighed for [g]; None where a part was not weighed."""
        covered = self.batch.parts if self.formulation is None or not self.formulation.tags else self.parts
        masses = [p.mass_g for p in covered]
        return sum(m for m in masses if m is not None) if masses and None not in masses else None

    @cached_property
    def fat_percent(self) -> float | None:
        """Fat of their meat [%]; None where nobody said."""
        rows = [(p.mass_g, p.fat_percent) for p in self.parts]
        if not rows or any(mass is None or fat is None for mass, fat in rows):
            return None
        total_g = sum(mass for mass, _ in rows if mass is not None)
        return sum(mass * fat for mass, fat in rows if mass is not None and fat is not None) / total_g

    @cached_property
    def heaviest_g(self) -> float | None:
        """The net start weight of the heaviest of them [g]; None where none was weighed."""
        return max((p.start_weight_g - p.tare_g for p in self.pieces if p.start_weight_g is not None), default=None)

    @cached_property
    def taken_up_percent(self) -> float | None:
        """What the heaviest of them took up of salt that lay in excess [% of the meat]; None where it is not told."""
        if self.heaviest_g is None:
            return None
        return taken_up_percent(self.stages("cure"), self.heaviest_g, self.fat_percent, self.end_s)

    @cached_property
    def all_salt_known(self) -> bool:
        """Whether every line that holds salt was weighed; else `salt_percent` is the least it can be."""
        f = self.formulation
        return f is not None and f.curing_salts is not None and all(c.grams is not None for c in f.curing_salts)

    @cached_property
    def salt_percent(self) -> float | None:
        """Sodium chloride of all lines that were weighed, of the meat [%]; None where the salt itself was not."""
        f, meat_g = self.formulation, self.meat_g
        if f is None or meat_g is None or not f.dose_known or f.plain_salt_g is None or f.other_salt_g is None:
            return None
        salts = f.curing_salts or ()
        rows = [(c.grams or 0.0, c.nitrite_fraction, c.nitrate_fraction) for c in salts]
        common_g = sum(sodium_chloride_g(grams, nitrite, nitrate) for grams, nitrite, nitrate in rows)
        return 100 * (f.plain_salt_g + common_g + f.other_salt_g) / meat_g


def views(batch: Batch) -> list[View]:
    """The batch by pieces that went the same way. Parameters: batch.

    A batch of no pieces yet is looked at as one, and one by one for tags that only its stages, parts or mixes name.
    """
    rows: list[Part | Formulation | Stage] = [*batch.stages, *batch.parts, *batch.formulations]
    named = sorted({tag for row in rows for tag in row.tags})
    groups: dict[tuple[object, ...], list[Piece]] = {}
    for piece in batch.pieces or tuple(Piece(tag, None) for tag in named) or (Piece("", None),):
        # by place in their rows: a stage holds its readings, which nobody wants to compare piece by piece
        rows_of = tuple(i for i, row in enumerate(rows) if not row.tags or piece.tag in row.tags)
        key = (rows_of, piece.taken_down_s)
        groups.setdefault(key, []).append(piece)
    found = []
    for pieces in groups.values():
        tag = pieces[0].tag
        mixes = _mine(batch.formulations, tag)
        alone = replace(batch, stages=_mine(batch.stages, tag))
        found.append(View(alone, tuple(pieces), _mine(batch.parts, tag), mixes[-1] if mixes else None))
    return found


def _mine(rows: Sequence[Tagged], tag: str) -> tuple[Tagged, ...]:
    return tuple(row for row in rows if not row.tags or tag in row.tags)
