"""Pages measured by hand, for what is worked out along a scroll."""

from typing import Any

from uptick.core.scroll import PageSurvey

PHONE = (375, 740)


def rect(x: float, y: float, wide: float, high: float) -> dict[str, float]:
    return {"x": x, "y": y, "wide": wide, "high": high}


def place(y: float, high: float = 48, placement: str = "product_page", **more: Any) -> dict[str, Any]:
    box = rect(16, y, 343, high)
    return {"placement": placement, "stands": True, "box": box, "room": box, **more}


def survey(*places: dict[str, Any], page_high: float = 3000, **more: Any) -> PageSurvey:
    wide, high = more.pop("window", PHONE)
    return PageSurvey.model_validate(
        {
            "path": "/p/hive",
            "window": {"wide": wide, "high": high},
            "page_high": page_high,
            "places": places,
            "stuck": more.pop("stuck", []),
            "bar": {"high": 64},
            **more,
        }
    )


def header(high: float = 60) -> dict[str, Any]:
    """A header that sticks to the upper edge from the start."""
    return {"name": "<header>", "kind": "sticky", "box": rect(0, 0, 375, high), "inset": 0, "least": 0, "most": 3000}


def notice(high: float = 50, x: float = 16, wide: float = 343) -> dict[str, Any]:
    """Something fixed at the lower edge of a phone's window."""
    return {"name": "<aside.notice>", "kind": "fixed", "box": rect(x, PHONE[1] - high, wide, high)}
