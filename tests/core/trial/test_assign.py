import json
from pathlib import Path
from typing import Any

import mmh3
import pytest
from scipy.stats import chi2_contingency, chisquare

from uptick.core.errors import OutOfRange
from uptick.core.trial.assign import assign_version, hash_share

GOLDEN = json.loads((Path(__file__).parents[3] / "golden" / "assign.json").read_text())
HALF = {"A": 5000, "B": 5000}


def murmur3(data: bytes, seed: int) -> int:
    """Reference: MurmurHash3_x86_32, Appleby's public-domain code, written out from memory."""

    def turn(n: int, by: int) -> int:
        return (n << by | n >> 32 - by) & 0xFFFFFFFF

    h = seed
    for start in range(0, len(data), 4):
        block = data[start : start + 4]
        k = int.from_bytes(block, "little") * 0xCC9E2D51 & 0xFFFFFFFF
        k = turn(k, 15) * 0x1B873593 & 0xFFFFFFFF
        h ^= k
        if len(block) == 4:
            h = turn(h, 13) * 5 + 0xE6546B64 & 0xFFFFFFFF
    h ^= len(data)
    h = (h ^ h >> 16) * 0x85EBCA6B & 0xFFFFFFFF
    h = (h ^ h >> 13) * 0xC2B2AE35 & 0xFFFFFFFF
    return h ^ h >> 16


@pytest.mark.parametrize("case", GOLDEN["hashes"], ids=lambda case: case["text"])
def test_the_published_vectors_hold(case: dict[str, Any]) -> None:
    """Reference: vectors common to the test suites of several MurmurHash3 libraries; from memory."""
    text = case["text"].encode()
    assert mmh3.hash(text, case["seed"], signed=False) == case["hash"] == murmur3(text, case["seed"])


@pytest.mark.parametrize("case", GOLDEN["assignments"], ids=lambda case: f"{case['shopper']}-{case['shares']}")
def test_shoppers_are_dealt_as_the_shared_vectors_say(case: dict[str, Any]) -> None:
    salt, shopper = case["salt"], case["shopper"]
    assert hash_share(salt, shopper) == case["hash"] == murmur3(f"{salt}:{shopper}".encode(), 0)
    assert assign_version(salt, shopper, case["shares"]) == case["expect"]


def test_dealing_is_fair_and_two_trials_deal_independently() -> None:
    """20,000 shoppers, fixed ids; each p-value falls under 0.001 once in a thousand such sets."""
    one = [assign_version("1:version", f"shopper-{n}", HALF) for n in range(20_000)]
    two = [assign_version("2:version", f"shopper-{n}", HALF) for n in range(20_000)]
    assert chisquare([one.count("A"), one.count("B")]).pvalue > 0.001
    pairs = list(zip(one, two, strict=True))
    table = [[pairs.count((a, b)) for b in "AB"] for a in "AB"]
    assert chi2_contingency(table).pvalue > 0.001


def test_shares_that_do_not_add_up_are_refused() -> None:
    with pytest.raises(OutOfRange, match="add up to 10000"):
        assign_version("1", "x", {"A": 5000, "B": 4000})
