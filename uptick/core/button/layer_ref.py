"""References to layers: what names one of them wherever it is written."""

from typing import Any, Self

from pydantic import GetCoreSchemaHandler
from pydantic_core import CoreSchema, core_schema

from uptick.core.button.document import Placement
from uptick.core.errors import NotFound


class LayerRef(str):
    """`baseline`, `place:<placement>`, `exception:<id>`, `look:<id>` or `trial:<number>:<letter>`.

    It is a string, so that it can be a key and is written as it is.
    """

    __slots__ = ()

    @classmethod
    def __get_pydantic_core_schema__(cls, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        return core_schema.no_info_after_validator_function(
            cls, core_schema.str_schema(), serialization=core_schema.to_string_ser_schema()
        )

    @classmethod
    def place(cls, placement: Placement) -> Self:
        return cls(f"place:{placement}")

    @classmethod
    def exception(cls, rule_id: str) -> Self:
        return cls(f"exception:{rule_id}")

    @classmethod
    def look(cls, look_id: str) -> Self:
        return cls(f"look:{look_id}")

    @classmethod
    def trial(cls, number: str, letter: str) -> Self:
        return cls(f"trial:{number}:{letter}")

    @classmethod
    def read(cls, text: str) -> Self:
        """Return the reference that a text is.

        Raises:
            NotFound: It has another form; says which forms there are.
        """
        kind, colon, name = text.partition(":")
        known = (kind in {"look", "exception", "trial"} and name) or (kind == "place" and name in list(Placement))
        if not (known or (kind == "baseline" and not colon)):
            raise NotFound(
                f"There is no layer {text!r}. A layer is baseline, place:<placement>, exception:<id> or look:<id>.",
                layer=text,
            )
        return cls(text)

    @property
    def kind(self) -> str:
        return self.partition(":")[0]

    @property
    def name(self) -> str:
        """Return what comes after the kind: a placement, or an id."""
        return self.partition(":")[2]


BASELINE = LayerRef("baseline")
