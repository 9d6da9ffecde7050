"""Routes are collected when their modules are imported, and registered when an application is created."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeVar

from flask_openapi3 import APIBlueprint, Tag

Handler = TypeVar("Handler", bound=Callable[..., Any])


@dataclass(frozen=True)
class Route:
    """One route: its method, its rule below the resource's prefix, its handler, and its response models by status."""

    method: str
    rule: str
    handler: Callable[..., Any]
    responses: dict[int, Any] | None


def binary(*types: str) -> dict[str, Any]:
    """Return the description of a response that is a file of one of some media types."""
    return {"content": {each: {"schema": {"type": "string", "format": "binary"}} for each in types}}


class Routes:
    """The routes of one resource. Its decorators leave handlers plain functions.

    Args:
        tag: heading in the API document.
        prefix: what every rule begins with.
    """

    def __init__(self, tag: str, prefix: str = "") -> None:
        self.tag, self.prefix = tag, prefix
        self.routes: list[Route] = []

    def _route(self, method: str, rule: str, responses: dict[int, Any] | None) -> Callable[[Handler], Handler]:
        def add(handler: Handler) -> Handler:
            self.routes.append(Route(method, rule, handler, responses))
            return handler

        return add

    def get(self, rule: str = "", responses: dict[int, Any] | None = None) -> Callable[[Handler], Handler]:
        """Register a handler of GET."""
        return self._route("get", rule, responses)

    def post(self, rule: str = "", responses: dict[int, Any] | None = None) -> Callable[[Handler], Handler]:
        """Register a handler of POST."""
        return self._route("post", rule, responses)

    def put(self, rule: str = "", responses: dict[int, Any] | None = None) -> Callable[[Handler], Handler]:
        """Register a handler of PUT."""
        return self._route("put", rule, responses)

    def patch(self, rule: str = "", responses: dict[int, Any] | None = None) -> Callable[[Handler], Handler]:
        """Register a handler of PATCH."""
        return self._route("patch", rule, responses)

    def delete(self, rule: str = "", responses: dict[int, Any] | None = None) -> Callable[[Handler], Handler]:
        """Register a handler of DELETE."""
        return self._route("delete", rule, responses)

    def blueprint(self, name: str, described: bool) -> APIBlueprint:
        """Return the routes as a blueprint. ``described`` adds them to the API document, which doubles the start-up time."""
        blueprint = APIBlueprint(
            name, __name__, url_prefix=self.prefix or None, abp_tags=[Tag(name=self.tag)], doc_ui=described
        )
        for route in self.routes:
            add = getattr(blueprint, route.method)
            add(route.rule, responses=route.responses, operation_id=route.handler.__name__)(route.handler)
        return blueprint
