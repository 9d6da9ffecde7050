"""Print the API document, from which the page's types are generated: ``python -m improva.web.document``."""

from __future__ import annotations

import json
import tempfile
from pathlib import Path

from .app import create_app


def main() -> None:
    """Write the OpenAPI document to standard output, keys sorted so that it is stable."""
    with tempfile.TemporaryDirectory() as folder:
        print(json.dumps(create_app(Path(folder)).api_doc, indent=1, sort_keys=True))


if __name__ == "__main__":
    main()
