"""Logs: one line of JSON an event, so that programs can read them and nothing floods them."""

import structlog


def configure() -> None:
    """Say how this process logs: time, level and facts; an error by its kind and place, never by pages of trace."""
    structlog.configure(
        processors=[
            structlog.processors.add_log_level,
            structlog.processors.TimeStamper(fmt="iso", utc=True),
            structlog.processors.JSONRenderer(),
        ],
        cache_logger_on_first_use=True,
    )
