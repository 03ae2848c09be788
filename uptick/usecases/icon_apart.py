"""An icon read in a process of its own: what takes too long or too much there ends with it, and stops nobody else.

Curves that cross each other hundreds of times are worked out for minutes, and no bound on their number tells them from
an icon that is merely detailed.
"""

import resource
import subprocess
import sys

from pydantic import TypeAdapter

from uptick.core.errors import BadIcon
from uptick.core.formats.svg_icon import MOST_BYTES, ReadIcon, read_svg

SECONDS = 5
_MEMORY = 1_500_000_000
_READ: TypeAdapter[ReadIcon] = TypeAdapter(ReadIcon)


def read_icon(content: bytes, name: str) -> ReadIcon:
    """Return an icon made of an SVG, as `read_svg` does, within some seconds.

    Raises:
        BadIcon: It is none, or took longer.
    """
    if len(content) > MOST_BYTES:
        raise BadIcon(f"The SVG has {len(content):,} bytes; {MOST_BYTES:,} are the most for an icon.")
    command = [sys.executable, "-m", "uptick.usecases.icon_apart", name]
    try:
        # The clock of the wall is for a machine that is busy otherwise; its own time is what counts.
        done = subprocess.run(command, input=content, capture_output=True, timeout=6 * SECONDS, check=False)
    except subprocess.TimeoutExpired as error:
        raise _too_long() from error
    if done.returncode == 2:
        raise BadIcon(done.stdout.decode())
    if done.returncode:
        raise _too_long()
    return _READ.validate_json(done.stdout)


def _too_long() -> BadIcon:
    return BadIcon(
        f"The SVG could not be worked out within {SECONDS} seconds: its lines cross each other too often for an icon."
    )


def _main() -> int:
    resource.setrlimit(resource.RLIMIT_AS, (_MEMORY, _MEMORY))
    content = sys.stdin.buffer.read()
    used = resource.getrusage(resource.RUSAGE_SELF)
    seconds = SECONDS + int(used.ru_utime + used.ru_stime) + 1
    resource.setrlimit(resource.RLIMIT_CPU, (seconds, seconds))
    try:
        read = read_svg(content, sys.argv[1])
    except BadIcon as error:
        sys.stdout.write(error.says)
        return 2
    sys.stdout.buffer.write(_READ.dump_json(read))
    return 0


if __name__ == "__main__":
    sys.exit(_main())
