"""A list of preparation steps, and the artwork that results."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any

import pyvips

from ..artwork.pixels import Artwork, resized
from ..artwork.reading import UNTAGGED_DPI, ArtFacts
from ..errors import StepError
from ..units import MM_PER_IN, finite
from .picture import MOST_PREPARED_PX, Picture, picture_of, vips_of
from .step import FILES
from .steps import ALL

MOST_STEPS = 40
AS_PIXELS = "Its lines were drawn as pixels, at 300 dpi of its print width, so that steps can work on them."
ALTERING = ("recolour", "scatter")
WIDTH_LIMITS_MM = (1.0, 5000.0)

_STEP = re.compile(r"(?P<kind>[a-z]+)(?::(?P<values>.*))?", re.DOTALL)
_VALUE = re.compile(r'\s*(?P<name>[a-z_]+)=(?P<value>"(?:[^"\\]|\\.)*"|[^,]*)(?:,|$)', re.DOTALL)


@dataclass(frozen=True)
class Step:
    """One step: its kind, the values that differ from the kind's defaults, and whether it is on.

    ``files`` are the contents of the files that its values name, by these names.
    """

    kind: str
    values: Mapping[str, Any] = field(default_factory=dict)
    on: bool = True
    files: Mapping[str, bytes] = field(default_factory=dict)

    def __post_init__(self) -> None:
        if self.kind not in ALL:
            raise StepError(f"There is no step '{self.kind}': choose one of {', '.join(ALL)}.")
        ALL[self.kind].values(self.values)

    def named_files(self) -> list[tuple[str, str]]:
        """Return the files that the values name, each with its field's kind."""
        kind = ALL[self.kind]
        values = kind.values(self.values)
        named = [(field.kind, values[field.name]) for field in kind.fields if field.kind in FILES]
        return [(what, name) for what, value in named if value for name in ([value] if isinstance(value, str) else value)]

    def run(self, picture: Picture) -> Picture:
        """Apply this step. Raises :class:`StepError`, or another Improva error for pieces."""
        kind = ALL[self.kind]
        values = kind.values(self.values)
        for field_ in kind.fields:
            if field_.kind in FILES and values[field_.name]:
                values[field_.name] = self._opened(values[field_.name])
            elif field_.kind == "file" and field_.name == "art":
                raise StepError("There is no artwork to lay: name its file.")
        return kind.run(picture, **values)

    def _opened(self, value: str | tuple[str, ...]) -> bytes | tuple[bytes, ...]:
        if not isinstance(value, str):
            return tuple(self.files[name] for name in value if name in self.files)
        if value not in self.files:
            raise StepError(f"The file '{value}' was not given with the step.")
        return self.files[value]

    def as_dict(self) -> dict[str, Any]:
        """Plain values, as they are stored and hashed."""
        return {"kind": self.kind, "values": dict(self.values), "on": self.on}


def step_from_dict(data: Mapping[str, Any]) -> Step:
    """Reverse :meth:`Step.as_dict`. Raises :class:`StepError`."""
    return Step(str(data["kind"]), dict(data.get("values", {})), bool(data.get("on", True)))


def parse_step(text: str) -> Step:
    """Parse a step as written in a shell: ``kind:name=value,name="value, with a comma"``.

    Raises:
        StepError: it cannot be read, or the kind does not take these values.
    """
    match = _STEP.fullmatch(text.strip())
    if match is None:
        raise StepError(f"'{text}' is not a step: write it as kind:name=value,…, for example cut:tolerance=6.")
    values, rest = {}, match["values"] or ""
    while rest:
        value = _VALUE.match(rest)
        if value is None:
            raise StepError(f"'{rest}' in '{text}' is not name=value: write it as kind:name=value,….")
        bare = value["value"]
        values[value["name"]] = re.sub(r"\\(.)", r"\1", bare[1:-1]) if bare.startswith('"') else bare.strip()
        rest = rest[value.end() :]
    return Step(match["kind"], values)


@dataclass(frozen=True)
class Preparation:
    """The seller's preparation of an artwork, before any placement.

    Attributes:
        width_mm: the width at which the whole original is printed, by which mm count in the steps; None for what the
            file claims.
    """

    steps: tuple[Step, ...] = ()
    width_mm: float | None = None

    def __post_init__(self) -> None:
        if len(self.steps) > MOST_STEPS:
            raise StepError(f"{len(self.steps)} steps are too many: use {MOST_STEPS} at most.")
        low, high = WIDTH_LIMITS_MM
        if self.width_mm is not None and not low <= finite(self.width_mm, "width") <= high:
            raise StepError(f"A print width of {self.width_mm:g} mm is out of reach: use {low:g} to {high:g} mm.")

    @property
    def active(self) -> tuple[Step, ...]:
        """Return the steps that are on."""
        return tuple(step for step in self.steps if step.on)

    @property
    def alters(self) -> bool:
        """Return whether the steps change the work itself, beyond cutting out, cleaning and trimming."""
        return any(step.kind in ALTERING for step in self.active)

    def px_per_mm(self, facts: ArtFacts) -> float:
        """Return the original's pixels per mm of print."""
        return facts.px[0] / (self.width_mm or facts.size.claimed_mm[0])

    def as_dict(self) -> dict[str, Any]:
        """Plain values, as they are stored and hashed."""
        return {"steps": [step.as_dict() for step in self.steps], "width_mm": self.width_mm}


def preparation_from_dict(data: Mapping[str, Any]) -> Preparation:
    """Reverse :meth:`Preparation.as_dict`. Raises :class:`StepError`."""
    return Preparation(tuple(step_from_dict(step) for step in data["steps"]), data["width_mm"])


def _drawn_larger(facts: ArtFacts, width_mm: float) -> float:
    """Return the scale at which vector art is drawn for its print size, within the size limit."""
    wanted = width_mm / MM_PER_IN * UNTAGGED_DPI / facts.px[0]
    return float(min(wanted, (MOST_PREPARED_PX / 4 / (facts.px[0] * facts.px[1])) ** 0.5))


def first_picture(art: Artwork, preparation: Preparation, longest_px: int | None = None) -> Picture:
    """Return an artwork as the first step's input, whole or reduced to a longest side.

    Raises:
        ArtworkError, StepError: it does not decode, or is too large to be prepared.
    """
    density = preparation.px_per_mm(art.facts)
    if longest_px is not None:
        image = art.reduced(longest_px)
        factor = image.width / art.facts.px[0]
        return picture_of(image, density * factor, 1.0 if art.facts.vector else min(1.0, factor))
    if art.facts.vector:
        factor = _drawn_larger(art.facts, art.facts.px[0] / density)
        image = art.image((art.facts.px[0] * factor, art.facts.px[1] * factor))
        return picture_of(image, density * image.width / art.facts.px[0]).noting(AS_PIXELS)
    return picture_of(art.image(streamed=True), density)


def prepared_picture(picture: Picture, preparation: Preparation) -> Picture:
    """Apply the active steps. Raises :class:`StepError` with the number of the step."""
    steps = preparation.active
    for number in range(len(steps)):
        picture = after_step(picture, steps, number)
    return picture


def after_step(picture: Picture, steps: tuple[Step, ...], index: int) -> Picture:
    """Apply the steps up to one. Raises :class:`StepError` with the number of the step, from 1."""
    step = steps[index]
    try:
        return step.run(picture)
    except StepError as problem:
        where = f"Step {index + 1}, {ALL[step.kind].title.lower()}: " if len(steps) > 1 else ""
        raise StepError(f"{where}{problem}") from None


def facts_of(picture: Picture, source: ArtFacts) -> ArtFacts:
    """Return the facts of a prepared picture."""
    h, w = picture.pixels.shape[:2]
    dpi = round(picture.px_per_mm * MM_PER_IN, 2)
    clear = int(picture.alpha.min()) < 255
    return replace(
        source,
        format="png",
        px=(w, h),
        tagged_dpi=(dpi, dpi),
        mode="RGB, 8 bit",
        has_alpha=clear,
        bits=8,
        profile=None,
        vector=False,
        embeds_raster=False,
        stored_turned=False,
        enlarged=picture.enlarged,
        notes=(*source.notes, *picture.notes),
    )


def prepare(art: Artwork, preparation: Preparation) -> Picture:
    """Return the artwork after its steps, at full size.

    Raises:
        ArtworkError, StepError: it does not decode, or a step cannot be taken.
    """
    return prepared_picture(first_picture(art, preparation), preparation)


def artwork_of(picture: Picture, source: ArtFacts) -> Artwork:
    """Return a prepared picture as an artwork: PNG bytes and facts. Equal pictures give equal bytes."""
    image = vips_of(picture.pixels).copy(xres=picture.px_per_mm, yres=picture.px_per_mm)
    return Artwork(bytes(image.pngsave_buffer(compression=1, filter="none")), facts_of(picture, source))


def shown(picture: Picture, longest_px: int) -> pyvips.Image:
    """Return a prepared picture reduced for display."""
    image = vips_of(picture.pixels)
    factor = min(1.0, longest_px / max(image.width, image.height))
    return resized(image, factor, factor)
