"""Request and response models of the simulators."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from .common import In, Out


class PrinterOut(Out):
    """The simulated printer's state."""

    sheets: int
    ink_ml: dict[str, float]
    low: list[str]
    jammed: bool
    jam_next: bool
    printed: list[str]
    tray: str = Field(description="The folder it prints to")


class HandOverIn(In):
    """The address of a made file."""

    url: str = Field(pattern=r"^/api/files/[0-9a-f]+$")
    copies: int = Field(default=1, ge=1, le=1000)


class PrintedOut(Out):
    """Paper and ink that a print used."""

    used_sheets: int
    used_ink_ml: float
    printer: PrinterOut


class UploadAnswerOut(Out):
    """The simulated desk's answer."""

    accepted: bool
    reasons: list[str]
    seen: list[str]
    rules: list[str]


class ActionPath(BaseModel):
    """An action at the printer."""

    action: Literal["refill", "clear", "jam"]
