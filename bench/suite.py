"""How long the tests take, and how long they would on a machine that nobody else uses.

    python bench/suite.py [what pytest is given, else all as in ``make test``]

The machine's share of its own speed is taken every two seconds beside the tests (``speed.py``);
where nobody else uses it, both times are the same.
"""

from __future__ import annotations

import os
import statistics
import subprocess
import sys
import time
from threading import Event, Thread

from speed import Speed

EVERY = 2.0  # seconds between samples


def watch(speed: Speed, ended: Event, shares: list[float]) -> None:
    """Take samples until the tests have ended."""
    while not ended.wait(EVERY):
        shares.append(speed.share(samples=2))


def main(asked: list[str]) -> int:
    """Run the tests, and say how long they took; what they return."""
    command = [sys.executable, "-m", "pytest", "-n", "auto", "--dist", "worksteal", *asked]
    wanted = {"QT_QPA_PLATFORM": "offscreen", "PYTHONDONTWRITEBYTECODE": ""}
    speed, ended = Speed(), Event()
    shares: list[float] = []
    watcher = Thread(target=watch, args=(speed, ended, shares))
    watcher.start()
    begun = time.perf_counter()
    done = subprocess.run(command, env=os.environ | wanted, check=False)
    took = time.perf_counter() - begun
    ended.set()
    watcher.join()
    share = statistics.mean(shares or [1.0])
    print(
        f"{took:.0f} s, with {share:.0%} of the machine's own speed on average "
        f"({len(shares)} samples): {took * share:.0f} s where nobody else uses it"
    )
    return done.returncode


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
