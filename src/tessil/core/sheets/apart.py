"""The search for a layout in a process of its own, so that a window that waits for it goes on.

The two talk in records over pipes: jobs and “stop” one way, how far it is and answers the other.
Nobody else writes into these pipes.
"""

from __future__ import annotations

import os
import subprocess
import sys
from contextlib import suppress
from multiprocessing.connection import Connection
from time import monotonic
from types import TracebackType

from msgspec.structs import replace

from tessil.core.sheets.job import Answer, CutJob
from tessil.core.sheets.plan import plan_cutting
from tessil.core.sheets.search import Told
from tessil.core.trouble import CannotPlan

BEGIN = 0.5  # seconds that a second search is late
OTHER = 1_000  # its dice
TELL_EVERY = 0.03  # seconds
LONGEST_END = 2.0  # seconds until a process that was told to end is made to


class Apart:
    """Plans cutting jobs elsewhere, one after the other; ends with the block it is used in, at once
    if that is left by a fault."""

    def __enter__(self) -> Apart:
        process = self._process = subprocess.Popen(
            [sys.executable, "-m", __name__], stdin=subprocess.PIPE, stdout=subprocess.PIPE
        )
        assert process.stdin is not None
        assert process.stdout is not None
        self._into = Connection(os.dup(process.stdin.fileno()), readable=False)
        self._out_of = Connection(os.dup(process.stdout.fileno()), writable=False)
        process.stdin.close()
        process.stdout.close()
        return self

    def __exit__(
        self, kind: type[BaseException] | None, fault: BaseException | None, _: TracebackType | None
    ) -> None:
        self._into.close()
        self._out_of.close()
        if fault is not None:
            self._process.kill()
        try:
            self._process.wait(LONGEST_END)
        except subprocess.TimeoutExpired:
            self._process.kill()
            self._process.wait()

    def __call__(self, job: CutJob, seconds: float, seed: int, told: Told | None) -> Answer:
        """As ``plan_cutting``; raises EOFError if the process has gone.  ``told`` is asked again
        while nothing is heard."""
        self.begin(job, seconds, seed)
        return self.answer(told)

    def begin(self, job: CutJob, seconds: float, seed: int) -> None:
        """Let it plan a job; the answer is asked for afterwards."""
        try:
            self._into.send(("job", job, seconds, seed))
        except BrokenPipeError:
            raise EOFError from None

    def answer(self, told: Told | None) -> Answer:
        """What was found, once it is; at once, as good as it is, if ``told`` says stop."""
        far, stopped = 0.0, False
        while True:
            if self._out_of.poll(TELL_EVERY):
                kind, *said = self._out_of.recv()
                if kind == "answer":
                    answer: Answer = said[0]
                    return answer
                if kind == "trouble":
                    raise CannotPlan(*said)
                far = said[0]
            if told is not None and not told(far) and not stopped:
                stopped = True
                self._into.send(("stop",))


def plan_by_two(job: CutJob, seconds: float, seed: int) -> Answer:
    """As ``plan_cutting``, by two searches with dice of their own: the better of what they find."""
    if (os.cpu_count() or 1) < 2:
        return plan_cutting(job, seconds, seed)
    with Apart() as other:
        other.begin(job, seconds - BEGIN, seed + OTHER)
        mine = plan_cutting(job, seconds, seed)
        if mine.is_best:
            return mine
        with suppress(EOFError):
            theirs = other.answer(lambda _far: False)
            bound = max(mine.bound, theirs.bound)
            return replace(min(mine, theirs, key=lambda one: one.score), bound=bound)
    return mine


class _There:
    """The other end: works on one job at a time until its pipe is closed."""

    def __init__(self, into: Connection, out: Connection) -> None:
        self.into, self.out = into, out
        self.last = 0.0
        self.stopped = False

    def serve(self) -> None:
        while True:
            kind, *said = self.into.recv()
            if kind == "job":
                self._work(*said)

    def _work(self, job: CutJob, seconds: float, seed: int) -> None:
        self.stopped = False
        try:
            self.out.send(("answer", plan_cutting(job, seconds, seed, self._told)))
        except CannotPlan as trouble:
            self.out.send(("trouble", trouble.field, trouble.sentence))

    def _told(self, far: float) -> bool:
        if not self.stopped and monotonic() - self.last > TELL_EVERY:
            self.last = monotonic()
            self.out.send(("far", far))
            if self.into.poll():
                self.stopped = True
                self.into.recv()  # “stop”, or the end of the pipe: an EOFError ends all
        return not self.stopped


def main() -> None:
    """Serve over the pipes this was started with; what is printed goes elsewhere."""
    into, out = Connection(os.dup(0), writable=False), Connection(os.dup(1), readable=False)
    os.dup2(2, 1)
    with suppress(EOFError, BrokenPipeError, KeyboardInterrupt):  # whoever asked has gone
        _There(into, out).serve()


if __name__ == "__main__":
    main()
