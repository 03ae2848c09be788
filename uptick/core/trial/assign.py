"""Which version a shopper gets: a hash, laid on the shares. The storefront script does the same sums."""

from collections.abc import Mapping

import mmh3

from uptick.core.errors import OutOfRange

WHOLE = 10_000
_SPAN = 1 << 32


def hash_share(salt: str, shopper: str) -> int:
    """Return the unsigned 32-bit hash of `"<salt>:<shopper>"` in UTF-8.

    Source:
        MurmurHash3 x86 32-bit, seed 0 (Appleby, public domain), through mmh3.
    """
    return mmh3.hash(f"{salt}:{shopper}".encode(), 0, signed=False)


def assign_version(salt: str, shopper: str, shares: Mapping[str, int]) -> str:
    """Return the letter of the version that a shopper gets.

    Args:
        salt: The trial's salt for versions.
        shopper: The shopper's id, any text.
        shares: Letters with their shares in parts per 10,000, in order; they add up to 10,000.

    Raises:
        OutOfRange: The shares do not add up.
    """
    if sum(shares.values()) != WHOLE or min(shares.values(), default=-1) < 0:
        raise OutOfRange.of("shares", f"whole parts that add up to {WHOLE}", list(shares.values()))
    point = hash_share(salt, shopper)
    reached = 0
    for letter, share in shares.items():
        reached += share
        # Whole numbers on both sides, so that no rounding can differ between languages.
        if point * WHOLE < reached * _SPAN:
            return letter
    raise AssertionError("shares that add up leave nobody out")
