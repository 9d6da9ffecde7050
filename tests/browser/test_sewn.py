"""Design the front once: the pocket follows it, is calibrated with a sample, and later art uses the calibration. Read from
exported files."""

from __future__ import annotations

import io
import re
from pathlib import Path

import cv2
import numpy as np
from PIL import Image
from playwright.sync_api import Page, expect

HOODIE = "hoodie-all-over"
PX_MM = 150 / 25.4


def field(seed: int) -> bytes:
    rng = np.random.default_rng(seed)
    soft = cv2.resize(rng.integers(0, 255, (14, 12, 3), np.uint8), (1300, 1500), interpolation=cv2.INTER_CUBIC)
    out = io.BytesIO()
    Image.fromarray(soft).save(out, "PNG")
    return out.getvalue()


def dropped(page: Page, seed: int) -> int:
    answer = page.request.post(
        "/api/artworks", multipart={"file": {"name": f"field {seed}.png", "mimeType": "image/png", "buffer": field(seed)}}
    )
    assert answer.ok, answer.text()
    return int(answer.json()["id"])


def exported(page: Page, art: int, side: str, tmp: Path) -> np.ndarray:
    page.goto(f"/bench/{art}/{HOODIE}/print?side={side}")
    with page.expect_download(timeout=150_000) as coming:
        page.get_by_role("button", name="Make the print file").click()
    path = tmp / f"{art}-{side}.png"
    coming.value.save_as(path)
    return np.asarray(Image.open(path).convert("RGB")).astype(np.float32)


def off_beneath(front: np.ndarray, pocket: np.ndarray, right_mm: float, down_mm: float) -> float:
    """Return the mean difference between the pocket's file and the area of the front on which it is sewn."""
    h, w = pocket.shape[:2]
    xs, ys = np.meshgrid(np.arange(w, dtype=np.float32), np.arange(h, dtype=np.float32))
    want = cv2.remap(
        front, xs + np.float32((130 + right_mm) * PX_MM), ys + np.float32((440 + down_mm) * PX_MM), cv2.INTER_CUBIC
    )
    return float(np.abs(want - pocket)[30:-30, 30:-30].mean())


def test_a_pocket_follows_the_front_and_its_calibration_applies_to_later_art(page: Page, tmp_path: Path) -> None:
    art = dropped(page, 1)
    page.goto(f"/bench/{art}/{HOODIE}/fit?side=front")
    page.locator("[data-flat]").focus()
    page.keyboard.press("+")
    page.keyboard.press("Shift+ArrowRight")
    expect(page.get_by_role("textbox", name="Right", exact=True)).not_to_have_value("0")
    page.get_by_role("navigation", name="Sides").get_by_role("button", name="Front pocket").click()
    expect(page.get_by_text("Shows a part of another side's design")).to_be_visible()
    page.get_by_text("Sewn together").click()
    sewn = page.locator('[data-sewn="pocket"]')
    expect(sewn).to_be_visible()
    before = sewn.get_attribute("transform")
    for _ in range(4):
        page.get_by_role("button", name="Nudge right").click()
    page.get_by_role("textbox", name="Sewn lower").fill("-3mm")
    page.keyboard.press("Enter")
    expect(sewn).not_to_have_attribute("transform", before or "")
    page.get_by_label("Sewn by").fill("North Works")
    page.get_by_label("Sample").fill("No 1, size L")
    page.get_by_role("button", name="Save for this blank").click()
    expect(page.get_by_text(re.compile("Holds now: .* by No 1, size L"))).to_be_visible()
    front, pocket = (exported(page, art, side, tmp_path) for side in ("front", "pocket"))
    assert off_beneath(front, pocket, 2, -3) < 1.0 < off_beneath(front, pocket, 0, 0)
    later = dropped(page, 2)  # made to the same sample without another thought
    front, pocket = (exported(page, later, side, tmp_path) for side in ("front", "pocket"))
    assert off_beneath(front, pocket, 2, -3) < 1.0 < off_beneath(front, pocket, 0, 0)


def test_a_sleeve_continues_the_front_and_its_seam_mismatch_is_reported(page: Page) -> None:
    art = dropped(page, 3)
    page.goto(f"/bench/{art}/{HOODIE}/fit?side=sleeve-left")
    join = page.get_by_role("radiogroup", name="Left sleeve to the front")
    join.get_by_text("Runs on").click()
    expect(page.get_by_role("button", name=re.compile("Left sleeve.*follows"))).to_be_visible()
    page.get_by_text("Sewn together").click()
    expect(page.get_by_role("row", name=re.compile("Left sleeve to the front cannot run on: 2\\d.* mm off"))).to_be_visible()
    page.locator('[data-sewn="front"]').press("Enter")  # a part of the map is worked on by keyboard too
    expect(page).to_have_url(re.compile("side=front"))
    page.keyboard.press("Control+z")
    page.get_by_role("navigation", name="Sides").get_by_role("button", name=re.compile("Left sleeve")).click()
    expect(join.get_by_role("radio", name="Own placement")).to_be_checked()
