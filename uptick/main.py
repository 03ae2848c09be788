"""The servers, as factories for uvicorn: `uvicorn --factory uptick.main:studio`."""

import gc

from fastapi import FastAPI
from starlette.applications import Starlette

from uptick.edge.app import create_edge
from uptick.logs import configure
from uptick.web.app import create_app
from uptick.wiring import Wiring


def studio() -> FastAPI:
    """Return the studio for a server that calls a factory."""
    configure()
    app = create_app(Wiring(pool_size=8).studio_parts())
    settle()
    return app


def edge() -> Starlette:
    """Return the edge for a server that calls a factory."""
    configure()
    app = create_edge(Wiring(pool_size=4).edge_parts())
    settle()
    return app


def settle() -> None:
    """Leave what was loaded at the start out of every later search for garbage, and search more seldom.

    What is remembered between edits is looked through at every search, which would stop an answer midway; the studio
    searches in the pauses between requests. Almost nothing here is garbage that counting references does not find.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(50_000, 20, 50)
