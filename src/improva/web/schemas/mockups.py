"""Request and response models of mock-ups."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from ...store.models.mockups import FilmModel, MockupSettings
from .common import FindingOut, In, Out, PairPath, VisibleText


class SurfaceOut(Out):
    """A surface for backgrounds, or a weave for cloth."""

    id: str
    title: str
    use: Literal["ground", "cloth"]


class MockupStateOut(Out):
    """A pair's mock-up settings, the available surfaces, and findings."""

    mockup_settings: MockupSettings
    edit_key: str = Field(description="Key of this state, for `based_on` of an edit")
    surfaces: list[SurfaceOut]
    findings: list[FindingOut]
    pictures: int = Field(description="How many will be made")


class PresetOut(Out):
    """A stored preset."""

    name: str
    mockup_settings: MockupSettings
    colours: dict[str, str | None] = Field(description="Of parts, grounds and backdrops")


class PresetListOut(Out):
    """All presets by name."""

    presets: list[PresetOut]


class PresetIn(In):
    """The settings to store as a preset."""

    mockup_settings: MockupSettings
    colours: dict[str, str | None]


class PresetPath(BaseModel):
    """Path of a preset."""

    name: VisibleText = Field(min_length=1, max_length=60)


class PairPresetPath(PairPath, PresetPath):
    """Path of a preset on a pair."""


class MockupSettingsIn(In, MockupSettings):
    """Which mock-ups to make, and how they look."""


class FilmIn(In, FilmModel):
    """A turntable film."""
