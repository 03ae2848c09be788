"""Loops of asyncio for tests."""

import asyncio
from collections.abc import Coroutine
from concurrent.futures import ThreadPoolExecutor
from typing import Any, TypeVar

T = TypeVar("T")


def ended(work: Coroutine[Any, Any, T]) -> T:
    """Run to the end on a loop in a thread of its own: the browser's tests keep one in this."""
    with ThreadPoolExecutor(1) as thread:
        return thread.submit(asyncio.run, work).result()
