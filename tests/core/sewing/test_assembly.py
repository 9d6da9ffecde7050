"""The picture of a sewn blank against the uncut design, and the whole set from a shell."""

import io
import zipfile
from dataclasses import replace
from pathlib import Path

import cv2
import numpy as np
import pikepdf
import pytest
from click.testing import CliRunner
from PIL import Image

from improva.catalogue import template
from improva.cli import main
from improva.core.design import Design, LinkedPanel, Piece, Placement
from improva.core.fit import place
from improva.core.render.picture import render_picture
from improva.core.sewing.assembly import laid_flat
from improva.core.sewing.assembly_picture import assembly
from improva.core.sewing.linked_panels import first_leader, linked_designs
from improva.core.sewing.seams import Follow
from tests.conftest import art_of, encoded

TOTE = template("tote-gusset")


def soft(w: int, h: int) -> np.ndarray:
    rng = np.random.default_rng(4)
    return cv2.resize(rng.integers(0, 255, (h // 40, w // 40, 3), np.uint8), (w, h), interpolation=cv2.INTER_CUBIC)


def test_the_assembled_picture_equals_the_uncut_design() -> None:
    """A bag whose gusset and back follow its front, unfolded, equals one picture drawn across all of them."""
    art = art_of(soft(1600, 2400))
    front = TOTE.panel("front")
    placement = Placement("cover", scale=3.2, shift_mm=(0.0, 240.0))
    own = Design(TOTE, front, (Piece("art", art.facts.size, placement),))
    follows = {"gusset": Follow("bottom-front"), "back": Follow("bottom-back")}
    designs = {"front": own}
    for name in follows:
        found = first_leader(TOTE, TOTE.panel(name), follows, {})
        assert found and found.leader == "front"
        designs[name] = Design(TOTE, TOTE.panel(name), (), linked=LinkedPanel(own, found.motion))
    seen = assembly(TOTE, designs, lambda _: art, {}, 1200).astype(float)
    lies = laid_flat(TOTE, TOTE.faces[0], {})
    points = np.concatenate([motion(TOTE.panel(name).line()) for name, motion in lies.items()])
    low, high = points.min(axis=0), points.max(axis=0)
    air = 0.04 * (high - low).max()
    px_mm = 1200 / (high[0] - low[0] + 2 * air)
    # the uncut design: the front's plane drawn as one panel as large as all of it
    window = (float(low[0]), float(low[1]), float(high[0] - low[0]), float(high[1] - low[1]))
    size = (round(window[2] * px_mm), round(window[3] * px_mm))
    placed = place(front, art.facts.size, placement)
    direct = render_picture(art, placed, replace(front, window_mm=window), size, exact=True).numpy()[..., :3].astype(float)
    x0, y0 = round(air * px_mm), round(air * px_mm)
    for name in ("front", "gusset", "back"):
        corner, far = (
            (lies[name](TOTE.panel(name).line()).min(axis=0) - low),
            (lies[name](TOTE.panel(name).line()).max(axis=0) - low),
        )
        a, b = (corner * px_mm).astype(int) + 4, (far * px_mm).astype(int) - 4
        part = seen[y0 + a[1] : y0 + b[1], x0 + a[0] : x0 + b[0]]
        want = direct[a[1] : b[1], a[0] : b[0]]
        assert np.abs(part - want).mean() < 3.0, name


def test_panels_follow_as_their_template_says() -> None:
    art = art_of(soft(400, 400))
    designs = linked_designs(TOTE, lambda panel: Design(TOTE, panel, (Piece("a", art.facts.size, Placement("cover")),)))
    assert designs["gusset"].linked and designs["gusset"].linked.design.panel.id == "front"
    assert designs["back"].linked is None and designs["back"].pieces


@pytest.mark.parametrize("ending", [".zip", ".png"])
def test_every_panel_is_printed_from_the_command_line(tmp_path: Path, ending: str) -> None:
    source, out = tmp_path / "dusk.png", tmp_path / f"all{ending}"
    source.write_bytes(encoded(Image.fromarray(soft(800, 900))))
    said = CliRunner().invoke(
        main, ["print", str(source), "--template", "tote-gusset", "--panel", "all", "--dpi", "50", "-o", str(out)]
    )
    if ending == ".png":
        assert said.exit_code != 0 and ".zip" in said.output and not out.exists()
        return
    assert said.exit_code == 0 and "4 files" in said.output
    with zipfile.ZipFile(out) as archive:
        names = sorted(archive.namelist())
        sizes = {name.split("_")[2]: Image.open(io.BytesIO(archive.read(name))).size for name in names if "dpi" in name}
    assert names[0] == "dusk_tote-gusset_assembly.png"
    assert sizes["gusset"] == (round(1200 / 25.4 * 50), round(120 / 25.4 * 50)) and set(sizes) == {"front", "back", "gusset"}


def test_every_panel_is_cut_into_sheets_from_the_command_line(tmp_path: Path) -> None:
    source, out = tmp_path / "dusk.png", tmp_path / "all.zip"
    source.write_bytes(encoded(Image.fromarray(soft(800, 900))))
    asked = [
        "print",
        str(source),
        "--template",
        "tote-gusset",
        "--panel",
        "all",
        "--dpi",
        "36",
        "--sheet",
        "a4",
        "-o",
        str(out),
    ]
    said = CliRunner().invoke(main, asked)
    assert said.exit_code == 0, said.output
    with zipfile.ZipFile(out) as archive:
        files = [name for name in archive.namelist() if name.endswith(".pdf")]
        assert len(files) == 3
        for name in files:
            with pikepdf.open(io.BytesIO(archive.read(name))) as document:
                assert len(document.pages) > 2
                sides = sorted(float(v) / 72 * 25.4 for v in document.pages[0].mediabox[2:])
                assert sides == pytest.approx([210, 297], abs=0.1)  # ISO 216
