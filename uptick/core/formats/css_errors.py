"""What is said of CSS that a look cannot take in."""


class NotUnderstood(Exception):
    """Told to the designer beside the declaration."""
