"""Where a request meets the store and the core: pairs looked up, proofs kept, files made once."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Any

from .. import __version__
from ..catalogue import template as find_template
from ..core.artwork.pixels import PROXY_PX, Artwork
from ..core.design import Design, Piece, Placing
from ..core.errors import BadScene
from ..core.mockup.pack import SceneInfo
from ..core.mockup.picture import encode, mock_up
from ..core.output import beside, picture_name, print_name, write_print_file
from ..core.preflight import prove
from ..core.template import Template
from ..proofing import proof_report, template_report
from ..scenes import fingerprint, scenes_of
from ..scenes import scene as find_scene
from ..store import ArtRow, Artworks, Database, Made, MadeRow, PairRow, Pairs
from ..store.database import key_of
from ..store.pairs import placing_to_dict
from ..work.darkroom import Colours, Darkroom
from .problems import NotHere


@dataclass(frozen=True)
class Work:
    """A pair as loaded: the artwork, the blank, what was decided, and the placing that holds."""

    art: ArtRow
    template: Template
    row: PairRow
    placing: Placing

    @property
    def route(self) -> str:
        """How it is printed: decided here, or the blank's own."""
        return self.row.route or self.template.route

    @property
    def subject(self) -> list[Any]:
        """What every result depends on: this program, the art's content, and the blank's figures."""
        return [__version__, self.art.sha256, template_report(self.template)]

    def placing_key(self, placing: Placing | None = None) -> str:
        """A hash of a placing."""
        return key_of(placing_to_dict(placing or self.placing))

    @property
    def proof_key(self) -> str:
        """A hash of all that the proof of what was decided depends on."""
        return key_of("proof", self.subject, placing_to_dict(self.placing))

    def design(self, placing: Placing | None = None) -> Design:
        """The pair as a design on the blank's first panel."""
        piece = Piece(self.art.sha256, self.art.facts.size, placing or self.placing)
        return Design(self.template, self.template.panel(), (piece,))


class Desk:
    """All that the blueprints need of one data folder."""

    def __init__(self, folder: Path) -> None:
        self.database = Database(folder)
        self.artworks = Artworks(self.database)
        self.pairs = Pairs(self.database)
        self.made = Made(self.database)
        self.darkroom = Darkroom()

    def art(self, artwork_id: int) -> ArtRow:
        """An artwork. Raises :class:`NotHere`."""
        row = self.artworks.get(artwork_id)
        if row is None:
            raise NotHere("This artwork is not on the board: go back and choose another.")
        return row

    def work(self, artwork_id: int, template_id: str) -> Work:
        """A pair. Raises :class:`NotHere` or :class:`BadTemplate`."""
        art, template = self.art(artwork_id), find_template(template_id)
        row = self.pairs.get(artwork_id, template_id)
        return Work(art, template, row, row.placing or Placing(fit=template.default_fit))  # type: ignore[arg-type]

    def original(self, art: ArtRow) -> Artwork:
        """The artwork as it was dropped."""
        return self.artworks.open(art)

    def proxy(self, art: ArtRow) -> Artwork:
        """The artwork's proxy."""
        return self.darkroom.proxy(art.sha256, lambda: self.original(art))

    def judge(self, work: Work, placing: Placing) -> dict[str, Any]:
        """The proof of a placing that is still in the hand; it is not kept."""
        found = prove(work.template, work.template.panel(), self.proxy(work.art), placing)
        return proof_report(work.template, work.template.panel(), work.art.facts, found)

    def kept_proof(self, work: Work) -> dict[str, Any] | None:
        """The proof of what was decided if it was made before, else None."""
        return self.made.kept_proof(work.proof_key)

    def proof(self, work: Work) -> dict[str, Any]:
        """The proof of what was decided, made once and kept for good."""
        return self.made.proof(work.proof_key, lambda: self.judge(work, work.placing))

    def first_scene(self, template: Template) -> SceneInfo:
        """The scene a blank is shown in at first. Raises :class:`BadScene` if there is none."""
        found = scenes_of(template.id)
        if not found:
            raise BadScene(f"No scene shows {template.title} yet: add a scene pack of your own.")
        return found[0]

    def cell_key(self, work: Work) -> str:
        """A hash of all that the board's picture of a pair depends on."""
        scene = fingerprint(self.first_scene(work.template).id)
        return key_of("cell", work.subject, scene, work.placing_key(), work.row.angle, work.row.colours)

    def look(self, work: Work, placing: Placing, angle: float, colours: Colours, size: tuple[int, int], close: bool = False
             ) -> bytes:  # fmt: skip
        """A quick JPEG of a placing in the blank's first scene, from the proxy."""
        lit = self.darkroom.lit(self.first_scene(work.template).id, size, colours, close)
        longest = max(px for seen in lit.view.maps.values() for px in seen.texture_px) * max(1.0, placing.scale)
        ready = self.darkroom.small_proxy if longest <= PROXY_PX // 2 else self.darkroom.proxy
        art = ready(work.art.sha256, lambda: self.original(work.art))
        picture = mock_up(lit, work.design(placing), lambda _: art, angle)
        return encode(picture, ".jpg", quality=86)

    def print_file(self, work: Work, ending: str, dpi: float) -> tuple[str, Path]:
        """The print file of a pair as its route wants it: (key, path)."""
        mirror, panel = work.route == "press", work.template.panel()
        name = print_name(work.art.title, work.template.id, panel, dpi, mirror, ending)
        key = key_of("print", work.subject, placing_to_dict(work.placing), name)
        original = self.original(work.art)

        def make(path: Path) -> None:
            write_print_file(work.design(), lambda _: original, path, dpi=dpi, mirror=mirror)

        return key, self._keep(MadeRow(key, "print", work.placing_key(), name), work, make)

    def picture(self, work: Work, scene_id: str, size: tuple[int, int], angle: float, view: str, ending: str
                ) -> tuple[str, Path]:  # fmt: skip
        """A listing picture of a pair with its chosen colours: (key, path)."""
        info = find_scene(scene_id)
        name = picture_name(work.art.title, info.id, view, size, ending)
        key = key_of(
            "picture", work.subject, fingerprint(info.id), placing_to_dict(work.placing), name, angle, work.row.colours
        )
        original = self.original(work.art)

        def make(path: Path) -> None:
            lit = self.darkroom.lit(info.id, size, work.row.colours)
            with beside(path) as temporary:
                temporary.write_bytes(encode(mock_up(lit, work.design(), lambda _: original, angle), path.suffix))

        return key, self._keep(MadeRow(key, "picture", work.placing_key(), name), work, make)

    def _keep(self, row: MadeRow, work: Work, make: Any) -> Path:
        return self.made.file(row, work.art.id, work.template.id, make)
