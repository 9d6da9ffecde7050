"""The scene packs that ship, a folder each. ``docs/scene-packs.md`` describes the format."""

from pathlib import Path

SHIPPED = Path(__file__).parent
