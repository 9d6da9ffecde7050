"""Where a request meets the store and the core: pairs looked up, proofs kept, files made once."""

from __future__ import annotations

import threading
from collections.abc import Callable
from pathlib import Path
from typing import Any, NamedTuple

import numpy as np
import pyvips
from numpy.typing import NDArray

from ..catalogue import order
from ..catalogue import templates as shipped_templates
from ..core.artwork.pixels import PROXY_PX, Artwork
from ..core.artwork.traits import find_traits
from ..core.design import Laying, Placing
from ..core.errors import BadPlacing, BadTemplate
from ..core.mockup.composite import Lit
from ..core.mockup.drawn import cut_mask
from ..core.mockup.picture import encode, mock_up
from ..core.mockup.scene import Close, SceneInfo
from ..core.output import write_beside
from ..core.pieces import piece_box
from ..core.preflight import Subject, Verdict, judged, worst
from ..core.propose import propose
from ..core.render import on_blank, render, render_worn
from ..core.sewing.following import seam_of
from ..core.sewing.mismatch import apart_along
from ..core.sewing.seams import Follow
from ..core.template import Panel, Template
from ..fonts import font_bytes
from ..proofing import proof_report, proof_summary, template_report
from ..scenes import fingerprint, scenes_of, take_from
from ..store import (
    ArtRow,
    Artworks,
    Blanks,
    Calibrations,
    Database,
    Fonts,
    Listings,
    Looks,
    Made,
    MadeRow,
    Origins,
    OwnScenes,
    PairRow,
    Pairs,
    Placings,
    Preparations,
    Pressings,
    Providers,
    Records,
    Selling,
)
from ..store.database import key_of
from ..work.darkroom import Colours, Cut, Darkroom
from ..work.preparing import Preparing
from ..work.room import Kept, Room, megabytes
from .laying import Laid, lay
from .problems import NotHere
from .work import Work, plain

FIRST_ON_BOARD = (
    "tumbler-20oz-straight", "tumbler-20oz-tapered", "mug-11oz", "pillow-square", "blanket-upright", "garden-flag", "t-shirt",
)  # fmt: skip
"""Until a seller chooses, one of each kind of thing stands on the board."""

FOUND, SEEN_MB = 2000, 30.0
"""Judgements kept in memory, of single panels and of seams, and reduced print files: a change of one panel leaves the others'
standing."""
CELL_PX = (400, 400)
LOOK_QUALITY = 86


class Known(NamedTuple):
    """A blank as the desk knows it: with a hash of all that its proofs depend on, and one of its first scene."""

    template: Template
    key: str
    scene_key: str


class Desk:
    """All that the blueprints need of one data folder."""

    def __init__(self, database: Database, darkroom: Darkroom | None = None, described: bool = False) -> None:
        self.database = database
        self.described = described
        self.artworks = Artworks(self.database)
        self.pairs = Pairs(self.database)
        self.made = Made(self.database)
        self.blanks = Blanks(self.database)
        self.origins = Origins(self.database)
        self.calibrations = Calibrations(self.database)
        self.fonts = Fonts(self.database)
        self.pressings = Pressings(self.database)
        self.saved_looks = Looks(self.database)
        self.selling = Selling(self.database)
        self.providers = Providers(self.database)
        self.records = Records(self.database)
        self.listings = Listings(self.database)
        self.own_scenes = OwnScenes(self.database)
        take_from(self.own_scenes.folder)
        self.darkroom = darkroom or Darkroom()
        self.preparations = Preparations(self.database)
        self.preparing = Preparing(self.preparations, self.darkroom, self.original)
        self.found: Kept[Any] = Kept(Room(FOUND))
        self._seen: Kept[NDArray[np.uint8]] = Kept(Room(SEEN_MB, megabytes))
        self._templates: dict[str, Known] | None = None
        self._lock = threading.Lock()

    # Blanks

    def forget_templates(self) -> None:
        """Read the blanks anew: one was added, changed or judged by another limit."""
        self._templates = None

    def _known(self) -> dict[str, Known]:
        with self._lock:
            if self._templates is None:
                limits, profiles = self.blanks.limits(), self.blanks.profiles()
                found = [*shipped_templates().values(), *self.blanks.own()]
                judged = [t.with_limits(limits.get(t.id, {})) for t in found]
                self._templates = {
                    t.id: Known(t, key_of(template_report(t), profiles.get(t.id)), fingerprint(self.first_scene(t)))
                    for t in sorted(judged, key=order)
                }
            return self._templates

    def templates(self) -> dict[str, Template]:
        """Every blank by id, the seller's own included, each judged by the seller's limits."""
        return {key: known.template for key, known in self._known().items()}

    def template(self, template_id: str) -> Template:
        """A blank. Raises :class:`BadTemplate`."""
        try:
            return self._known()[template_id].template
        except KeyError:
            raise BadTemplate(f"There is no blank '{template_id}': choose one on the shelf of blanks.") from None

    def shipped_limits(self, template_id: str) -> dict[str, float]:
        """The limits that a blank brings along, without the seller's own."""
        shipped = shipped_templates().get(template_id)
        found = shipped or next((t for t in self.blanks.own() if t.id == template_id), None)
        return dict(found.limits) if found else {}

    def board_blanks(self) -> list[Template]:
        """The blanks on the board."""
        known = self.templates()
        return [known[i] for i in self.blanks.on_board() or FIRST_ON_BOARD if i in known]

    def profile(self, template: Template) -> bytes | None:
        """The printer's ICC profile for a blank, if the seller gave one."""
        found = self.blanks.file(template.id, "profile")
        return self.database.blob(found.sha256) if found else None

    # Pairs

    def dropped_art(self, artwork_id: int) -> ArtRow:
        """An artwork as it was dropped. Raises :class:`NotHere`."""
        row = self.artworks.get(artwork_id)
        if row is None:
            raise NotHere("This artwork is not on the board: go back and choose another.")
        return self._with_traits(row)

    def art(self, artwork_id: int) -> ArtRow:
        """An artwork as it is laid on blanks, prepared. Raises :class:`NotHere`."""
        return self.preparing.taken(self.dropped_art(artwork_id))

    def _with_traits(self, row: ArtRow) -> ArtRow:
        """An artwork kept by an earlier version is looked at once more."""
        if row.traits is None:
            self.artworks.set_traits(row.id, find_traits(self.proxy(row)))
            row = self.artworks.get(row.id) or row
        return row

    def all_art(self) -> list[ArtRow]:
        """Every artwork on the board, prepared."""
        return [self.preparing.taken(self._with_traits(row)) for row in self.artworks.all()]

    def pair(self, art: ArtRow, template: Template, row: PairRow) -> Work:
        """A pair from its parts."""
        assert art.traits is not None, "artworks come with their traits from this desk"
        proposals = {p.id: propose(template, p, art.facts, art.traits) for p in template.panels}
        laid = {panel: self.lay(pieces) for panel, pieces in row.pieces.items()}
        corrections = self.calibrations.now(template.id) if template.seams else {}
        return Work(art, template, self._known()[template.id].key, row, proposals, laid, corrections)

    def lay(self, pieces: list[dict[str, Any]]) -> Laid:
        """Pieces made ready. Raises an error of ours where they cannot be."""
        return lay(pieces, self.art, self.font)

    def font(self, key: str) -> bytes:
        """A font's file: one that ships, or one of the seller's own. Raises :class:`BadFont`."""
        return self.fonts.data(key) or font_bytes(key)

    def work(self, artwork_id: int, template_id: str) -> Work:
        """A pair. Raises :class:`NotHere` or :class:`BadTemplate`."""
        return self.pair(self.art(artwork_id), self.template(template_id), self.pairs.get(artwork_id, template_id))

    def original(self, art: ArtRow) -> Artwork:
        """The artwork with its bytes: as it was dropped, or prepared, as the row has it."""
        return self.artworks.open(art)

    def proxy(self, art: ArtRow) -> Artwork:
        """The artwork's proxy."""
        return self.darkroom.proxy(art.sha256, lambda: self.original(art))

    # Proofs

    def judge(self, work: Work, panel: Panel, laying: Laying) -> dict[str, Any]:
        """The proof of a placing on one panel, also one that is still in the hand; it is not kept."""
        subject = self.subject(work, panel, laying)
        boxes = [piece_box(extra, panel, subject.fonts) for extra in subject.extras]
        proof = judged(subject, self._along_seam(work, panel, laying, subject))
        return {**proof_report(work.template, panel, work.art.facts, proof), "pieces": boxes}

    def _along_seam(self, work: Work, panel: Panel, laying: Laying, subject: Subject) -> tuple[Verdict, ...]:
        """What is found along the seam that a panel follows; nothing where it follows none."""
        if not isinstance(laying, Follow):
            return ()
        seam = seam_of(work.template, laying.seam)
        leader = work.template.panel(seam.leader)
        beneath = work.laying(leader)
        assert beneath is not None, "a panel that follows an empty one is not judged"
        labs = self.subject(work, leader, beneath).file_lab, subject.file_lab
        return work.runs_on(panel, laying, apart_along(seam, work.template, work.corrections, labs))

    def subject(self, work: Work, panel: Panel, laying: Laying) -> Subject:
        """A panel as the checks look at it. Raises :class:`BadPlacing` where what it follows is empty."""
        art, profile = work.art, self.profile(work.template)
        if isinstance(laying, Follow):
            led = work.design(panel, laying).led
            if led is None or not led.design.carries:
                raise BadPlacing("What this panel follows is empty: lay the artwork there first.")
            arts = {art.sha256: art, **work.laid_on(led.design.panel).arts}
            return Subject(work.template, panel, self.proxy(art), led.design.pieces[0].placing, profile, art.traits, art.origin,
                           art.altered, others={key: self.proxy(row) for key, row in arts.items()}, led=led)  # fmt: skip
        laid = work.laid_on(panel)
        return Subject(
            work.template, panel, self.proxy(art), laying, profile, art.traits, art.origin,
            art.altered or bool(laid.extras), laid.extras, laid.fonts,
            {key: self.proxy(row) for key, row in laid.arts.items()},
        )  # fmt: skip

    def proof(self, work: Work) -> dict[str, Any]:
        """The proofs of every printed panel and the gravest verdict, made once and kept for good."""

        def make() -> dict[str, Any]:
            reports = {p.id: self._report(work, p, laying) for p in work.printed if (laying := work.laying(p))}
            return {"verdict": worst([r["verdict"] for r in reports.values()]), "panels": reports}

        return self.made.proof(work.proof_key, make, proof_summary)

    def _report(self, work: Work, panel: Panel, laying: Laying) -> dict[str, Any]:
        """The proof of one panel as it is decided, made once."""
        return dict(self.found.get(work.panel_key(panel), lambda: self.judge(work, panel, laying)))

    def seen(self, work: Work, panel: Panel, laying: Laying) -> NDArray[np.uint8]:
        """The reduced print file of a panel as it is decided, on the blank's colour, (h, w, 3); made once."""
        return self._seen.get(work.panel_key(panel), lambda: self.subject(work, panel, laying).seen)

    # Pictures

    def first_scene(self, template: Template) -> SceneInfo:
        """The scene a blank is shown in at first."""
        return scenes_of(template)[0]

    def cell_key(self, work: Work) -> str:
        """A hash of all that the board's picture of a pair depends on."""
        return key_of(
            "cell",
            CELL_PX,
            work.subject,
            self._known()[work.template.id].scene_key,
            work.placing_key,
            work.row.angle,
            work.row.colours,
        )

    def cut(self, work: Work, held: Placings, art: Artwork) -> Cut | None:
        """The contour that a blank cut to its artwork's shape has, as a drawn scene needs it."""
        panel = work.template.panels[0]
        if panel.shape != "cutout":
            return None
        placing = {**work.placings, **held}[panel.id]
        key = key_of(work.subject, plain({panel.id: placing}), work.laid_on(panel).key)
        return Cut(key, lambda: cut_mask(work.design(panel, placing), work.opener(art, self.proxy)))

    def look(self, work: Work, held: Placings, info: SceneInfo, angle: float, colours: Colours, size: tuple[int, int],
             close: Close = "", mirrored: bool = False) -> bytes:  # fmt: skip
        """A quick JPEG of what is in the hand, from the proxy."""
        lit = self.darkroom.lit(info, size, colours, close, mirrored, self.quick_cut(work, held))
        art = self.quick_art(work, held, lit)
        picture = mock_up(lit, work.designs(held), work.opener(art, self.proxy), angle)
        return encode(picture, ".jpg", quality=LOOK_QUALITY)

    def quick_cut(self, work: Work, held: Placings) -> Cut | None:
        """The contour of a cut-out, from the small proxy."""
        return self.cut(work, held, self.darkroom.small_proxy(work.art.sha256, lambda: self.original(work.art)))

    def quick_art(self, work: Work, held: Placings, lit: Lit) -> Artwork:
        """As much of the artwork as a look can show."""
        largest = max((p.scale for p in held.values() if isinstance(p, Placing) and p.fit != "repeat"), default=1.0)
        longest = max(px for seen in lit.view.maps.values() for px in seen.texture_px) * max(1.0, largest)
        if longest > PROXY_PX // 2:
            return self.proxy(work.art)
        return self.darkroom.small_proxy(work.art.sha256, lambda: self.original(work.art))

    def cell(self, work: Work) -> bytes:
        """The board's small picture of a pair, made once and kept."""
        path = self.database.made_path(self.cell_key(work), ".jpg")
        if not path.exists():
            info = self.first_scene(work.template)
            picture = self.look(work, work.placings, info, work.row.angle, work.row.colours, CELL_PX, close=info.close)
            write_beside(path, picture)
        return path.read_bytes()

    def flat(self, work: Work, panel: Panel, laying: Laying | None, width: int) -> pyvips.Image:
        """The print file reduced to a width, as it will be: bent, repeated, cut."""
        w, h = panel.file_mm
        size = (width, max(1, round(width * h / w)))
        return render(work.design(panel, laying), work.opener(self.proxy(work.art), self.proxy), size)

    def butted(self, work: Work, panel: Panel, laying: Laying, side_mm: float, px_mm: float) -> pyvips.Image:
        """Both ends of a wrap side by side on the blank's colour, its right end at the left: what the seam will show."""
        worn = panel.worn()
        size = (max(2, round(worn.file_mm[0] * px_mm)), max(2, round(worn.file_mm[1] * px_mm)))
        art = self.original(work.art)
        image = on_blank(
            render_worn(work.design(panel, laying), work.opener(art, self.original), size), work.template.blank_colour
        ).copy_memory()
        bleed = round(worn.bleed_mm * px_mm)
        side = min(round(side_mm * px_mm), (image.width - 2 * bleed) // 2)
        height = image.height - 2 * bleed
        right = image.crop(image.width - bleed - side, bleed, side, height)
        return right.join(image.crop(bleed, bleed, side, height), "horizontal")

    # Files

    def keep(self, row: MadeRow, work: Work, make: Callable[[Path], None]) -> Path:
        """The file of that key, made now if it is not there."""
        return self.made.file(row, work.art.id, work.template.id, make)
