"""A pair's listing pictures and films: each made once, with a description inside the file."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..core.artwork.pixels import Artwork, as_array
from ..core.colour import Floats
from ..core.errors import OutputError
from ..core.findings import Finding
from ..core.mockup.camera import as_camera
from ..core.mockup.composite import ShadedView, composite, turned
from ..core.mockup.cutout import Cutout, cut_out, on_photograph, transparent
from ..core.mockup.findings import picture_findings
from ..core.mockup.grade import graded
from ..core.mockup.labels import Box, captioned, measured
from ..core.mockup.render import encode, print_textures
from ..core.mockup.scene import Close
from ..core.mockup.view import View
from ..core.output import list_name, picture_name, sheet_name
from ..core.output.xmp import xmp_packet
from ..core.progress import Progress
from ..core.render import on_blank
from ..io.atomic import atomic_write
from ..io.contact_sheet import contact_sheet
from ..stages import versions
from ..store import ArtRow, Placements
from ..store.database import key_of
from ..store.models.mockups import BackdropModel, MockupSettings
from .made_files import MadeFile, keep_file
from .pair import Pair
from .previews import PREVIEW_QUALITY
from .render_cache import Contour
from .scenes import fingerprint
from .services import Services
from .shots import Shot, shots_of

SHEET_PX = 640
CLEAR_GROUND = (241, 238, 231)


def picture_facts(services: Services, pair: Pair, shot: Shot) -> dict[str, str]:
    """Return what a picture shows as keys and words, for its metadata."""
    chosen = [
        f"{r.title}: {shot.colours.get(r.id) or r.default or r.surface or 'as it is'}" for r in shot.info.regions if not r.panel
    ]
    facts = {
        "design": pair.art.title,
        "artwork": pair.art.sha256,
        "blank": pair.template.title,
        "template": pair.template.id,
        "scene": shot.info.id,
        "view": shot.view,
        "colours": "; ".join(chosen),
    }
    others = [
        f"{shot.info.region(place).place}: {other.art.title}" for place, other in _other_works(services, pair, shot).items()
    ]
    return {**facts, "others": "; ".join(others)} if others else facts


def _shaded_view(services: Services, shot: Shot, size: tuple[int, int], contour: Contour | None) -> ShadedView:
    close: Close = "detail" if shot.close else ""
    return services.render_cache.shaded_view(shot.info, size, shot.colours, close, shot.mirrored, contour)


def lit_shot(services: Services, pair: Pair, shot: Shot, size: tuple[int, int]) -> tuple[ShadedView, dict[str, Floats]]:
    """Return a shot's lit view and its prints at full resolution."""
    original = services.artworks.open(pair.art)
    shaded = _shaded_view(services, shot, size, services.previews.contour(pair, {}, original))
    prints = print_textures(pair.designs(), pair.opener(original, services.artworks.open), shaded.view)
    return graded(shaded, shot.grade), {**prints, **_others(services, pair, shot, shaded.view, services.artworks.open)}


def _other_works(services: Services, pair: Pair, shot: Shot) -> dict[str, Pair]:
    """Return the pairs that a shot shows in its other places. Raises :class:`NotFoundError` for an artwork that was removed."""
    return {place: services.pairs.load(art, pair.template.id) for place, art in shot.places.items()}


def _others(services: Services, pair: Pair, shot: Shot, view: View, open_art: Callable[[ArtRow], Artwork]) -> dict[str, Floats]:
    """Return the prints of places that show another artwork, each turned to its own front."""
    prints = {}
    for place, other in _other_works(services, pair, shot).items():
        texture = print_textures(other.designs(), other.opener(open_art(other.art), open_art), view)[place]
        turn = shot.info.region(place).turn if shot.info.turns else 0.0
        prints[place] = turned(texture, -turn) if turn else texture
    return prints


def preview_shot(services: Services, pair: Pair, placements: Placements, shot: Shot, size: tuple[int, int]) -> bytes:
    """Return a quick JPEG of a shot with edited contents, with the light, background, captions and measures of the final picture."""
    shaded = _shaded_view(services, shot, size, services.previews.quick_contour(pair, placements))
    art = services.previews.quick_art(pair, placements, shaded)
    prints = print_textures(pair.designs(placements), pair.opener(art, services.artworks.proxy), shaded.view)
    prints.update(_others(services, pair, shot, shaded.view, services.artworks.proxy))
    shown = replace(shot, measured=shot.measured and bool(shot.info.measures))
    try:
        picture = _finished(services, graded(shaded, shot.grade), prints, shown)
    except OutputError:  # captions have no room at this size; making the picture reports that
        picture = _finished(services, graded(shaded, shot.grade), prints, replace(shown, captions=()))
    if picture.shape[2] == 4:  # transparent pixels show paper
        share = picture[..., 3:].astype(np.float32) / 255
        picture = (picture[..., :3] * share + np.array(CLEAR_GROUND, np.float32) * (1 - share) + 0.5).astype(np.uint8)
    return encode(picture, ".jpg", quality=PREVIEW_QUALITY)


def _finished(services: Services, shaded: ShadedView, prints: dict[str, Floats], shot: Shot) -> NDArray[np.uint8]:
    """Return the picture of a shot with its background, captions and measures."""
    cover, boxes = shaded.view.cover, list[Box]()
    if shot.clear:
        picture = transparent(cut_out(shaded, prints, shot.angle))
    elif shot.backdrop:
        picture, cover = place_on_backdrop(services, shot.backdrop, cut_out(shaded, prints, shot.angle), shaded.view.size)
    else:
        picture = np.asarray(composite(shaded, prints, shot.angle)[..., ::-1])
        picture = as_camera(picture) if shot.camera else picture
    if shot.measured and not shot.backdrop:
        picture, boxes = measured(picture, shaded.view, shot.mirrored, services.fonts.data)
    return captioned(picture, shot.captions, cover, services.fonts.data, boxes)


def place_on_backdrop(
    services: Services, backdrop: BackdropModel, cut: Cutout, size: tuple[int, int]
) -> tuple[NDArray[np.uint8], Floats]:
    """Lay the product on the seller's photograph, cropped to ``size``: the picture (h, w, 3) and its cover (h, w).

    Raises :class:`NotFoundError`.
    """
    photo = on_blank(services.artworks.open(services.artworks.get(backdrop.artwork_id)).image((1, 1)))
    filled = photo.thumbnail_image(size[0], height=size[1], crop="centre", size="both")
    return on_photograph(cut, as_array(filled), (backdrop.across, backdrop.foot), backdrop.size)


def make_picture(services: Services, pair: Pair, shot: Shot, size: tuple[int, int], ending: str) -> MadeFile:
    """Return a listing picture's key, name and path. It is made unless it exists. Raises :class:`SceneError` and :class:`OutputError`."""
    if shot.clear and ending == "jpg":
        raise OutputError("A JPEG cannot be transparent: choose PNG or WebP.")
    name = picture_name(pair.art.title, shot.info.id, shot.name, size, ending)
    key = key_of(
        "picture",
        versions("mockups", "packs"),
        pair.subject,
        fingerprint(shot.info),
        pair.placement_key,
        name,
        shot.angle,
        shot.colours,
        repr((shot.grade, shot.camera, shot.captions, shot.measured, shot.close, shot.backdrop)),
        others_key(services, pair, shot),
    )

    def make(path: Path) -> None:
        xmp = xmp_packet(pair.title, picture_facts(services, pair, shot))
        data = encode(_finished(services, *lit_shot(services, pair, shot, size), shot), path.suffix, xmp=xmp)
        atomic_write(path, data)

    return keep_file(services, pair, "picture", key, name, make)


def others_key(services: Services, pair: Pair, shot: Shot) -> dict[str, Any]:
    """Return a hash of what a picture depends on beyond its own pair."""
    return {place: [other.subject, other.placement_key] for place, other in _other_works(services, pair, shot).items()}


def make_list(services: Services, pair: Pair, facts: list[dict[str, Any]]) -> str:
    """Write a JSON file that says what each picture shows, and return its key."""
    name = list_name(pair.art.title, pair.template.id)
    key = key_of("list of pictures", facts, name)
    data = json.dumps({"pictures": facts}, ensure_ascii=False, indent=2) + "\n"
    return keep_file(services, pair, "picture", key, name, lambda path: atomic_write(path, data.encode()))[0]


def make_sheet(services: Services, pair: Pair, files: list[MadeFile]) -> str:
    """Write a contact sheet of all pictures with their names, and return its key."""
    name = sheet_name(pair.art.title, pair.template.id)
    key = key_of("contact sheet", [key for key, _, _ in files], name)

    def make(path: Path) -> None:
        data = encode(contact_sheet([(name, path) for _, name, path in files], SHEET_PX), ".jpg")
        atomic_write(path, data)

    return keep_file(services, pair, "picture", key, name, make)[0]


def pictures_job(services: Services, parameters: dict[str, Any], progress: Progress) -> list[str]:
    """Run a job that makes every shot at every size, the JSON file and the contact sheet."""
    pair = services.pairs.load(parameters["artwork_id"], parameters["template_id"])
    mockup_settings = MockupSettings.model_validate(parameters["mockup_settings"])
    wanted = [(shot, size) for shot in shots_of(pair, mockup_settings) for size in mockup_settings.sizes]
    files, facts = [], list[dict[str, Any]]()
    for i, (shot, size) in enumerate(wanted):
        progress.at(i / len(wanted))
        files.append(make_picture(services, pair, shot, size, mockup_settings.format))
        facts.append({"file": files[-1][1], "px": size, **picture_facts(services, pair, shot)})
    sheet = [make_sheet(services, pair, files)] if mockup_settings.sheet else []
    return [*sheet, *(key for key, _, _ in files), *([make_list(services, pair, facts)] if mockup_settings.listed else [])]


def findings_of(pair: Pair, shots: list[Shot]) -> list[Finding]:
    """Return the findings on a set of pictures."""
    colours = [{name: colour for name, colour in shot.colours.items() if colour} for shot in shots]
    return picture_findings(pair.template, [shot.info for shot in shots], colours, {p.id for p in pair.printed})
