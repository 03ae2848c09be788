"""Computations on plain numbers."""

import re
from dataclasses import asdict
from typing import Annotated

import typer

from uptick.cli.say import AsJson, say
from uptick.core.errors import OutOfRange

app = typer.Typer(help="Compute on plain numbers.", no_args_is_help=True)


def _ratio(text: str) -> tuple[int, int]:
    match = re.fullmatch(r"([0-9]{1,15})/([0-9]{1,15})", text.strip())
    if match is None:
        raise OutOfRange.of("a count", "written as 56/70, hits of tries, with at most 15 figures", repr(text[:60]))
    return int(match[1]), int(match[2])


@app.command()
def contrast(first: str, other: str, as_json: AsJson = False) -> None:
    """Contrast of two colours (WCAG 2.2). Exits 1 when words of usual size could not be read."""
    from uptick.core.colour.colour import contrast_ratio

    ratio = contrast_ratio(first, other)
    shown = int(ratio * 100) / 100
    say({"ratio": shown, "usual_text": ratio >= 4.5, "large_text": ratio >= 3}, as_json)
    if ratio < 4.5:
        raise typer.Exit(1)


@app.command()
def interval(
    rate: Annotated[str, typer.Argument(help="As 81/263.")], level: float = 0.95, as_json: AsJson = False
) -> None:
    """A rate with its Wilson interval."""
    from uptick.core.trial.proportion import wilson_interval

    say(_rounded(asdict(wilson_interval(*_ratio(rate), level=level))), as_json)


@app.command()
def compare(first: str, other: str, level: float = 0.95, as_json: AsJson = False) -> None:
    """The difference of two rates, the first less the second, with Newcombe's interval."""
    from uptick.core.trial.proportion import newcombe_difference

    newcombe = newcombe_difference(*_ratio(first), *_ratio(other), level=level)
    values = {"difference": newcombe.estimate, "low": newcombe.low, "high": newcombe.high, "level": level}
    say(_rounded(values), as_json)


@app.command()
def plan(
    rate: Annotated[float, typer.Option(help="What A converts now, as a share.")],
    to: Annotated[float, typer.Option(help="The rate that would be worth having.")],
    alpha: float = 0.05,
    power: float = 0.8,
    as_json: AsJson = False,
) -> None:
    """Shoppers that each of two versions needs, looked at once."""
    from uptick.core.trial.plan import shoppers_per_version

    each = shoppers_per_version(rate, to, alpha=alpha, power=power)
    say({"per_version": each, "total": 2 * each, "alpha": alpha, "power": power}, as_json)


@app.command()
def split(
    observed: list[int], shares: Annotated[str, typer.Option(help="As 50,50.")] = "", as_json: AsJson = False
) -> None:
    """The split check. Exits 1 when the split is broken."""
    from uptick.core.trial.split import check_split

    try:
        weights = [float(part) for part in shares.split(",")] if shares else None
    except ValueError:
        raise OutOfRange.of("--shares", "numbers divided by commas", repr(shares)) from None
    test = check_split(observed, weights)
    say({"p_value": test.p_value, "statistic": test.statistic, "holds": test.holds}, as_json)
    if not test.holds:
        raise typer.Exit(1)


@app.command()
def assign(salt: str, shopper: str, as_json: AsJson = False) -> None:
    """The version that a shopper gets under a salt, half and half."""
    from uptick.core.trial import assign as assigning

    letter = assigning.assign_version(salt, shopper, {"A": 5000, "B": 5000})
    say({"version": letter, "hash": f"{assigning.hash_share(salt, shopper):08x}"}, as_json)


def _rounded(values: dict[str, float]) -> dict[str, float]:
    return {name: round(value, 10) for name, value in values.items()}
