"""Draw words, borders, frames and a second artwork on a picture itself. On a blank they are pieces of its design instead."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import pyvips

from ..artwork.pixels import Artwork, as_array, with_alpha
from ..design import Design, Placement
from ..pieces import BLENDS, ArtRef, Band, Extra, Frames, Lettering, Mixing, Overlay, Slot
from ..pieces.blending import Clip, Mirror
from ..pieces.frames import LAYOUTS
from ..pieces.text import PLAQUES, SIZINGS, Shadow
from ..render import pieces_on
from ..template import Panel, Template
from ..words import PATHS, Setting, WordPath
from .picture import Picture, vips_of
from .step import Field, StepKind

FONT = "font"


def _names(*names: str) -> tuple[tuple[str, str], ...]:
    return tuple((name, name) for name in names)


_MIXING = (
    Field("opacity", "Opacity", "number", 100, "%", 0, 100),
    Field("blend", "Blend", "choice", "normal", choices=_names(*BLENDS)),
    Field("behind", "Behind the picture", "switch", False),
    Field("clipped", "Only where the picture has ink", "switch", False),
    Field("flip", "Flip", "choice", "no", choices=_names("no", "across", "down", "both")),
    Field("twin", "Mirrored copy", "choice", "no", choices=_names("no", "across", "down", "both"), hint="past the middle"),
)
_SHIFT = (
    Field("right", "Right of the middle", "number", 0, "mm", -10_000, 10_000),
    Field("down", "Below the middle", "number", 0, "mm", -10_000, 10_000),
)


def _laid(picture: Picture, extra: Extra, fonts: Mapping[str, bytes], arts: Mapping[str, Artwork]) -> Picture:
    """Draw one piece on a picture, treated as a panel of its own size."""
    h, w = picture.pixels.shape[:2]
    panel = Panel("picture", "Picture", picture.size_mm)
    sheet = Template("picture", "Picture", "picture", "upload", "cover", (panel,))
    image = vips_of(picture.pixels)
    image = with_alpha(image)
    drawn: pyvips.Image = pieces_on(image, Design(sheet, panel, (), (extra,), fonts), arts.__getitem__, (w, h))
    return picture.changed(pixels=as_array(with_alpha(drawn)))


def _mixing(values: dict[str, Any]) -> Mixing:
    mirrored: dict[str, Mirror] = {name: values[name] for name in ("flip", "twin") if values[name] != "no"}
    clipped: Clip = "artwork" if values["clipped"] else ""
    return Mixing(values["opacity"] / 100, values["blend"], values["behind"], clipped, **mirrored)


def _shadow(values: dict[str, Any]) -> Shadow | None:
    if not values["shadow"]:
        return None
    shift = values["shadow_right"], values["shadow_down"]
    return Shadow(values["shadow"], shift, values["shadow_blur"], values["shadow_opacity"] / 100)


def _ref(data: bytes, arts: dict[str, Artwork]) -> ArtRef:
    art = Artwork.read(data)
    key = str(len(arts))
    arts[key] = art
    return ArtRef(key, art.facts.size)


def words(picture: Picture, *, font: bytes, **values: Any) -> Picture:
    """Draw words on a picture. ``font`` is a font file; for the values see :class:`Lettering`."""
    lettering = Lettering(
        values["text"].replace("\\n", "\n"),
        FONT,
        Setting(tracking=values["tracking"] / 100, leading=values["leading"], stacked=values["stacked"]),
        WordPath(values["along"], values["amount"], values["other"], values["waves"]),
        values["sizing"],
        values["size"],
        values["width"],
        values["height"],
        (values["right"], values["down"]),
        values["degrees"],
        values["fill"],
        values["outline"],
        values["outline_mm"],
        _shadow(values),
        values["plaque"],
        values["plaque_fill"],
        None,
        values["plaque_margin"],
        _mixing(values),
    )
    return _laid(picture, lettering, {FONT: font}, {})


def band(picture: Picture, *, pattern: bytes | None, **values: Any) -> Picture:
    """Draw a border along a picture's edges. ``pattern`` is an artwork file; for the values see :class:`Band`."""
    arts: dict[str, Artwork] = {}
    extra = Band(
        values["sides"],
        values["mm"],
        values["colour"],
        _ref(pattern, arts) if pattern else None,
        values["tile"],
        values["line"],
        values["line_gap"],
        values["line_colour"],
        _mixing(values),
    )
    return _laid(picture, extra, {}, arts)


def frames(picture: Picture, *, pictures: tuple[bytes, ...], **values: Any) -> Picture:
    """Draw picture frames on a picture, filled with ``pictures``, artwork files, in order; see :class:`Frames`."""
    arts: dict[str, Artwork] = {}
    slots = tuple(Slot(_ref(data, arts)) for data in pictures)
    extra = Frames(
        values["layout"],
        int(values["columns"]),
        int(values["rows"]),
        (values["width"], values["height"]),
        values["rim"],
        values["gap"],
        values["colour"],
        None,
        (values["right"], values["down"]),
        values["degrees"],
        slots,
        _mixing(values),
    )
    return _laid(picture, extra, {}, arts)


def overlay(picture: Picture, *, art: bytes, **values: Any) -> Picture:
    """Draw a second artwork on a picture. ``art`` is its file; see :class:`Overlay`."""
    arts: dict[str, Artwork] = {}
    placement = Placement(values["fit"], (values["right"], values["down"]), values["scale"] / 100, values["degrees"])
    return _laid(picture, Overlay(_ref(art, arts), placement, _mixing(values)), {}, arts)


_TURN = Field("degrees", "Turned", "number", 0, "°", -3600, 3600)

WORDS = StepKind(
    "words",
    "Words",
    "Adds words to the picture.",
    (
        Field("text", "Words", "text", "", hint="\\n breaks a line"),
        Field("font", "Font", "font", "poster", hint="one that ships, or a TTF or OTF file"),
        Field("sizing", "Sized by", "choice", "width", choices=_names(*SIZINGS)),
        Field("size", "Letters", "number", 14, "mm", 0.1, 2000),
        Field("width", "Width", "number", 80, "mm", 0.1, 10_000),
        Field("height", "Height", "number", 30, "mm", 0.1, 10_000),
        Field("tracking", "Tracking", "number", 0, "%", -20, 300),
        Field("leading", "Leading", "number", 1.15, "×", 0.4, 5),
        Field("stacked", "Stacked", "switch", False, hint="letters one below another"),
        Field("along", "Along", "choice", "line", choices=_names(*PATHS)),
        Field("amount", "Bent by", "number", 0, "", -355, 355),
        Field("other", "Foot bent by", "number", 0, "%", -300, 300),
        Field("waves", "Waves", "number", 1, "×", 0.1, 20),
        *_SHIFT,
        _TURN,
        Field("fill", "Colour", "colour", "#23211e"),
        Field("outline", "Outline", "colour", None, hint="none"),
        Field("outline_mm", "Outline of", "number", 0.6, "mm", 0, 50),
        Field("shadow", "Shadow", "colour", None, hint="none"),
        Field("shadow_right", "Shadow, right", "number", 0.8, "mm", -200, 200),
        Field("shadow_down", "Shadow, down", "number", 0.8, "mm", -200, 200),
        Field("shadow_blur", "Shadow's blur", "number", 0.8, "mm", 0, 100),
        Field("shadow_opacity", "Shadow's opacity", "number", 50, "%", 0, 100),
        Field("plaque", "Plaque", "choice", "none", choices=_names(*PLAQUES)),
        Field("plaque_fill", "Plaque in", "colour", "#f6ecd9"),
        Field("plaque_margin", "Round words", "number", 4, "mm", 0, 500),
        *_MIXING,
    ),
    words,
)
BAND = StepKind(
    "band",
    "Border along the edges",
    "Adds a border of colour or pattern along the picture's edges.",
    (
        Field("sides", "Sides", "choice", "all", choices=_names("all", "level", "ends")),
        Field("mm", "Width", "number", 12, "mm", 0.1, 1000),
        Field("colour", "Colour", "colour", "#24405a"),
        Field("pattern", "Pattern", "file", None, hint="none"),
        Field("tile", "One tile", "number", 25, "mm", 0.6, 2000),
        Field("line", "Inner line", "number", 0.8, "mm", 0, 100),
        Field("line_gap", "Distance from the edge", "number", 2, "mm", 0, 200),
        Field("line_colour", "Line in", "colour", "#ffffff"),
        *_MIXING,
    ),
    band,
)
FRAMES = StepKind(
    "frames",
    "Picture frames",
    "Adds frames that hold other pictures.",
    (
        Field("layout", "Frames", "choice", "instant", choices=_names(*LAYOUTS)),
        Field("pictures", "Pictures", "files", (), hint="files, with ; between them"),
        Field("columns", "Columns", "number", 2, "", 1, 16),
        Field("rows", "Rows", "number", 1, "", 1, 16),
        Field("width", "All, width", "number", 120, "mm", 1, 10_000),
        Field("height", "All, height", "number", 70, "mm", 1, 10_000),
        Field("rim", "Rim", "number", 4, "mm", 0, 500),
        Field("gap", "Between", "number", 5, "mm", 0, 500),
        Field("colour", "Frames in", "colour", "#ffffff"),
        *_SHIFT,
        _TURN,
        *_MIXING,
    ),
    frames,
)
OVERLAY = StepKind(
    "overlay",
    "Second artwork",
    "Adds another artwork in front of the picture or behind it.",
    (
        Field("art", "Artwork", "file", None),
        Field("fit", "Fit", "choice", "contain", choices=_names("contain", "cover", "stretch", "actual")),
        Field("scale", "Scale", "number", 100, "%", 1, 10_000),
        *_SHIFT,
        _TURN,
        *_MIXING,
    ),
    overlay,
)
