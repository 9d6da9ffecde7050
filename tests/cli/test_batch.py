"""A whole range from the command line: made, made only once, continued after a kill; errors are reported before anything is
written."""

import contextlib
import os
import platform
import signal
import subprocess
import sys
from pathlib import Path

import pytest
from click.testing import CliRunner, Result
from PIL import Image

from improva.cli import main
from tests.conftest import encoded, quadrants
from tests.waiting import wait_until

RANGE = """
art = ["art/*.png"]
templates = ["mug-11oz", "pen-wrap"]
[pictures]
scenes = ["mug-11oz-studio", "pen-three"]
sizes = ["400x300", "300x300"]
[print]
dpi = 60
[fit]
mug-11oz = { fit = "contain", scale = 0.5, background = "#ffffff" }
"""


@pytest.fixture
def folder(tmp_path: Path) -> Path:
    (tmp_path / "art").mkdir()
    for i in range(2):
        (tmp_path / f"art/field_{i}.png").write_bytes(encoded(Image.fromarray(quadrants(600 + i, 500))))
    (tmp_path / "range.toml").write_text(RANGE)
    return tmp_path


def batch(folder: Path) -> Result:
    return CliRunner().invoke(main, ["batch", str(folder / "range.toml"), "-o", str(folder / "out")])


def visible(folder: Path) -> dict[str, tuple[int, int]]:
    """Map every file of the output folder, unfinished ones too, to its inode and time."""
    out, found = folder / "out", {}
    for path in out.rglob("*"):
        with contextlib.suppress(FileNotFoundError):  # renamed since it was listed
            if path.is_file() and ".improva" not in path.parts:
                found[str(path.relative_to(out))] = (path.stat().st_ino, path.stat().st_mtime_ns)
    return found


def test_a_batch_is_made_and_made_only_once(folder: Path) -> None:
    first = batch(folder)
    assert first.exit_code == 0, first.output
    files = visible(folder)
    # per artwork two sizes of one scene on either blank, and one print file on either
    assert len(files) == 2 * (2 * 2 + 2) and "100 %" in first.output and f"{len(files)} files" in first.output
    mug = Image.open(folder / "out/field-0/mug-11oz/field-0_mug-11oz_8.5x3.5in_60dpi.png").convert("RGB")
    assert mug.size == (510, 210) and mug.getpixel((5, 5)) == (255, 255, 255), "laid as the range says: half as large, on white"
    shown = next(path for path in files if "pen-three" in path and "400x300" in path)
    assert Image.open(folder / "out" / shown).size == (400, 300)
    second = batch(folder)
    assert second.exit_code == 0 and visible(folder) == files


def test_artworks_of_one_name_stay_separate_and_an_undone_fit_no_longer_applies(folder: Path) -> None:
    (folder / "art/field_1.jpg").write_bytes(encoded(Image.fromarray(quadrants(610, 500)[::-1]), "JPEG"))
    lines = (
        RANGE.replace("art/*.png", "art/field_1.*").replace("make = ", "").replace("[pictures]", 'make = ["print"]\n[pictures]')
    )
    (folder / "range.toml").write_text(lines)
    assert batch(folder).exit_code == 0
    names = [path for path in visible(folder) if "mug-11oz" in path]
    assert {name.split("/")[0] for name in names} == {"field-1", "field-1-2"}
    (folder / "range.toml").write_text(lines[: lines.index("[fit]")])
    assert batch(folder).exit_code == 0
    again = Image.open(folder / "out" / sorted(names)[0]).convert("RGB")
    assert again.getpixel((5, 5)) != (255, 255, 255) or again.getpixel((60, 60)) != (255, 255, 255)


def whole_files(folder: Path) -> dict[str, tuple[int, int]]:
    return {path: told for path, told in visible(folder).items() if not Path(path).name.startswith(".")}


def test_files_that_are_the_same_are_made_once_and_reported(folder: Path) -> None:
    (folder / "art/copy_of_0.png").write_bytes((folder / "art/field_0.png").read_bytes())
    ended = batch(folder)
    assert ended.exit_code == 0 and "not made: field_0.png: it is the same file as copy_of_0.png, byte for byte" in ended.output
    assert len({path.split("/")[0] for path in visible(folder)}) == 2


def test_a_killed_batch_continues_and_duplicates_nothing(folder: Path) -> None:
    command = [sys.executable, "-m", "improva.cli", "batch", str(folder / "range.toml"), "-o", str(folder / "out")]
    process = subprocess.Popen(command, stdout=subprocess.DEVNULL)
    wait_until(lambda: len(whole_files(folder)) >= 2 or process.poll() is not None, 90)
    os.kill(process.pid, signal.SIGKILL)
    process.wait()
    half = whole_files(folder)
    assert 2 <= len(half) < 12
    begun = (folder / "out" / next(iter(half))).with_name(f".half~{platform.node()[:40]}~{process.pid}~x.jpg")
    begun.write_bytes(b"what a kill between two steps can leave")
    assert batch(folder).exit_code == 0
    whole = visible(folder)
    assert len(whole) == 12 and half.items() <= whole.items(), "what was made before the kill was left as it is"
    made = [path for path in (folder / "out/.improva/made").iterdir() if not path.name.startswith(".")]
    assert len(made) == 12


@pytest.mark.parametrize(
    ("change", "told"),
    [
        (("mug-11oz", "tea-cosy"), "tea-cosy"),
        (("art/*.png", "art/*.bmp"), "no file 'art/*.bmp'"),
        (("templates =", "blanks ="), "'blanks' is not known"),
        (("[print]", "[print"), "not valid TOML"),
        (("400x300", "huge"), "'huge' is no size"),
        (("400x300", "4x3"), "cannot be made"),
        (("dpi = 60", "dpi = 'fine'"), "dpi"),
        (("dpi = 60", "colour = 'red'"), "'colour' is not known in [print]"),
        (('"pen-three"', '"attic"'), "a scene 'attic'"),
        (('fit = "contain"', 'fit = "squeeze"'), "fit.mug-11oz"),
        (("scale = 0.5", "scale = 0"), "fit.mug-11oz"),
        (('["art/*.png"]', '"art"'), "list of words"),
    ],
)
def test_errors_are_reported_and_nothing_is_written(folder: Path, change: tuple[str, str], told: str) -> None:
    assert change[0] in RANGE
    (folder / "range.toml").write_text(RANGE.replace(change[0], change[1]))
    said = batch(folder)
    assert said.exit_code == 2 and said.output.startswith("improva: ") and said.output.count("\n") == 1, said.output
    assert told in said.output and not (folder / "out").exists()


def test_a_file_that_is_not_a_picture_is_named(folder: Path) -> None:
    (folder / "art/notes.png").write_text("buy paper")
    said = batch(folder)
    assert said.exit_code == 2 and "notes.png" in said.output and not (folder / "out").exists()
    assert CliRunner().invoke(main, ["batch", str(folder / "none.toml"), "-o", str(folder / "out")]).exit_code == 2


def test_a_worker_needs_the_address_of_its_queue(folder: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.delenv("IMPROVA_QUEUE", raising=False)
    said = CliRunner().invoke(main, ["worker", "--data", str(folder)])
    assert said.exit_code == 2 and "IMPROVA_QUEUE" in said.output
