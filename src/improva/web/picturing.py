"""A pair's listing pictures and films: made once each, saying what they show."""

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
from ..core.errors import BadOutput
from ..core.mockup.composite import Lit, composite, turned
from ..core.mockup.contact import contact_sheet
from ..core.mockup.cutout import Cutout, cut_out, on_photograph, transparent
from ..core.mockup.film import check_turns, turning, write_film
from ..core.mockup.grade import graded
from ..core.mockup.honest import Finding, picture_findings
from ..core.mockup.labels import Box, captioned, measured
from ..core.mockup.picture import encode, print_texture
from ..core.mockup.view import View
from ..core.output import Watch, film_name, list_name, picture_name, sheet_name, write_beside
from ..core.output.xmp import xmp_packet
from ..core.render import on_blank
from ..scenes import fingerprint
from ..store import ArtRow, MadeRow, Placings
from ..store.database import key_of
from .desk import LOOK_QUALITY, Desk
from .shots import Shot, shot_of, shots_of
from .show_shapes import BackdropBody, FilmBody, ShotBody, Showing
from .work import Work

SHEET_PX = 640
CLEAR_GROUND = (241, 238, 231)


def says(desk: Desk, work: Work, shot: Shot) -> dict[str, str]:
    """What a picture shows, in words."""
    chosen = [
        f"{r.title}: {shot.colours.get(r.id) or r.default or r.surface or 'as it is'}" for r in shot.info.regions if not r.panel
    ]
    told = {"design": work.art.title, "artwork": work.art.sha256, "blank": work.template.title, "template": work.template.id,
            "scene": shot.info.id, "view": shot.view, "colours": "; ".join(chosen)}  # fmt: skip
    others = [f"{shot.info.region(place).place}: {other.art.title}" for place, other in _other_works(desk, work, shot).items()]
    return {**told, "others": "; ".join(others)} if others else told


def _lit(desk: Desk, work: Work, shot: Shot, size: tuple[int, int]) -> tuple[Lit, dict[str, Floats]]:
    """A shot's lit view and its prints, from the artwork as it came."""
    original = desk.original(work.art)
    lit = desk.darkroom.lit(
        shot.info, size, shot.colours, "detail" if shot.close else "", shot.mirrored, desk.cut(work, {}, original)
    )
    prints = print_texture(work.designs(), work.opener(original, desk.original), lit.view)
    return graded(lit, shot.grade), {**prints, **_others(desk, work, shot, lit.view, desk.original)}


def _other_works(desk: Desk, work: Work, shot: Shot) -> dict[str, Work]:
    """The pairs that a shot shows in its other places. Raises :class:`NotHere` for an artwork that is gone."""
    return {place: desk.work(art, work.template.id) for place, art in shot.places.items()}


def _others(desk: Desk, work: Work, shot: Shot, view: View, open_art: Callable[[ArtRow], Artwork]) -> dict[str, Floats]:
    """Prints of places that show another artwork, each with its own front to the front."""
    prints = {}
    for place, other in _other_works(desk, work, shot).items():
        laid = print_texture(other.designs(), other.opener(open_art(other.art), open_art), view)[place]
        turn = shot.info.region(place).turn if shot.info.turns else 0.0
        prints[place] = turned(laid, -turn) if turn else laid
    return prints


def quick_look(desk: Desk, work: Work, held: Placings, shot: Shot, size: tuple[int, int]) -> bytes:
    """A quick JPEG of a shot with what is in the hand: light, ground, words and measures as they will be."""
    lit = desk.darkroom.lit(
        shot.info, size, shot.colours, "detail" if shot.close else "", shot.mirrored, desk.quick_cut(work, held)
    )
    art = desk.quick_art(work, held, lit)
    prints = print_texture(work.designs(held), work.opener(art, desk.proxy), lit.view)
    prints.update(_others(desk, work, shot, lit.view, desk.proxy))
    shown = replace(shot, measured=shot.measured and bool(shot.info.measures))
    try:
        picture = _finished(desk, graded(lit, shot.grade), prints, shown)
    except BadOutput:  # words find no room at this size, and are told of when the picture is made
        picture = _finished(desk, graded(lit, shot.grade), prints, replace(shown, captions=()))
    if picture.shape[2] == 4:  # what is clear lies on paper
        share = picture[..., 3:].astype(np.float32) / 255
        picture = (picture[..., :3] * share + np.array(CLEAR_GROUND, np.float32) * (1 - share) + 0.5).astype(np.uint8)
    return encode(picture, ".jpg", quality=LOOK_QUALITY)


def _finished(desk: Desk, lit: Lit, prints: dict[str, Floats], shot: Shot) -> NDArray[np.uint8]:
    """The picture of a shot with all that lies on it and behind it."""
    cover, boxes = lit.view.cover, list[Box]()
    if shot.clear:
        picture = transparent(cut_out(lit, prints, shot.angle))
    elif shot.backdrop:
        picture, cover = on_backdrop(desk, shot.backdrop, cut_out(lit, prints, shot.angle), lit.view.size)
    else:
        picture = np.asarray(composite(lit, prints, shot.angle)[..., ::-1])
    if shot.measured and not shot.backdrop:
        picture, boxes = measured(picture, lit.view, shot.mirrored, desk.font)
    return captioned(picture, shot.captions, cover, desk.font, boxes)


def on_backdrop(desk: Desk, asked: BackdropBody, cut: Cutout, size: tuple[int, int]
                ) -> tuple[NDArray[np.uint8], Floats]:  # fmt: skip
    """The product on a photograph of the seller's, cropped to the picture's proportions, and its cover. Raises :class:`NotHere`."""
    photo = on_blank(desk.original(desk.art(asked.artwork_id)).image((1, 1)))
    filled = photo.thumbnail_image(size[0], height=size[1], crop="centre", size="both")
    return on_photograph(cut, as_array(filled), (asked.across, asked.foot), asked.size)


def make_picture(desk: Desk, work: Work, shot: Shot, size: tuple[int, int], ending: str) -> tuple[str, str, Path]:
    """A listing picture, made now if it is not kept: key, name, path. Raises :class:`BadScene` and :class:`BadOutput`."""
    if shot.clear and ending == "jpg":
        raise BadOutput("A JPEG cannot be transparent: choose PNG or WebP.")
    name = picture_name(work.art.title, shot.info.id, shot.name, size, ending)
    key = key_of(
        "picture", work.subject, fingerprint(shot.info), work.placing_key, name, shot.angle, shot.colours,
        repr((shot.grade, shot.captions, shot.measured, shot.close, shot.backdrop)), _others_key(desk, work, shot),
    )  # fmt: skip

    def make(path: Path) -> None:
        xmp = xmp_packet(f"{work.art.title} on {work.template.title}", says(desk, work, shot))
        data = encode(_finished(desk, *_lit(desk, work, shot, size), shot), path.suffix, xmp=xmp)
        write_beside(path, data)

    return key, name, desk.keep(MadeRow(key, "picture", work.placing_key, name), work, make)


def _others_key(desk: Desk, work: Work, shot: Shot) -> dict[str, Any]:
    """What a picture depends on beyond its own pair."""
    return {place: [other.subject, other.placing_key] for place, other in _other_works(desk, work, shot).items()}


def make_list(desk: Desk, work: Work, told: list[dict[str, Any]]) -> str:
    """What each picture shows, as a JSON file; answers with its key."""
    name = list_name(work.art.title, work.template.id)
    key = key_of("list of pictures", told, name)
    data = json.dumps({"pictures": told}, ensure_ascii=False, indent=2) + "\n"
    desk.keep(MadeRow(key, "picture", work.placing_key, name), work, lambda path: write_beside(path, data.encode()))
    return key


def make_sheet(desk: Desk, work: Work, made: list[tuple[str, str, Path]]) -> str:
    """All pictures small on one sheet, each with its name; answers with its key."""
    name = sheet_name(work.art.title, work.template.id)
    key = key_of("contact sheet", [key for key, _, _ in made], name)

    def make(path: Path) -> None:
        data = encode(contact_sheet([(name, path) for _, name, path in made], SHEET_PX), ".jpg")
        write_beside(path, data)

    desk.keep(MadeRow(key, "picture", work.placing_key, name), work, make)
    return key


def pictures_job(desk: Desk, asked: dict[str, Any], watch: Watch) -> list[str]:
    """Do a job of picturing: every shot at every size, and what goes with them."""
    work = desk.work(asked["artwork_id"], asked["template_id"])
    showing = Showing.model_validate(asked["showing"])
    wanted = [(shot, size) for shot in shots_of(work, showing) for size in showing.sizes]
    made, told = [], list[dict[str, Any]]()
    for i, (shot, size) in enumerate(wanted):
        watch.at(i / len(wanted))
        made.append(make_picture(desk, work, shot, size, showing.format))
        told.append({"file": made[-1][1], "px": size, **says(desk, work, shot)})
    sheet = [make_sheet(desk, work, made)] if showing.sheet else []
    return [*sheet, *(key for key, _, _ in made), *([make_list(desk, work, told)] if showing.listed else [])]


def film_job(desk: Desk, asked: dict[str, Any], watch: Watch) -> list[str]:
    """Do a job of filming."""
    work = desk.work(asked["artwork_id"], asked["template_id"])
    return [make_film(desk, work, FilmBody.model_validate(asked["film"]), Showing.model_validate(asked["showing"]), watch)[0]]


def make_film(desk: Desk, work: Work, film: FilmBody, showing: Showing, watch: Watch) -> tuple[str, str, Path]:
    """A film of a turn, made now if it is not kept: key, name, path. Raises :class:`BadScene`."""
    shot = shot_of(work, ShotBody(scene_id=film.scene_id), showing)
    check_turns(shot.info)
    name = film_name(work.art.title, shot.info.id, film.seconds, film.size, film.format)
    key = key_of("film", work.subject, fingerprint(shot.info), work.placing_key, name, shot.colours, repr(shot.grade),
                 _others_key(desk, work, shot))  # fmt: skip

    def make(path: Path) -> None:
        lit, prints = _lit(desk, work, shot, film.size)
        write_film(path, turning(lit, prints), film.seconds, watch)

    return key, name, desk.keep(MadeRow(key, "picture", work.placing_key, name), work, make)


def findings_of(work: Work, shots: list[Shot]) -> list[Finding]:
    """What is to be said about a set of pictures."""
    colours = [{name: colour for name, colour in shot.colours.items() if colour} for shot in shots]
    return picture_findings(work.template, [shot.info for shot in shots], colours, {p.id for p in work.printed})
