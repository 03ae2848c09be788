"""What is told to the script has the form that the script's types are made from."""

from typing import Any

import pytest
from pydantic import TypeAdapter, ValidationError

from tests.samples import NOW, exception, release, settings, snapshot
from uptick.core.release import CompiledRelease, compile_version
from uptick.core.release.manifest import WireVersion
from uptick.core.resolved.resolve import VersionLayer
from uptick.core.rules.reach import Reach

TOLD: TypeAdapter[Any] = TypeAdapter(CompiledRelease)
ROUND = {"look": {"radius": 9}, "wording": {"added": {"en-GB": "{count, plural, one {One} other {{count} of them}}"}}}


def test_a_release_has_the_form_that_is_told() -> None:
    made = release(settings(exception(1, ROUND, products=("A1",))))
    assert TOLD.validate_python(made, strict=True, extra="forbid") == made


def test_a_version_of_a_trial_has_it_too() -> None:
    version = VersionLayer("1", "B", Reach(), ROUND)
    made = compile_version(snapshot(settings()), version, NOW.date())
    assert TypeAdapter(WireVersion).validate_python(made, strict=True, extra="forbid") == made


@pytest.mark.parametrize("name", ["languages", "looks", "places", "rules", "words"])
def test_another_form_is_noticed(name: str) -> None:
    made = dict(release(settings()))
    with pytest.raises(ValidationError):
        TOLD.validate_python({**made, name: 1}, strict=True)
    del made[name]
    with pytest.raises(ValidationError):
        TOLD.validate_python(made, strict=True)
