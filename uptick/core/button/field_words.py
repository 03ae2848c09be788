"""Values of fields as a designer would say them."""

import re
from typing import Any


def value_text(value: Any) -> str:
    """Return a field's value as a designer would say it."""
    if value is None:
        return "nothing"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, dict):
        return _tagged_text(value)
    if isinstance(value, list | tuple):
        # Parts of a bar, in their order.
        return ", ".join(str(part) for part in value) or "nothing"
    if value == "rule":
        return "by rule"
    if value in _SPOTS:
        return str(value).replace("_", " ")
    if isinstance(value, str):
        return value if value.startswith("#") or _BARE.match(value) else f"“{value}”"
    return f"{value:g}" if isinstance(value, float | int) else str(value)


_SPOTS = {
    "bottom_end", "bottom_start", "top_end", "top_start", "top", "start", "middle", "end", "bottom",
}  # fmt: skip
_WAYS = {"mail": "mail", "phone": "telephone call", "text": "text message", "chat": "chat"}
_BARE = re.compile(r"^[\d.]+(%|em|vw)$")


def _px_text(value: float | str) -> str:
    return value if isinstance(value, str) else f"{value:g}"


def _way_text(gradient: dict[str, Any]) -> str:
    """Return which way a gradient runs, where it is not the usual one."""
    words = []
    if gradient.get("repeats"):
        words.append("again and again")
    if gradient["kind"] == "linear":
        toward, angle = gradient.get("toward"), gradient.get("angle_deg", 90)
        words.append(f"to the {toward}" if toward else f"{angle:g}°" if angle != 90 else "")
    else:
        if gradient.get("shape") == "circle":
            words.append("in a circle")
        if (gradient.get("x", 50), gradient.get("y", 50)) != (50, 50):
            words.append(f"from {gradient.get('x', 50):g}% {gradient.get('y', 50):g}%")
        if gradient.get("extent", "farthest-corner") != "farthest-corner":
            words.append(f"to the {gradient['extent'].replace('-', ' ')}")
    return "".join(f"{word} " for word in words if word)


def _stop_text(stop: dict[str, Any]) -> str:
    at = stop.get("at")
    if at is None:
        return str(stop["colour"])
    return f"{stop['colour']} {_px_text(at) if isinstance(at, str) else f'{at:g}%'}"


def _tagged_text(value: dict[str, Any]) -> str:
    """Return a value that names its own kind in words."""
    match value:
        case {"kind": "none"}:
            return "none"
        case {"kind": "rule"}:
            return "by rule"
    texts = (say(value) for say in (_look_text, _icon_text, _standing_text, _press_text))
    return next((text for text in texts if text is not None), str(value))


def _look_text(value: dict[str, Any]) -> str | None:
    """Return a size, a fill, a border, shadows or a motion in words; None where it is none of them."""
    match value:
        case {"kind": "natural" | "full" as kind, **more}:
            kind_words = "natural" if kind == "natural" else "full width"
            least = f", at least {_px_text(more['least'])}" if more.get("least") else ""
            most = f", at most {_px_text(more['most'])}" if more.get("most") else ""
            high = f", at least {more['least_height_px']:g} high" if more.get("least_height_px") else ""
            return kind_words + least + most + high
        case {"kind": "fixed", "width": width, "height": height}:
            return f"{_px_text(width)} × {height:g} px"
        case {"kind": "corners", **each}:
            names = ("top_left", "top_right", "bottom_right", "bottom_left")
            return " ".join(_px_text(each[name]) for name in names)
        case {"kind": "solid", "colour": colour}:
            return str(colour)
        case {"kind": "linear" | "radial" as kind, "stops": stops}:
            return f"{kind} gradient {_way_text(value)}" + " to ".join(_stop_text(stop) for stop in stops)
        case {"kind": "layers", "list": layers, **more}:
            ground = f" over {more['ground']}" if more.get("ground") else ""
            return ", over ".join(_tagged_text(layer) for layer in layers) + ground
        case {"kind": "picture"}:
            return "picture"
        case {"kind": "line", "width_px": width, **more}:
            return f"{width:g} px {more.get('style', 'solid')} {more.get('colour') or 'from the fill'}"
        case {"kind": "sides", **sides}:
            named = ((side, sides.get(side) or {}) for side in ("top", "right", "bottom", "left"))
            lines = [f"{side} {_tagged_text({**line, 'kind': 'line'})}" for side, line in named if line.get("width_px")]
            return ", ".join(lines) or "none"
        case {"kind": "cast" | "words", "list": cast}:
            return f"{len(cast)} shadow{'' if len(cast) == 1 else 's'}" if cast else "none"
        case {"kind": "motion", "duration_ms": duration, "curve": curve, **more}:
            late = f" after {more['delay_ms']} ms" if more.get("delay_ms") else ""
            return f"{duration} ms {curve}{late}"
    return None


def _icon_text(value: dict[str, Any]) -> str | None:
    match value:
        case {"kind": "shipped" | "own", "name": name, "side": "alone", "size_px": size}:
            return f"{name} without words, {size:g} px"
        case {"kind": "shipped" | "own", "name": name, "side": side, "size_px": size, "gap_px": gap}:
            return f"{name} {side} the words, {size:g} px, gap {gap:g}"
    return None


def _standing_text(value: dict[str, Any]) -> str | None:
    """Return a quantity box, or when something comes, in words; None where it is neither."""
    match value:
        case {"kind": "box", "least": least, "most": most, "step": step, "start": start}:
            return f"{least} to {most} in steps of {step}, {start} at first"
        case {"kind": "own_left"}:
            return "once the page’s own button has left"
        case {"kind": "share", "share": share}:
            return f"after {share * 100:g} % of the way"
        case {"kind": "distance", "px": px}:
            return f"after {px:g} px"
    return None


def _press_text(value: dict[str, Any]) -> str | None:
    """Return what a press does in words; None where it is something else."""
    match value:
        case {"kind": "message", "way": way, **more}:
            whom = more.get("to") or more.get("pattern") or ""
            return f"open a {_WAYS.get(way, way)}{f' to {whom}' if whom else ''}"
        case {"kind": "notify", "path": path}:
            return f"stay; what is sold out asks for a mail address and sends it to {path}"
        case {"kind": "count"}:
            return "stay on the page, only the count rises"
        case {"kind": "show", "where": where, **more}:
            free = f", delivery is free from {more['free_from']:g}" if more.get("free_from") else ""
            return f"show the basket {'at the side' if where == 'side' else 'in the middle'}{free}"
        case {"kind": "stay"}:
            return "stay on the page"
        case {"kind": "checkout" | "closer", "wording": wording, "side": side}:
            return f"“{next(iter(wording.values()), '')}” {side} it"
        case {"kind": "basket" | "checkout" as goal}:
            return f"go to the {goal}"
    return None
