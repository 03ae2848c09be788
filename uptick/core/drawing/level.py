"""Cards whose buttons are level in a row: the one rule of CSS that does it."""

from uptick.core.button.document import Standing


def levelling_css(stands: Standing) -> str:
    """Return the rule that sets the button's part of every card at the card’s end; nothing where no card is named.

    Source:
        CSS Flexible Box Layout 1, section 8.1: an auto margin takes all the room that is left.
    """
    card = stands.level
    if not card:
        return ""
    stretch = f":has(> {card}) {{ align-items: stretch }}\n" if stands.stretch else ""
    return (
        f"{stretch}{card} {{ display: flex; flex-direction: column }}\n"
        f"{card} > :is([data-up-place], :has([data-up-place])) {{ margin-block-start: auto }}"
    )
