"""Pictures record what they show, and what a buyer might object to is reported."""

import io
from typing import Any

import numpy as np
import pytest
import pyvips
from PIL import Image

from improva.catalogue import template
from improva.core.mockup.findings import picture_findings
from improva.core.mockup.render import encode
from improva.core.mockup.scene import Region
from improva.core.output.xmp import NAMESPACE, xmp_packet
from tests.scenery import GROUND, PRINT, scene_info

CUP = template("tumbler-20oz-straight")
LID = Region("lid", "Lid", None, {"Snow": "#f2f1ed", "Ink": "#1d1f23"}, "Snow")
PICTURE = np.random.default_rng(1).integers(0, 255, (40, 60, 3)).astype(np.uint8)


@pytest.mark.parametrize("ending", [".jpg", ".png", ".webp"])
def test_a_picture_records_what_it_shows(ending: str) -> None:
    packet = xmp_packet("Gulls & <foxes>", {"scene": "straight-tumbler-studio", "colours": "Lid: Ink; Straw: #112233"})
    data = encode(PICTURE, ending, xmp=packet)
    with Image.open(io.BytesIO(data)) as picture:  # read by Pillow's own XMP reader
        found = picture.getxmp()["xmpmeta"]["RDF"]["Description"]
        assert found["scene"] == "straight-tumbler-studio" and found["colours"] == "Lid: Ink; Straw: #112233"
        assert found["title"]["Alt"]["li"]["text"] == "Gulls & <foxes>"
        assert picture.info["icc_profile"]
    other = pyvips.Image.new_from_buffer(data, "")  # and found by libvips
    assert NAMESPACE.encode() in bytes(other.get("xmp-data"))


def test_without_captions_nothing_is_added() -> None:
    assert b"xmpmeta" not in encode(PICTURE, ".jpg")


def say(scenes: list[Any], colours: list[dict[str, Any]], printed: set[str] | None = None) -> list[str]:
    return [f"{f.status}: {f.message}" for f in picture_findings(CUP, scenes, colours, printed or {"wrap"})]


def test_a_good_set_of_pictures_has_no_findings() -> None:
    assert say([scene_info(PRINT, LID, unprinted=True)], [{"lid": "Ink"}]) == []
    assert say([], []) == []


def test_a_scene_of_another_blank_has_to_be_fixed() -> None:
    from dataclasses import replace

    mug = replace(scene_info(PRINT, unprinted=True), templates=("mug-11oz",), title="A mug")
    assert say([mug], [{}])[0].startswith("fail: A mug shows another blank")


def test_colours_that_are_not_sold_are_reported_and_backdrops_are_not() -> None:
    scene = scene_info(PRINT, LID, GROUND, unprinted=True)
    assert say([scene], [{"lid": "#123456"}]) == [
        "warn: Lid in #123456 is not among the blank's named colours: show it only if it is sold."
    ]
    assert say([scene], [{"lid": "#1d1f23", "table": "#123456"}]) == []  # Ink, written otherwise; and a ground of their own
    cloth = Region("garment", "Garment", None, {"White": "#ffffff"}, "White", size_mm=(100.0, 100.0))
    assert say([scene_info(PRINT, cloth, unprinted=True)], [{"garment": "White heather"}]) == []


def test_too_many_colours_and_a_missing_unprinted_side_are_reported() -> None:
    scene = scene_info(PRINT, Region("lid", "Lid", None, {f"C{i}": f"#0000{i:02x}" for i in range(12)}, "C0"))
    found = say([scene] * 9, [{"lid": f"C{i}"} for i in range(9)])
    assert found[0].startswith("warn: 9 colours in one listing")
    assert "not printed (rim, foot, lid and inside stay as they are)" in found[1]
    two_sided = scene_info(PRINT, Region("back", "Back", "back"))
    assert len(say([two_sided], [{}])) == 0  # its back carries nothing, and is seen
