"""The API document, from which the page's types are generated: ``python -m improva.web.document`` prints it."""

from __future__ import annotations

import json
import tempfile
from functools import cache
from pathlib import Path


@cache
def written() -> str:
    """The OpenAPI document as JSON, keys sorted so that it is stable."""
    from .app import create_app

    with tempfile.TemporaryDirectory() as folder:
        return json.dumps(create_app(Path(folder), described=True).api_doc, indent=1, sort_keys=True)


if __name__ == "__main__":
    print(written())
