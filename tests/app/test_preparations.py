"""Preparations: equal steps are computed once, unsaved steps run on small copies, and the board stays responsive."""

from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from improva.app.artworks import ArtworkLibrary
from improva.app.render_cache import RenderCache
from improva.core.artwork.pixels import Artwork
from improva.core.artwork.traits import find_traits
from improva.core.errors import StepError
from improva.core.preparation import Preparation, Step
from improva.sandbox import Here
from improva.store import ArtRow, Artworks, Database, Fonts, Origins, Preparations, Store
from tests.conftest import art_of, encoded, quadrants
from tests.core.preparation.test_cut import disc, on_paper

CUT, BORDER = Step("cut"), Step("border", {"mm": 3})


class CountingLibrary(ArtworkLibrary):
    """An artwork library that counts how often a file was opened."""

    opened = 0

    def open(self, art: ArtRow) -> Artwork:
        self.opened += 1
        return super().open(art)


class Room:
    """A data folder with one scan."""

    def __init__(self, folder: Path, art: Artwork) -> None:
        self.database = Database(folder)
        self.artworks = Artworks(self.database)
        self.id = self.artworks.add("Scan", "scan.png", art, find_traits(art)).id
        self.preparations = Preparations(self.database)
        self.library = self.open_library()
        self.preparing = self.library.preparations

    def open_library(self) -> CountingLibrary:
        return CountingLibrary(Store(self.database), RenderCache(), Here())

    @property
    def opened(self) -> int:
        return self.library.opened

    @property
    def row(self) -> ArtRow:
        found = self.artworks.get(self.id)
        assert found is not None
        return found


@pytest.fixture
def room(tmp_path: Path) -> Room:
    return Room(tmp_path, art_of(on_paper(disc((20, 30, 60), size=600, radius=200)).pixels[..., :3], dpi=(254, 254)))


def test_equal_steps_run_once_and_their_result_survives_a_restart(room: Room) -> None:
    preparation = Preparation((CUT, BORDER))
    first = room.preparing.make(room.row, preparation)
    opened = room.opened
    assert room.preparing.make(room.row, Preparation((CUT, Step("trim", on=False), BORDER))) == first, (
        "what is off is not there"
    )
    assert room.opened == opened
    again = room.open_library()
    assert again.preparations.make(room.row, preparation) == first and again.opened == 0
    assert room.database.blob(first.sha256)[:4] == b"\x89PNG"


def test_steps_being_edited_reuse_the_results_before_them(room: Room) -> None:
    held = room.preparing.preview(room.row, Preparation((CUT, BORDER)))
    opened = room.opened
    wider = room.preparing.preview(room.row, Preparation((CUT, Step("border", {"mm": 6}))))
    assert wider.pixels.shape[0] > held.pixels.shape[0] and room.opened == opened
    assert room.preparing.preview(room.row, Preparation((CUT, BORDER))) is held


def test_preparing_an_artwork_keeps_its_original(room: Room) -> None:
    before = room.row
    room.preparations.decide(room.id, Preparation((CUT,)))
    taken = room.preparing.prepared(room.row)
    assert (
        taken.sha256 != before.sha256 and taken.facts.has_alpha and taken.traits is not None and taken.traits.kind == "cutout"
    )
    assert room.row.sha256 == before.sha256 and room.artworks.open(room.row).data == room.database.blob(before.sha256)


def test_steps_that_no_longer_apply_are_reported_and_kept(room: Room) -> None:
    room.preparations.decide(room.id, Preparation((BORDER,)))  # decided by an earlier version, say
    taken = room.preparing.prepared(room.row)
    assert taken.sha256 == room.row.sha256
    assert "shown as imported: This picture has no transparent ground" in taken.facts.notes[-1]
    with pytest.raises(StepError):
        room.preparing.make(room.row, room.row.preparation)


def test_the_palette_is_measured_on_the_prepared_artwork(room: Room) -> None:
    assert room.preparing.palette(room.row)[0] == "#f3ecdc"
    room.preparations.decide(room.id, Preparation((CUT,)))
    assert "#f3ecdc" not in room.preparing.palette(room.preparing.prepared(room.row))


@pytest.mark.parametrize("kind", ["16 bit", "CMYK", "grey", "palette", "turned by tag", "animated"])
def test_every_kind_of_file_is_prepared_upright_in_srgb(tmp_path: Path, kind: str) -> None:
    """Steps receive upright 8-bit sRGB, whatever the file contains."""
    picture = Image.fromarray(quadrants(200, 120))
    if kind == "16 bit":
        data = encoded(Image.fromarray(np.asarray(picture.convert("L")).astype(np.uint16) * 257))
    elif kind == "CMYK":
        data = encoded(picture.convert("CMYK"), "JPEG")
    elif kind == "grey":
        data = encoded(picture.convert("L"))
    elif kind == "palette":
        data = encoded(picture.quantize(8))
    elif kind == "turned by tag":
        exif = Image.Exif()
        exif[0x0112] = 6
        data = encoded(picture, "JPEG", exif=exif)
    else:
        data = encoded(picture.quantize(8), "GIF", save_all=True, append_images=[Image.new("P", picture.size)])
    room = Room(tmp_path, Artwork.read(data))
    made = room.preparing.make(room.row, Preparation((Step("turn", {"degrees": 180}),)))
    turned = Artwork(room.database.blob(made.sha256), made.facts).image().numpy()
    assert turned.shape[:2] == ((200, 120) if kind == "turned by tag" else (120, 200))
    assert turned.dtype == np.uint8 and made.facts.mode == "RGB, 8 bit"
    first = turned[-8, -8, :3].astype(int)  # what stood at the upper left, once upright
    expected = {"turned by tag": (30, 60, 200)}.get(kind, (220, 30, 30))
    if kind in ("16 bit", "grey"):
        assert abs(int(first[0]) - round(0.299 * 220 + 0.587 * 30 + 0.114 * 30)) <= 4
    else:
        assert np.abs(first - expected).max() <= (60 if kind == "CMYK" else 12)


def test_fonts_and_licence_records_are_stored(tmp_path: Path) -> None:
    database = Database(tmp_path)
    fonts, artworks, origins = Fonts(database), Artworks(database), Origins(database)
    row = fonts.add(b"a font's bytes", "A font", "a.ttf")
    assert fonts.add(b"a font's bytes", "Again", "b.ttf").sha256 == row.sha256
    assert [font.title for font in Fonts(Database(tmp_path)).all()] == ["A font"]
    assert fonts.data(row.sha256) == b"a font's bytes" and fonts.data("0" * 64) is None
    art = art_of(quadrants(40, 40))
    aside = artworks.add("Photo", "p.png", art, find_traits(art), aside=True)
    assert artworks.all() == [] and artworks.get(aside.id) is not None
    origins.keep_licence(aside.id, b"licence", "l.txt")
    assert origins.licence(aside.id) is not None
    origins.drop_licence(aside.id)
    assert origins.licence(aside.id) is None
