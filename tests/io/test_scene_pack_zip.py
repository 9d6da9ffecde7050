"""Scene packs as ZIP files: complete in both directions, and nothing else that a ZIP may contain."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path

import numpy as np
import pytest

from improva.core.errors import SceneError
from improva.core.mockup.quantised_uv import FINEST, quantise
from improva.core.mockup.scene import SceneInfo
from improva.io import scene_pack_zip as pack_zip
from improva.io.scene_pack import quick_info, read_info, read_passes
from improva.io.scene_pack_writer import write_passes, write_scene_toml
from improva.io.scene_pack_zip import unzip_pack, zip_pack
from tests.scenery import PX, SQUARE, grid, plane


def pack(folder: Path) -> SceneInfo:
    """A small pack, written without our own code."""
    folder.mkdir()
    write_passes(
        folder, {"base": plane(0.1), "wrap": plane(0.5, *SQUARE)}, {"wrap": grid(*SQUARE)}, {"cover": plane(1, *SQUARE)[..., 0]}
    )
    write_scene_toml(
        folder,
        {
            "id": "small",
            "title": "Small \u201cone\u201d",
            "kind": "studio",
            "templates": ["tumbler-20oz-straight"],
            "px": list(PX),
            "views": {"front": 0.0},
            "measures": [],
            "regions": [{"id": "wrap", "title": "Print", "panel": "wrap"}],
        },
    )
    return read_info(folder)


def zipped(files: dict[str, bytes]) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        for name, data in files.items():
            archive.writestr(name, data)
    return out.getvalue()


def test_a_large_pack_has_quick_passes_that_agree(tmp_path: Path) -> None:
    h, w = 900, 1200
    y, x = np.mgrid[:h, :w].astype(np.float32)
    uv = np.stack([x / w, y / h], -1)
    uv[:, :300] = np.nan
    light = np.dstack([0.2 + 0.5 * x / w] * 3)
    write_passes(tmp_path, {"base": light * 0, "wrap": light}, {"wrap": uv}, {})
    told = {
        "id": "large",
        "title": "Large",
        "kind": "studio",
        "templates": ["tumbler-20oz-straight"],
        "px": [w, h],
        "views": {"front": 0.0},
        "measures": [],
        "regions": [{"id": "wrap", "panel": "wrap"}],
    }
    write_scene_toml(tmp_path, told)
    info = read_info(tmp_path)
    small = quick_info(info)
    assert small is not None and small.px == (600, 450)
    whole, quick = read_passes(info), read_passes(small, quick=True)
    assert np.abs(whole.basis["wrap"][::2, ::2].astype(float) - quick.basis["wrap"]).max() < 0.02
    near = ~np.isnan(quick.maps["wrap"][..., 0])
    assert not near[:, :149].any() and near[:, 152:].all() and whole.cover is None
    assert np.abs(quick.maps["wrap"] - uv[::2, ::2])[:, 152:].max() < 1 / 600
    apart = np.abs(whole.maps["wrap"] - uv)[:, 300:]
    assert apart.mean() < 0.6 * np.abs(quantise(uv, FINEST) - uv)[:, 300:].mean(), "read without the steps it was packed in"


def test_an_exported_pack_is_imported_unchanged(tmp_path: Path) -> None:
    info = pack(tmp_path / "a")
    (tmp_path / "b").mkdir()
    again = unzip_pack(zip_pack(info), tmp_path / "b")
    assert (again.id, again.title, again.px) == (info.id, info.title, info.px)
    one, other = read_passes(info), read_passes(again)
    assert np.array_equal(one.base, other.base) and np.array_equal(one.maps["wrap"], other.maps["wrap"], equal_nan=True)


def test_passes_of_the_wrong_size_are_reported_before_unpacking(tmp_path: Path) -> None:
    info = pack(tmp_path / "a")
    toml = (info.folder / "scene.toml").read_text().replace("px = [96, 72]", "px = [960, 720]")
    (info.folder / "scene.toml").write_text(toml)
    with pytest.raises(SceneError, match=r"passes.exr is not 960 × 720 px"):
        read_passes(read_info(info.folder))


def test_only_the_files_of_a_pack_are_imported(tmp_path: Path) -> None:
    info = pack(tmp_path / "a")
    files = {f"../../{name}": (info.folder / name).read_bytes() for name in ("scene.toml", "passes.exr")}
    (tmp_path / "b").mkdir()
    unzip_pack(zipped({**files, "run.sh": b"#!/bin/sh", "../evil": b"x"}), tmp_path / "b")
    assert sorted(p.name for p in (tmp_path / "b").iterdir()) == ["passes.exr", "scene.toml"]
    assert sorted(p.name for p in tmp_path.iterdir()) == ["a", "b"]


def test_a_file_that_is_not_a_pack_is_refused(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    info = pack(tmp_path / "a")
    toml, exr = ((info.folder / name).read_bytes() for name in ("scene.toml", "passes.exr"))
    (tmp_path / "b").mkdir()
    for data, says in (
        (b"not a zip", "cannot be read as a ZIP"),
        (zip_pack(info)[:400], "cannot be read as a ZIP"),
        (zipped({"scene.toml": toml}), "lacks scene.toml or passes.exr"),
        (zipped({"a/scene.toml": toml, "b/scene.toml": toml, "passes.exr": exr}), "more than one"),
        (zipped({"scene.toml": toml, "passes.exr": exr[:500]}), "damaged"),
        (zipped({"scene.toml": b"id = ", "passes.exr": exr}), "not valid TOML"),
    ):
        with pytest.raises(SceneError, match=says):
            unzip_pack(data, tmp_path / "b")
    monkeypatch.setattr(pack_zip, "MAX_BYTES", 100)
    with pytest.raises(SceneError, match="more than"):
        unzip_pack(zip_pack(info), tmp_path / "b")
