"""The command line keeps its contract: JSON keys, exit codes, one line on standard error, exit code 2, nothing written."""

import io
import json
import math
from pathlib import Path
from typing import Any

import numpy as np
import pikepdf
import pytest
import pyvips
from click.testing import CliRunner, Result
from PIL import Image, ImageCms

from improva.cli import main
from tests.conftest import BLANK, encoded, quadrants

SCENE = "straight-tumbler-studio"


def run(*args: object) -> Result:
    return CliRunner().invoke(main, [str(a) for a in args])


def test_templates_have_the_contracts_keys() -> None:
    blank = next(t for t in json.loads(run("templates", "--json").output) if t["id"] == BLANK)
    assert {"id", "title", "kind", "panels"} <= set(blank)
    panel = blank["panels"][0]
    assert {"id", "shape", "trim_mm", "bleed_mm", "safe_mm", "file_px", "file_mm"} <= set(panel)
    assert panel["file_px"] == [2790, 2460] and panel["trim_mm"] == pytest.approx([236.22, 208.28])


def test_check_has_the_contracts_keys(art_file: Path) -> None:
    told = json.loads(run("check", art_file, "--template", BLANK, "--json").output)
    assert {"template", "panel", "art", "placed_mm", "effective_dpi", "verdict", "checks"} <= set(told)
    assert {"px", "tagged_dpi", "mode", "has_alpha"} <= set(told["art"])
    assert all({"id", "status", "measured", "limit", "unit", "message", "fix"} <= set(c) for c in told["checks"])
    assert told["placed_mm"] == pytest.approx([0, 0, 236.22, 208.28], abs=1e-3)
    assert told["effective_dpi"] == pytest.approx([300, 300], abs=0.01) and told["art"]["px"] == [2790, 2460]


def test_placing_options_reach_the_core(art_file: Path) -> None:
    told = json.loads(
        run(
            "check",
            art_file,
            "--template",
            BLANK,
            "--panel",
            "wrap",
            "--fit",
            "contain",
            "--scale",
            0.5,
            "--shift-mm",
            "10,-4",
            "--rotate",
            90,
            "--background",
            "#203040",
            "--json",
        ).output
    )
    x, y, w, h = told["placed_mm"]
    assert h == pytest.approx(h) and (x + w / 2, y + h / 2) == pytest.approx((128.11, 100.14), abs=1e-3)
    assert w == pytest.approx(0.5 * 208.28, abs=0.01)


@pytest.mark.parametrize(("options", "mirrored"), [([], True), (["--no-mirror"], False), (["--mirror"], True)])
def test_print_is_mirrored_for_pressing_at_home(art_file: Path, tmp_path: Path, options: list[str], mirrored: bool) -> None:
    out = tmp_path / "wrap.png"
    assert run("print", art_file, "--template", BLANK, "--dpi", 100, *options, "-o", out).exit_code == 0
    first = tuple(np.asarray(Image.open(out))[20, 20])
    assert first == ((30, 160, 60) if mirrored else (220, 30, 30))


def test_mockup_and_scenes(art_file: Path, tmp_path: Path) -> None:
    scene = next(s for s in json.loads(run("scenes", "--template", BLANK, "--json").output) if s["id"] == SCENE)
    assert {"id", "template", "kind", "views", "regions", "px"} <= set(scene)
    assert {r["id"] for r in scene["regions"]} == {"wrap", "lid", "straw", "table", "wall"}
    fronts = []
    for name, options in (
        ("a.jpg", []),
        ("b.png", ["--view", "right"]),
        ("c.webp", ["--angle", "90", "--colour", "lid=#204030"]),
    ):
        out = tmp_path / name
        told = run("mockup", art_file, "--template", BLANK, "--scene", SCENE, "--size", "400x300", *options, "-o", out)
        assert told.exit_code == 0, told.output
        with Image.open(out) as picture:
            assert picture.size == (400, 300)
            fronts.append(np.asarray(picture.convert("RGB"))[120:180, 185:215].mean(axis=(0, 1)))
    assert np.abs(fronts[1] - fronts[2]).max() < 8 < np.abs(fronts[0] - fronts[1]).max()


def test_a_sellers_own_pack_is_validated(tmp_path: Path) -> None:
    from improva.scenes import SHIPPED

    assert run("scenes", "--validate", SHIPPED / SCENE).exit_code == 0
    refused = run("scenes", "--validate", tmp_path)
    assert refused.exit_code == 2 and "not a scene pack" in refused.stderr


@pytest.mark.parametrize(
    "args",
    [
        ["check", "ART", "--template", "teapot"],
        ["check", "ART", "--template", BLANK, "--panel", "sleeve"],
        ["check", "ART", "--template", BLANK, "--shift-mm", "ten"],
        ["check", "ART", "--template", BLANK, "--scale", "0"],
        ["check", "ART", "--template", BLANK, "--background", "sky"],
        ["check", "nowhere.png", "--template", BLANK],
        ["check", "BAD", "--template", BLANK],
        ["print", "BAD", "--template", BLANK, "-o", "OUT.png"],
        ["print", "CUT", "--template", BLANK, "-o", "OUT.png"],
        ["print", "ART", "--template", BLANK, "-o", "OUT.gif"],
        ["print", "ART", "--template", BLANK, "--dpi", "3", "-o", "OUT.png"],
        ["mockup", "ART", "--template", BLANK, "--scene", "moon", "-o", "OUT.jpg"],
        ["mockup", "ART", "--template", BLANK, "--scene", SCENE, "--view", "below", "-o", "OUT.jpg"],
        ["mockup", "ART", "--template", BLANK, "--scene", SCENE, "--colour", "lid", "-o", "OUT.jpg"],
        ["mockup", "ART", "--template", BLANK, "--scene", SCENE, "--colour", "lid=Mauve", "--size", "200x150", "-o", "OUT.jpg"],
        ["mockup", "ART", "--template", BLANK, "--scene", SCENE, "--size", "big", "-o", "OUT.jpg"],
        ["mockup", "ART", "--template", BLANK, "--scene", SCENE, "-o", "OUT.bmp"],
        ["mockup", "ART", "--template", BLANK, "--scene", SCENE, "--angle", "nan", "--size", "200x150", "-o", "OUT.jpg"],
        ["mockup", "ART", "--template", BLANK, "--scene", SCENE, "--angle", "9", "--view", "left", "-o", "OUT.jpg"],
        ["check", "ART", "--template", BLANK, "--rotate", "inf"],
        ["check", "ART", "--template", BLANK, "--fit", "repeat", "--repeat-kind", "mirror", "--repeats-around", "5"],
        ["check", "ART", "--template", BLANK, "--fit", "repeat", "--rotate", "10"],
        ["check", "ART", "--template", BLANK, "--blend", "0.9"],
        ["check", "ART", "--template", BLANK, "--copies", "0"],
        ["check", "ART", "--template", "mug-11oz", "--profile", "BAD"],
        ["print", "ART", "--template", "t-shirt", "--panel", "sleeve", "-o", "OUT.png"],
        ["mockup", "ART", "--template", "mug-11oz", "--scene", SCENE, "-o", "OUT.jpg"],
        ["mockup", "ART", "--template", "mug-11oz", "--scene", "mug-11oz-drawn-handle-left", "--angle", "9", "-o", "OUT.jpg"],
        ["measure", "cone", "--top-circumference", "0", "--bottom-circumference", "200", "--height", "100"],
        ["measure", "cone", "--top-circumference", "nan", "--bottom-circumference", "200", "--height", "100"],
        ["measure", "cone", "--top-circumference", "3000", "--bottom-circumference", "40", "--height", "10"],
    ],
)
def test_bad_input_gives_one_line_and_exit_code_2_and_writes_nothing(args: list[str], art_file: Path, tmp_path: Path) -> None:
    bad, cut = tmp_path / "bad.png", tmp_path / "cut.png"
    bad.write_text("a shopping list")
    cut.write_bytes(encoded(Image.fromarray(quadrants()))[:-800])
    before = sorted(p.name for p in tmp_path.iterdir())
    names = {"ART": str(art_file), "BAD": str(bad), "CUT": str(cut)}
    result = run(*(names.get(a, a.replace("OUT", str(tmp_path / "out"))) for a in args))
    assert result.exit_code == 2
    assert result.stderr.startswith("improva: ") and len(result.stderr.strip().splitlines()) == 1
    assert sorted(p.name for p in tmp_path.iterdir()) == before


def test_measuring_a_cone_against_its_closed_form() -> None:
    measures = ["--top-circumference", "11", "--bottom-circumference", "8.5", "--height", "6", "--unit", "in"]
    told = json.loads(run("measure", "cone", *measures, "--json").stdout)
    spread = (11 - 8.5) / (2 * math.pi)
    slant = math.hypot(6, spread)
    outer = slant * 11 / (11 - 8.5)
    assert told["slant_mm"] == pytest.approx(slant * 25.4) and told["outer_radius_mm"] == pytest.approx(outer * 25.4)
    assert told["inner_radius_mm"] == pytest.approx((outer - slant) * 25.4)
    assert told["sweep_deg"] == pytest.approx(math.degrees(11 / outer))
    half = 11 / outer / 2
    box = [2 * outer * math.sin(half) * 25.4, (outer - (outer - slant) * math.cos(half)) * 25.4]
    assert told["box_mm"] == pytest.approx(box)
    assert told["slant_in"] == pytest.approx(slant) and told["box_in"] == pytest.approx([side / 25.4 for side in box])
    assert f"slant         {slant:.3f} in" in run("measure", "cone", *measures).stdout.splitlines()
    straight = json.loads(
        run(
            "measure", "cone", "--top-circumference", "236", "--bottom-circumference", "236", "--height", "208", "--json"
        ).stdout
    )
    assert straight["box_mm"] == [236, 208] and straight["outer_radius_mm"] is None and straight["sweep_deg"] == 0


def test_templates_list_every_blank_with_the_contracts_keys() -> None:
    told = json.loads(run("templates", "--json").stdout)
    assert len(told) == 17
    for blank in told:
        assert {"id", "title", "kind", "panels"} <= set(blank)
        for panel in blank["panels"]:
            assert {"id", "shape", "trim_mm", "bleed_mm", "safe_mm", "file_px", "file_mm"} <= set(panel)


def test_a_repeat_from_a_shell(art_file: Path, tmp_path: Path) -> None:
    out = tmp_path / "tiles.png"
    options = ["--fit", "repeat", "--repeats-around", "3", "--no-mirror", "--dpi", "100", "-o", out]
    assert run("print", art_file, "--template", BLANK, *options).exit_code == 0
    pixels = np.asarray(Image.open(out)).astype(int)
    assert pixels.shape == (820, 930, 3) and np.abs(pixels[:, :310] - pixels[:, 310:620]).max() <= 1


def test_every_blank_is_checked_printed_and_shown_from_a_shell(art_file: Path, tmp_path: Path) -> None:
    for blank in ("tumbler-30oz-tapered", "pen-wrap", "pillow-shaped", "hoodie-all-over"):
        told = json.loads(run("check", art_file, "--template", blank, "--json").stdout)
        assert told["template"] == blank and all(
            {"id", "status", "measured", "limit", "unit", "message", "fix"} <= set(c) for c in told["checks"]
        )
        assert run("print", art_file, "--template", blank, "--dpi", "40", "--cut-line", "-o", tmp_path / "p.png").exit_code == 0
        (scene, *_) = json.loads(run("scenes", "--template", blank, "--json").stdout)
        picture = tmp_path / f"{blank}.jpg"
        shown = run("mockup", art_file, "--template", blank, "--scene", scene["id"], "--size", "240x180", "-o", picture)
        assert shown.exit_code == 0, shown.stderr
        with Image.open(picture) as image:
            assert image.size == (240, 180)


def test_prepare_writes_a_cut_out_with_its_border_and_true_tags(tmp_path: Path) -> None:
    scan, out = tmp_path / "scan.png", tmp_path / "cut.png"
    picture = np.full((300, 400, 3), (243, 236, 220), np.uint8)
    picture[100:200, 100:300] = (40, 60, 90)
    scan.write_bytes(encoded(Image.fromarray(picture), dpi=(254, 254)))
    told = run("prepare", scan, "cut:tolerance=6", "border:mm=2,colour=#ffffff", "trim", "-o", out)
    assert told.exit_code == 0, told.output
    made = Image.open(out)
    assert made.mode == "RGBA"
    assert made.size == pytest.approx((240, 140), abs=2)
    assert made.info["dpi"] == pytest.approx((254, 254), abs=0.1)
    assert "srgb" in ImageCms.getProfileDescription(ImageCms.ImageCmsProfile(io.BytesIO(made.info["icc_profile"]))).lower()
    assert made.getpixel((made.width // 2, 8)) == (255, 255, 255, 255)
    assert "Cut from paper: 83 % of the picture was cleared." in told.output
    assert run("prepare", "--steps").output.count("\n") > 40


@pytest.mark.parametrize(
    ("steps", "ending", "told"),
    [
        (["polish"], ".png", "no step 'polish'"),
        (["cut:tolerance=255"], ".png", "would remove everything"),
        (["border"], ".png", "cut it from its paper first"),
        (["trim"], ".bmp", "choose one of these"),
        (["crop:box=0/0/1/1", "clear"], ".jpg", "JPEG has no transparency"),
        ([], ".png", "Missing argument"),
    ],
)
def test_prepare_refuses_in_one_line(art_file: Path, tmp_path: Path, steps: list[str], ending: str, told: str) -> None:
    out = tmp_path / f"out{ending}"
    answer = run("prepare", art_file, *steps, "-o", out)
    assert answer.exit_code == 2
    assert told in answer.output
    assert not out.exists()


def test_prepare_lays_words_borders_frames_and_a_second_artwork(art_file: Path, tmp_path: Path) -> None:
    out, magenta = tmp_path / "laid.png", tmp_path / "magenta.png"
    Image.new("RGB", (300, 300), (255, 0, 255)).save(magenta)
    told = run(
        "prepare",
        art_file,
        'words:text="Up, and up",font=narrow,width=100,fill=#00ffff,down=40',
        "band:mm=12,colour=#102030,line=0",
        f"frames:layout=single,columns=1,width=60,height=50,rim=5,pictures={magenta}",
        f"overlay:art={magenta},scale=20,right=-80,blend=multiply",
        "-o",
        out,
    )
    assert told.exit_code == 0, told.output
    made = np.asarray(Image.open(out).convert("RGB")).astype(int)
    assert made.shape[:2] == (2460, 2790)
    mm = 2790 / 236.22
    assert tuple(made[20, 1400]) == (0x10, 0x20, 0x30)
    assert tuple(made[1230, 1395]) == (255, 0, 255) and tuple(made[1230, round(1395 - 27 * mm)]) == (255, 255, 255)
    cyan = np.nonzero(np.abs(made - (0, 255, 255)).max(axis=2) < 20)
    assert (cyan[1].max() - cyan[1].min()) / mm == pytest.approx(100, abs=0.3)
    assert (cyan[0].max() + cyan[0].min()) / 2 / mm == pytest.approx(208.28 / 2 + 40, abs=0.3)
    assert tuple(made[1230 - 40, round(1395 - 80 * mm)]) == pytest.approx((220, 0, 30), abs=1), "red multiplied by magenta"


@pytest.mark.parametrize(
    ("step", "told"),
    [
        ("words:text=", "no words yet"),
        ("words:text=Up,font=nowhere.ttf", "cannot be read"),
        ("overlay", "name its file"),
        ("band:pattern=nothing.png", "cannot be read"),
        ("band:mm=500", "leaves no room"),
        ("words:text=Up,along=zigzag", "choose one of line"),
    ],
)
def test_impossible_pieces_are_refused_in_one_line(art_file: Path, tmp_path: Path, step: str, told: str) -> None:
    answer = run("prepare", art_file, step, "-o", tmp_path / "out.png")
    assert answer.exit_code == 2 and told in answer.output and answer.output.count("\n") == 1


def test_sheets_of_paper_come_as_one_pdf(art_file: Path, tmp_path: Path) -> None:
    out = tmp_path / "sheets.pdf"
    told = run("print", art_file, "--template", "garden-flag", "--dpi", 60, "--sheet", "letter", "--overlap-mm", 12, "-o", out)
    assert told.exit_code == 0 and "4 sheets of 215.9 × 279.4 mm" in told.output
    with pikepdf.open(out) as pdf:
        assert len(pdf.pages) == 5
    own = run("print", art_file, "--template", BLANK, "--dpi", 60, "--sheet", "400x400mm", "-o", out)
    assert own.exit_code == 0 and "1 sheet of" in own.output


def test_tab_marks_and_profile_reach_the_file(art_file: Path, tmp_path: Path) -> None:
    profile = tmp_path / "printer.icc"
    profile.write_bytes(bytes(pyvips.Operation.call("profile_load", "p3")))
    out = tmp_path / "wrap.jpg"
    told = run(
        "print",
        art_file,
        "--template",
        BLANK,
        "--dpi",
        100,
        "--no-mirror",
        "--tab",
        "right",
        "--marks",
        "--profile",
        profile,
        "--intent",
        "perceptual",
        "-o",
        out,
    )
    assert told.exit_code == 0, told.output
    with Image.open(out) as picture:
        assert picture.size == (930 + 25, 820 + 2 * 24) and picture.info["icc_profile"] == profile.read_bytes()
        assert np.asarray(picture.convert("RGB"))[400, 945].min() > 245


@pytest.mark.parametrize(
    ("options", "told"),
    [
        (["--sheet", "a9x"], "not a paper"),
        (["--sheet", "letter", "--overlap-mm", 300], "use less overlap"),
        (["--sheet", "letter", "-o", "sheets.png"], ".pdf"),
        (["--tab", "left", "--tab-mm", 900], "0 to 60"),
        (["--profile", "nothing.icc"], "nothing.icc"),
    ],
)
def test_impossible_print_options_are_refused_in_one_line(
    art_file: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, options: list[Any], told: str
) -> None:
    monkeypatch.chdir(tmp_path)
    output = [] if "-o" in options else ["-o", "out.pdf"]
    answer = run("print", art_file, "--template", "garden-flag" if "left" not in options else BLANK, *options, *output)
    assert answer.exit_code == 2 and told in answer.output and answer.output.count("\n") == 1
    assert [p.name for p in tmp_path.iterdir()] == [art_file.name]


def test_a_pressing_is_planned_with_the_contracts_keys() -> None:
    told = json.loads(run("press", BLANK, "--json").output)
    assert {"steps", "cautions"} <= set(told) and len(told["cautions"]) > 3
    assert all({"do", "temperature_c", "temperature_f", "seconds", "pressure"} <= set(step) for step in told["steps"])
    heated = [step for step in told["steps"] if step["seconds"]]
    assert heated[0]["temperature_f"] == pytest.approx(385, abs=0.1) and heated[0]["temperature_c"] == pytest.approx(196.1)
    flag = run("press", "garden-flag")
    assert "Position 2 of 2" in flag.output and "children" in flag.output
    assert run("press", "garden-flag", "--method", "mug").exit_code == 2 and run("press", "teapot").exit_code == 2


def test_a_rotation_is_filmed(tmp_path: Path, art_file: Path) -> None:
    target = tmp_path / "turn.webp"
    done = run(
        "turntable",
        art_file,
        "--template",
        BLANK,
        "--scene",
        "straight-tumbler-studio",
        "--seconds",
        "2",
        "--size",
        "96x72",
        "--colour",
        "table=slate",
        "-o",
        target,
    )
    assert done.exit_code == 0, done.output
    with Image.open(target) as film:
        assert getattr(film, "n_frames", 0) == 40 and film.size == (96, 72)


@pytest.mark.parametrize(
    ("more", "says"),
    [
        (["--seconds", "99", "-o", "turn.mp4"], "99 s cannot be made"),
        (["-o", "turn.avi"], ".mp4, .webp or .gif"),
        (["--colour", "table=velvet", "-o", "turn.gif"], "no colour 'velvet'"),
        (["--size", "wide", "-o", "turn.gif"], "is not a size"),
    ],
)
def test_impossible_films_are_reported(tmp_path: Path, art_file: Path, more: list[str], says: str) -> None:
    more = [str(tmp_path / part) if part.startswith("turn.") else part for part in more]
    done = run("turntable", art_file, "--template", BLANK, "--scene", "straight-tumbler-studio", *more)
    assert done.exit_code == 2 and says in done.output and list(tmp_path.glob("turn.*")) == []


def test_a_blank_that_does_not_rotate_has_no_film(tmp_path: Path, art_file: Path) -> None:
    done = run("turntable", art_file, "--template", "t-shirt", "--scene", "t-shirt-front", "-o", tmp_path / "turn.mp4")
    assert done.exit_code == 2 and "does not turn" in done.output


def test_a_roll_is_printed_as_a_cyclic_shift(tmp_path: Path) -> None:
    pixels = np.random.default_rng(2).integers(0, 256, (820, 930, 3), np.uint8)
    art = tmp_path / "noise.png"
    art.write_bytes(encoded(Image.fromarray(pixels)))
    prints = []
    for name, roll in (("plain", 0), ("rolled", 25.4)):
        out = tmp_path / f"{name}.png"
        made = run(
            "print", art, "--template", BLANK, "--fit", "stretch", "--no-mirror", "--dpi", 100, "--roll-mm", roll, "-o", out
        )
        assert made.exit_code == 0, made.output
        prints.append(np.asarray(Image.open(out).convert("RGB"))[:, :930])
    assert (prints[1] == np.roll(prints[0], 100, axis=1)).all()
    refused = run("print", art, "--template", "mug-11oz", "--roll-mm", 5, "-o", tmp_path / "no.png")
    assert refused.exit_code == 2 and "ends meet" in refused.output


def test_a_cut_out_that_is_contained_gets_the_pages_room(tmp_path: Path) -> None:
    pixels = np.zeros((500, 500, 4), np.uint8)
    pixels[100:400, 100:400] = (120, 60, 40, 255)
    art = tmp_path / "cut.png"
    art.write_bytes(encoded(Image.fromarray(pixels)))
    told = json.loads(run("check", art, "--template", "pillow-shaped", "--fit", "contain", "--json").output)
    assert told["placed_mm"][2] == pytest.approx(400 - 2 * (12.7 + 6.35), abs=0.5)
    whole = json.loads(run("check", art, "--template", "pillow-shaped", "--scale", 1, "--json").output)
    assert whole["placed_mm"][2] == pytest.approx(400)
