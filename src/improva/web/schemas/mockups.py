"""What requests and answers about pictures look like."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from ...store.models.mockups import FilmModel, MockupSettings
from .common import FindingOut, In, Out, PairPath


class SurfaceOut(Out):
    """A surface that a ground can show, or a weave that a cloth can have."""

    id: str
    title: str
    use: Literal["ground", "cloth"]


class MockupStateOut(Out):
    """What is chosen of a pair's pictures, what can be, and what is to be said about it."""

    mockup_settings: MockupSettings
    surfaces: list[SurfaceOut]
    findings: list[FindingOut]
    pictures: int = Field(description="How many will be made")


class PresetOut(Out):
    """A look as it is kept."""

    name: str
    mockup_settings: MockupSettings
    colours: dict[str, str | None] = Field(description="Of parts, grounds and backdrops")


class PresetListOut(Out):
    """All looks, by name."""

    presets: list[PresetOut]


class PresetIn(In):
    """What a look keeps."""

    mockup_settings: MockupSettings
    colours: dict[str, str | None]


class PresetPath(BaseModel):
    """Which preset."""

    name: str = Field(min_length=1, max_length=60)


class PairPresetPath(PairPath, PresetPath):
    """Which preset on which pair."""


class MockupSettingsIn(In, MockupSettings):
    """Which mock-ups are made, as a request sends it."""


class FilmIn(In, FilmModel):
    """A film of a turn, as a request sends it."""
