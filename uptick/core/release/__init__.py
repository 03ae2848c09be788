"""Releases: the draft compiled into what the edge serves, and the form in which it travels."""

from uptick.core.release.compiling import (
    compile_fonts,
    compile_release,
    compile_version,
    content_hash,
    turning_days,
)
from uptick.core.release.manifest import CompiledRelease, Manifest, WireFont

__all__ = [
    "CompiledRelease",
    "Manifest",
    "WireFont",
    "compile_fonts",
    "compile_release",
    "compile_version",
    "content_hash",
    "turning_days",
]
