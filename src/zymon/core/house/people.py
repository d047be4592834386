"""Who may do what: roles and their rights, what makes a passphrase or a PIN, and how long a wrong one makes wait."""

from itertools import pairwise
from typing import Literal

from zymon.core.errors import OutOfRangeError

Role = Literal["owner", "maker", "helper", "inspector"]
# read: look at everything · note: weigh, tick, measure · write: all of the work · sign: hurdles and their corrections,
# strikes · keep_house: people, devices, limits, copies of the record
Right = Literal["read", "note", "write", "sign", "keep_house"]

RIGHTS: dict[Role, frozenset[Right]] = {
    "owner": frozenset({"read", "note", "write", "sign", "keep_house"}),
    "maker": frozenset({"read", "note", "write", "sign"}),
    "helper": frozenset({"read", "note"}),
    "inspector": frozenset({"read"}),
}
LEAST_PASSPHRASE = 10  # characters; three short words have as many
MOST_PASSPHRASE = 200
LEAST_PIN, MOST_PIN = 4, 8  # digits; good only on a tablet that an owner has trusted
FREE_TRIES = 5  # a slip of the finger costs nothing
FIRST_WAIT_S = 30
LONGEST_WAIT_S = 900  # never for good: whoever forgot is not locked out by whoever guesses
CONFIRMED_FOR_S = 120  # for so long a passphrase given again holds for a signature
SESSION_S = 30 * 86_400  # by passphrase, on a device of one's own
PIN_SESSION_S = 4 * 3600  # by PIN, on a tablet that many hands share


def may(role: Role, right: Right) -> bool:
    """Whether a role has a right. Parameters: role; right.

    >>> may("helper", "note"), may("helper", "sign"), may("inspector", "note")
    (True, False, False)
    """
    return right in RIGHTS[role]


def check_passphrase(passphrase: str) -> None:
    """Refuse a passphrase that is too short or too long. Raises OutOfRangeError. Parameters: passphrase."""
    if not LEAST_PASSPHRASE <= len(passphrase) <= MOST_PASSPHRASE:
        raise OutOfRangeError("refused.passphrase_length", least=LEAST_PASSPHRASE, most=MOST_PASSPHRASE)


def check_pin(pin: str) -> None:
    """Refuse a PIN that is none, or that everybody tries first. Raises OutOfRangeError. Parameters: pin."""
    if not (LEAST_PIN <= len(pin) <= MOST_PIN and pin.isascii() and pin.isdigit()):
        raise OutOfRangeError("refused.pin_digits", least=LEAST_PIN, most=MOST_PIN)
    steps = {(int(b) - int(a)) % 10 for a, b in pairwise(pin)}
    if len(steps) == 1 and steps <= {0, 1, 9}:
        raise OutOfRangeError("refused.pin_easy")


def wait_s(failures: int) -> int:
    """How long nobody can sign in by a name after so many wrong tries in a row [s]: twice as long each time.

    Parameters: failures, in a row.

    >>> [wait_s(n) for n in (0, 4, 5, 6, 7, 40)]
    [0, 0, 30, 60, 120, 900]
    """
    if failures < FREE_TRIES:
        return 0
    return int(min(FIRST_WAIT_S * 2.0 ** min(failures - FREE_TRIES, 20), LONGEST_WAIT_S))
