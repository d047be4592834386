"""Dates made in a process of their own, so that whoever looks and weighs meanwhile does not wait for the reckoning."""

import logging
import pickle
import subprocess
import sys
import threading
from contextlib import suppress

from zymon.core.drying.forecast import Fitted, fitted
from zymon.core.drying.history import History

log = logging.getLogger("zymon.dates")


class Apart:
    """A process that takes the weighings of a place in, one place after the other; begun when it is first wanted.

    Where it cannot be had, or is gone, the dates are made here.
    """

    def __init__(self) -> None:
        self._process: subprocess.Popen[bytes] | None = None
        self._one_at_a_time = threading.Lock()

    def fitted(self, history: History) -> Fitted:
        """Take the weighings of a place in, its dates made. Parameters: history, with one piece at least."""
        with self._one_at_a_time:
            try:
                answer = self._asked(history)
            except (OSError, EOFError, pickle.PickleError) as error:
                log.warning("the dates are made here: their process is gone (%s)", error)
                self._let_go()
                answer = fitted(history)
        if isinstance(answer, Exception):
            raise answer
        return answer

    def _asked(self, history: History) -> "Fitted | Exception":
        if self._process is None:
            # of a session of its own: Ctrl-C is for the server, which ends this process in good order
            self._process = subprocess.Popen(
                [sys.executable, "-m", "zymon.work.apart"],
                stdin=subprocess.PIPE,
                stdout=subprocess.PIPE,
                start_new_session=True,
            )
        to, back = self._process.stdin, self._process.stdout
        assert to is not None
        assert back is not None
        pickle.dump(history, to, pickle.HIGHEST_PROTOCOL)
        to.flush()
        answer: Fitted | Exception = pickle.load(back)
        return answer

    def _let_go(self) -> None:
        if self._process is not None:
            self._process.kill()
            self._process.wait()
            for pipe in (self._process.stdin, self._process.stdout):
                if pipe is not None:
                    with suppress(OSError):  # what could not be asked any more is not asked
                        pipe.close()
            self._process = None

    def end(self) -> None:
        """Let the process end."""
        with self._one_at_a_time:
            self._let_go()


def _answer_what_is_asked() -> None:
    """Make dates until nobody asks any more."""
    asked, answered = sys.stdin.buffer, sys.stdout.buffer
    sys.stdout = sys.stderr  # whatever is printed by anybody is no answer
    while True:
        try:
            history = pickle.load(asked)
        except EOFError:
            return
        answer: Fitted | Exception
        try:
            answer = fitted(history)
            answer.forecasts  # noqa: B018 -- so that they are made here
        except Exception as error:
            answer = error
        pickle.dump(answer, answered, pickle.HIGHEST_PROTOCOL)
        answered.flush()


if __name__ == "__main__":
    _answer_what_is_asked()
