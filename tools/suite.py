"""How long the tests take, and how long they would on a machine that nobody else uses.

    python tools/suite.py [what pytest is given, else all as in ``make test``]

A small piece of fixed work is timed beside the tests, every two seconds.  Its fastest time is taken
for the speed of the machine when it is left alone; how much slower it is on average tells how much
of the time the machine lent to others.  A computer in somebody's cellar needs none of this.
"""

from __future__ import annotations

import os
import statistics
import subprocess
import sys
import time
from threading import Event, Thread

EVERY, ROUNDS = 2.0, 400_000  # seconds between samples, additions in one


def fixed_work() -> float:
    """Seconds of the processor for always the same work."""
    begun, total = time.process_time(), 0
    for number in range(ROUNDS):
        total += number
    return time.process_time() - begun


def shares(samples: list[float]) -> list[float]:
    """Of each sample, the share of the machine's own speed that there was."""
    best = min(samples)
    return [best / sample for sample in samples]


def watch(ended: Event, samples: list[float]) -> None:
    """Take samples until the tests have ended."""
    while not ended.wait(EVERY):
        samples.append(fixed_work())


def main(asked: list[str]) -> int:
    """Run the tests, and say how long they took; what they return."""
    command = [sys.executable, "-m", "pytest", "-n", "auto", "--dist", "worksteal", *asked]
    wanted = {"QT_QPA_PLATFORM": "offscreen", "PYTHONDONTWRITEBYTECODE": ""}
    samples, ended = [fixed_work() for _ in range(40)], Event()
    watcher = Thread(target=watch, args=(ended, samples))
    watcher.start()
    begun = time.perf_counter()
    done = subprocess.run(command, env=os.environ | wanted, check=False)
    took = time.perf_counter() - begun
    ended.set()
    watcher.join()
    share = statistics.mean(shares(samples)[40:] or [1.0])
    print(
        f"{took:.0f} s, with {share:.0%} of the machine's own speed on average "
        f"({len(samples) - 40} samples): {took * share:.0f} s where nobody else uses it"
    )
    return done.returncode


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
