"""The engine, and the migrations that bring a database up to date."""

import pathlib
from datetime import date, timedelta
from typing import TYPE_CHECKING, Any

import orjson
from sqlalchemy import Connection, Engine, create_engine, text

if TYPE_CHECKING:
    from alembic.config import Config

_HERE = pathlib.Path(__file__).parent


def _dumps(value: Any) -> str:
    return orjson.dumps(value, option=orjson.OPT_NON_STR_KEYS).decode()


def make_engine(url: str, *, pool_size: int = 5) -> Engine:
    """Return an engine on psycopg 3; JSON goes through orjson.

    Connections are not asked whether they live before each use, which would cost every request a trip: after a restart
    of the server one request fails, and SQLAlchemy then renews them all.
    """
    return create_engine(
        url,
        pool_size=pool_size,
        max_overflow=5,
        json_serializer=_dumps,
        json_deserializer=orjson.loads,
    )


def migration_config() -> "Config":
    """Return what Alembic needs to find and run the migrations."""
    # Loading it takes longer than most commands may, and only migrating needs it.
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(_HERE / "migrations"))
    config.set_main_option("path_separator", "os")
    return config


def migrate(engine: Engine) -> None:
    """Bring the tables up to the newest form; a second call does nothing."""
    from alembic import command

    with engine.begin() as connection:
        # Two processes that start together must not migrate together.
        connection.execute(text("SELECT pg_advisory_xact_lock(7140)"))
        config = migration_config()
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


def add_event_days(connection: Connection, days: set[date]) -> None:
    """Make sure that the partition of each day exists."""
    connection.execute(text("SELECT pg_advisory_xact_lock(7141)"))
    for day in sorted(days):
        connection.execute(
            text(
                f"CREATE TABLE IF NOT EXISTS events_{day:%Y%m%d} PARTITION OF events "
                f"FOR VALUES FROM ('{day}') TO ('{day + timedelta(days=1)}')"
            )
        )
