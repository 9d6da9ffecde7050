"""The demo's artworks have the content that the demo describes."""

import shutil
from pathlib import Path

import pytest

from improva.catalogue import template
from improva.core.design import Placement
from improva.core.preflight import run_preflight
from improva.core.press import common_figures, suggest
from improva.demo import BLANKET, TUMBLER, lay_out
from improva.store import ArtRow, Artworks, Database, Pairs, Pressings, Store
from improva.store.models.pieces import PIECES, FramesModel
from improva.web.presenters.selling import sale_out


@pytest.fixture(scope="module")
def database(tmp_path_factory: pytest.TempPathFactory, demo_folder: Path) -> Database:
    folder = tmp_path_factory.mktemp("demo")
    shutil.copytree(demo_folder, folder, dirs_exist_ok=True)
    return Database(folder)


@pytest.fixture(scope="module")
def board(database: Database) -> tuple[Artworks, Pairs]:
    return Artworks(database), Pairs(database)


def verdicts(board: tuple[Artworks, Pairs], row: ArtRow) -> dict[str, str]:
    artworks, pairs = board
    blank = template(TUMBLER)
    placement = pairs.get(row.id, TUMBLER).placements.get("wrap") or Placement()
    assert isinstance(placement, Placement)
    return {c.id: c.status for c in run_preflight(blank, blank.panel(), artworks.open(row).proxy(), placement).checks}


def test_every_demo_artwork_is_a_picture_with_content(board: tuple[Artworks, Pairs]) -> None:
    dusk, signals, conductor, timetable, ibex, tarn, ridges = board[0].all()
    assert set(verdicts(board, dusk).values()) == {"pass"}  # it closes by construction
    assert verdicts(board, signals)["seam-match"] == "pass" and signals.facts.vector
    assert conductor.facts.has_alpha and verdicts(board, conductor)["bare-edge"] == "pass"
    assert timetable.facts.px == (1786, 1574) and verdicts(board, timetable)["tag"] == "warn"
    assert verdicts(board, tarn)["resolution"] == "fail"
    assert verdicts(board, ridges)["colour-mode"] == "warn" and ridges.origin.print_on_demand is False
    assert [step.kind for step in ibex.preparation.active] == ["cut", "clean", "trim"]
    assert ibex.traits is not None and ibex.traits.kind == "drawing" and not ibex.facts.has_alpha


def test_the_demo_is_created_once(board: tuple[Artworks, Pairs]) -> None:
    artworks = board[0]
    artworks.set_removed(artworks.all()[0].id, True)
    lay_out(artworks._database)
    assert len(artworks.all()) == 6


def test_the_stored_drawings_match_their_code() -> None:
    from demo.draw import dusk, flags, ibex, marmot, timetable

    fonts = Path("frontend/node_modules/@fontsource/limelight")
    if not fonts.exists():
        pytest.fail("the drawings' fonts come with the page's packages: run 'make test'")
    for module in (dusk, flags, ibex, marmot, timetable):
        name = module.__name__.rpartition(".")[2]
        assert (Path("src/improva/demo") / f"{name}.svg").read_text() == module.draw()


def test_the_demo_blankets_pieces_are_stored_as_designed(board: tuple[Artworks, Pairs]) -> None:
    artworks, pairs = board
    conductor = next(row for row in artworks.all() if row.title == "The conductor")
    kept = PIECES.validate_python(pairs.get(conductor.id, BLANKET).pieces["front"])
    assert [piece.kind for piece in kept] == ["band", "words", "frames", "words"]
    frames = kept[2]
    assert isinstance(frames, FramesModel) and all(artworks.get(slot.art or 0) for slot in frames.slots)


def test_the_press_log_teaches_from_the_first_day(database: Database) -> None:
    log = [row.pressing for row in Pressings(database).log(TUMBLER, "gloss", "tumbler", "My tumbler press")]
    found = suggest(log, common_figures(template(TUMBLER), "tumbler"))
    assert (
        [entry.result for entry in log] == ["good", "usable"] and found.figures.main_s == 60 and found.figures.source == "log"
    )
    assert {item["template_id"] for item in database.setting("gang-sheet")["items"]} == {TUMBLER, "mug-11oz"}


def test_the_first_tumbler_is_priced_so_that_the_worst_case_is_no_loss(database: Database) -> None:
    state = sale_out(Store(database), 1, TUMBLER)
    assert state.known and state.problem is None and not any(case.loss for case in state.cases) and state.suggested
