"""What is wrong with a measurement file, as a whole or in one of its lines."""

from dataclasses import dataclass

from zymon.core.errors import ZymonError
from zymon.core.say import Said


class MeasurementFileError(ZymonError, ValueError):
    """A file that cannot be read as measurements at all; the text says what to do."""


class CellError(ZymonError, ValueError):
    """A cell that cannot be what its column holds."""


@dataclass(frozen=True)
class RowError:
    """What is wrong with one line of a file; line 0 speaks of the whole file."""

    line: int
    text: Said
