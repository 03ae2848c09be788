"""The servers, as factories for uvicorn: `uvicorn --factory uptick.main:studio`."""

from fastapi import FastAPI
from starlette.applications import Starlette

from uptick.edge.app import create_edge
from uptick.web.app import create_app
from uptick.wiring import Wiring


def studio() -> FastAPI:
    return create_app(Wiring(pool_size=8).studio_parts())


def edge() -> Starlette:
    return create_edge(Wiring(pool_size=4).edge_parts())
