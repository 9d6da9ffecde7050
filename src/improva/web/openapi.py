"""The API document, from which the page's types are generated: ``python -m improva.web.openapi`` prints it."""

from __future__ import annotations

import json
from typing import Any

from .app import register_routes
from .errors import ProblemOut, make_openapi

PROBLEMS = {
    400: "The request cannot be read, or its host name is not one of this server's.",
    401: "A login is needed.",
    403: "A page of another site has sent this.",
    404: "There is no such thing, or no longer.",
    405: "This address cannot be used that way.",
    409: "It was changed meanwhile, by somebody else or in another window.",
    413: "The file is too large.",
    415: "The body is not of the media type that is read here.",
    422: "A value is missing, out of range, or not possible.",
    429: "Too many attempts.",
    500: "An error of ours. Nothing was changed.",
    503: "The board is busy.",
    507: "The disk is full.",
}
"""What every operation may answer, as a problem document (RFC 9457)."""


def api_document() -> str:
    """Return the OpenAPI document as JSON with sorted keys, built from the routes alone, without services."""
    app = make_openapi()
    register_routes(app, described=True)
    document = app.api_doc
    document["components"] = {name: part for name, part in document["components"].items() if part is not None}
    document["components"]["schemas"]["ProblemOut"] = ProblemOut.model_json_schema()
    document["components"]["responses"] = {str(status): _problem(text) for status, text in PROBLEMS.items()}
    for operations in document["paths"].values():
        for operation in operations.values():
            operation["responses"] |= {str(status): {"$ref": f"#/components/responses/{status}"} for status in PROBLEMS}
    return json.dumps(_tuples(document), indent=1, sort_keys=True)


def _tuples(schema: Any) -> Any:
    """Return a schema whose tuples are written as OpenAPI 3.1 has them (JSON Schema 2020-12, prefixItems)."""
    if isinstance(schema, list):
        return [_tuples(part) for part in schema]
    if not isinstance(schema, dict):
        return schema
    return {
        ("prefixItems" if name == "items" and isinstance(part, list) else name): _tuples(part) for name, part in schema.items()
    }


def _problem(description: str) -> dict[str, Any]:
    schema = {"$ref": "#/components/schemas/ProblemOut"}
    return {"description": description, "content": {"application/problem+json": {"schema": schema}}}


if __name__ == "__main__":
    print(api_document())
