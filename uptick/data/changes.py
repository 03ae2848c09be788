"""Hears from PostgreSQL that what a store serves has changed."""

import threading
from collections.abc import Callable

import psycopg
from sqlalchemy import Engine

CHANNEL = "uptick_served"
# By this the line is known among the database's sessions.
NAME = "uptick-changes"
# So often it looks whether it shall stop, and so often whether the line still lives.
_LOOK_UP_S = 0.25
_LOOKS_A_CHECK = 20
_AGAIN_S = 2.0


class ServedChanges:
    """Listens on a connection of its own; while that is down, nobody may trust what they keep for long."""

    def __init__(self, engine: Engine) -> None:
        self._url = engine.url.set(drivername="postgresql").render_as_string(hide_password=False)
        self._stopping = threading.Event()
        self._thread: threading.Thread | None = None
        self._hears = False

    @property
    def hears(self) -> bool:
        """Tell whether every change is heard now."""
        return self._hears

    def start(self, changed: Callable[[str | None], None]) -> None:
        """Begin to listen; `changed` gets a store's key, or None where any may have changed, in another thread."""
        self._thread = threading.Thread(target=self._run, args=(changed,), name="served-changes", daemon=True)
        self._thread.start()

    def stop(self) -> None:
        self._stopping.set()
        if self._thread:
            self._thread.join(_AGAIN_S)

    def _run(self, changed: Callable[[str | None], None]) -> None:
        while not self._stopping.is_set():
            try:
                self._listen(changed)
            except psycopg.Error:
                self._stopping.wait(_AGAIN_S)
            finally:
                self._hears = False
                changed(None)

    def _listen(self, changed: Callable[[str | None], None]) -> None:
        with psycopg.connect(self._url, autocommit=True, application_name=NAME) as connection:
            connection.execute(f"LISTEN {CHANNEL}")
            # What changed before this moment was not heard.
            changed(None)
            self._hears = True
            looks = 0
            while not self._stopping.is_set():
                for notice in connection.notifies(timeout=_LOOK_UP_S):
                    changed(notice.payload)
                looks += 1
                if looks % _LOOKS_A_CHECK == 0:
                    # An idle line that has died tells nothing by itself.
                    connection.execute("SELECT 1")
