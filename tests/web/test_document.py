"""The API's document: every shape has a name of its own."""

import ast
from collections import Counter
from pathlib import Path

import improva.web


def test_no_two_shapes_share_a_name() -> None:
    """Of two models of one name the document would hold only the last, and the page's types would lie."""
    names = Counter(
        node.name
        for file in Path(improva.web.__file__).parent.glob("*.py")
        for node in ast.parse(file.read_text()).body
        if isinstance(node, ast.ClassDef)
        and any(getattr(base, "id", "").endswith(("Shape", "Body", "BaseModel")) for base in node.bases)
    )
    assert [name for name, times in names.items() if times > 1 and not name.endswith(("Path", "Query"))] == []
