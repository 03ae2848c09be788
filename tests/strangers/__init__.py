"""Files of others that the tests read: general open-source libraries, installed by ./test from its own lock."""

from pathlib import Path

HERE = Path(__file__).parent / "node_modules"
