"""The API document, from which the page's types are generated: ``python -m improva.web.openapi`` prints it."""

from __future__ import annotations

import json

from .app import register_routes
from .errors import make_openapi


def api_document() -> str:
    """Return the OpenAPI document as JSON with sorted keys, built from the routes alone, without services."""
    app = make_openapi()
    register_routes(app, described=True)
    return json.dumps(app.api_doc, indent=1, sort_keys=True)


if __name__ == "__main__":
    print(api_document())
