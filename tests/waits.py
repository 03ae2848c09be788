"""Waiting until something is so."""

import time
from collections.abc import Callable


def until(is_so: Callable[[], bool], seconds: float = 20) -> None:
    """Wait for what another thread or process does a moment later; fail after `seconds`."""
    ends = time.monotonic() + seconds
    while not is_so():
        assert time.monotonic() < ends, f"it was not so within {seconds} s"
        time.sleep(0.02)
