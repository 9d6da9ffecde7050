"""A simulated upload desk of an invented print provider, which checks a file and accepts or refuses it."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

from PIL import Image, UnidentifiedImageError

from ..core.template import Panel
from ..core.units import MM_PER_IN

Image.MAX_IMAGE_PIXELS = None


@dataclass(frozen=True)
class UploadRules:
    """The invented provider's requirements."""

    least_dpi: float = 150.0
    most_mb: float = 100.0
    formats: tuple[str, ...] = ("PNG", "JPEG", "TIFF")
    shape_tolerance: float = 0.01


@dataclass(frozen=True)
class Answer:
    """Accepted, or refused with reasons; ``seen`` is what the desk read from the file."""

    accepted: bool
    reasons: tuple[str, ...]
    seen: tuple[str, ...]


def judge_upload(path: Path, panel: Panel, rules: UploadRules | None = None) -> Answer:
    """Check a file for a panel by the desk's rules: format, size in MB, colours, shape and pixels."""
    rules = rules or UploadRules()
    weight = path.stat().st_size / 1e6
    try:
        with Image.open(path) as picture:
            kind, mode, (w, h) = picture.format or "?", picture.mode, picture.size
            profile = "icc_profile" in picture.info
    except (UnidentifiedImageError, OSError):
        return Answer(False, (f"A {path.suffix.lstrip('.').upper()} file is not taken here: send PNG, JPEG or TIFF.",), ())
    need_w, need_h = (side / MM_PER_IN for side in panel.file_mm)
    dpi = min(w / need_w, h / need_h)
    reasons = []
    if kind not in rules.formats:
        reasons.append(f"{kind} is not taken here: send PNG, JPEG or TIFF.")
    if weight > rules.most_mb:
        reasons.append(f"The file weighs {weight:.0f} MB and {rules.most_mb:.0f} are taken: send JPEG, or fewer dpi.")
    if mode not in ("RGB", "RGBA"):
        reasons.append(f"Its colours are {mode} and RGB is taken: export it as sRGB.")
    if abs((w / h) / (need_w / need_h) - 1) > rules.shape_tolerance:
        reasons.append(
            f"Its shape, {w} × {h} px, is not that of {need_w:.3g} × {need_h:.3g} in: leave tab, marks and sheets off."
        )
    if round(dpi) < rules.least_dpi:
        reasons.append(
            f"It has {dpi:.0f} dpi at {need_w:.3g} × {need_h:.3g} in and {rules.least_dpi:.0f} are needed: make it larger."
        )
    seen = (
        kind,
        f"{w} × {h} px",
        f"{dpi:.0f} dpi",
        mode,
        "with a profile" if profile else "without a profile",
        f"{weight:.1f} MB",
    )
    return Answer(not reasons, tuple(reasons), seen)
