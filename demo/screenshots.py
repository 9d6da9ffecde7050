"""Take the pictures in docs/screenshots from a running demo: ``python -m demo.screenshots http://127.0.0.1:8000``."""

from __future__ import annotations

import json
import shutil
import sys
import urllib.parse
import urllib.request
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
from PIL import Image
from playwright.sync_api import Page, sync_playwright

from improva.app.scenes import SceneLibrary
from improva.core.mockup.composite import composite, shade_plain_parts
from improva.core.mockup.render import encode
from improva.core.mockup.scene import SceneInfo
from improva.core.mockup.view import make_view
from improva.io.scene_pack import read_passes
from improva.surfaces import surface

TARGET = Path("docs/screenshots")
BLANK = "tumbler-20oz-straight"
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]


def sewn(page: Page) -> None:
    page.get_by_text("Sewn together").click()
    page.locator('[data-sewn="pocket"]').wait_for()
    for _ in range(8):
        page.get_by_role("button", name="Nudge right").click()
    page.get_by_text("Stripes").click()
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(8000)  # pictures in a drawing do not tell when they have come


def measure(page: Page) -> None:
    page.get_by_label("Name").fill("Gorge flask, 17 oz")
    for name, value in (("Top", "11in"), ("Foot", "8.5in"), ("Height", "6in")):
        field = page.get_by_role("textbox", name=name, exact=True)
        field.fill(value)
        field.press("Enter")
    page.get_by_text("a piece of a ring").wait_for()
    page.get_by_role("textbox", name="Top", exact=True).focus()


def take_up(page: Page) -> None:
    page.locator("[data-piece='1']").click()
    page.wait_for_timeout(800)


def planned(page: Page) -> None:
    check = page.get_by_role("button", name="Check them now")
    if check.is_visible():
        check.click()
        page.get_by_text("Checking:").wait_for(state="attached")
        page.get_by_text("Checking:").wait_for(state="detached", timeout=300_000)


def open_cut(page: Page) -> None:
    page.get_by_role("button", name="1 Cut from paper").click()
    page.wait_for_load_state("networkidle")


def laid_out(page: Page) -> None:
    page.locator("tr[data-art] img").first.wait_for(timeout=120_000)
    page.wait_for_load_state("networkidle")
    page.wait_for_function("[...document.images].slice(0, 20).every((image) => image.complete)")
    page.get_by_label("Select The conductor on every blank").check()
    page.get_by_label("Select every artwork on Mug, 11 oz").check()


def on_letter(page: Page) -> None:
    page.get_by_text("On paper", exact=True).click()
    page.get_by_label("Paper", exact=True).select_option("letter")
    page.get_by_text("4 sheets").wait_for()


def pictured(page: Page) -> None:
    page.get_by_role("list", name="Pictures in order").wait_for()
    page.wait_for_function("[...document.images].every((image) => image.complete)")


def at_the_press(page: Page) -> None:
    for _ in range(3):
        page.keyboard.press("Space")
        page.wait_for_timeout(200)


EDGES = ((419, 304), (696, 349), (972, 316), (425, 917), (697, 987), (969, 938))
"""Where the print's edges are seen in :func:`plain_mug`, in px."""


def plain_mug() -> bytes:
    """A picture of a plain mug, 1600 × 1200 px, such as a seller would take of one."""
    info = SceneLibrary().packs()["mug-11oz-studio"]
    shaded = shade_plain_parts(make_view(info, read_passes(info), (1600, 1200)), {}, surface)
    bare = composite(shaded, {info.printed().id: np.full((16, 16, 3), 0.78, np.float32)})
    return encode(bare[..., ::-1], ".jpg")


def mark(page: Page) -> None:
    """Begin a scene of one's own and put its points on the print's edges."""
    page.get_by_label("Photograph of the plain blank").set_input_files(
        {"name": "Mug on our table.jpg", "mimeType": "image/jpeg", "buffer": plain_mug()}
    )
    sheet = page.locator("svg[data-photo]")
    sheet.wait_for()
    frame = sheet.bounding_box()
    assert frame
    grips = sheet.locator("g[role=button]")
    for i, (x, y) in enumerate(EDGES):
        grip = grips.nth(i).locator("circle").bounding_box()
        assert grip
        page.mouse.move(grip["x"] + grip["width"] / 2, grip["y"] + grip["height"] / 2)
        page.mouse.down()
        page.mouse.move(frame["x"] + x / 1600 * frame["width"], frame["y"] + y / 1200 * frame["height"], steps=4)
        page.mouse.up()
        page.get_by_text("Measuring…").wait_for(state="detached")
    page.get_by_label("Angle to the camera").fill("-75")
    page.keyboard.press("Enter")
    page.get_by_text("Measuring…").wait_for(state="detached")
    grips.nth(2).focus()
    page.wait_for_timeout(500)


VIEWS: dict[str, tuple[str, Callable[[Page], None] | None]] = {
    "board": ("/", laid_out),
    "artwork": ("/bench/5/t-shirt/artwork", open_cut),
    "laid": ("/bench/3/blanket-upright/artwork?part=with-it", take_up),
    "fit": (f"/bench/1/{BLANK}/fit", None),
    "check": (f"/bench/4/{BLANK}/check", None),
    "sewn": ("/bench/1/hoodie-all-over/fit?side=pocket", sewn),
    "mockups": (f"/bench/2/{BLANK}/mockups", None),
    "photograph": ("/bench/1/mug-11oz/mockups", mark),
    "print": (f"/bench/3/{BLANK}/print", None),
    "sheets": ("/bench/2/garden-flag/print", on_letter),
    "plan": ("/plan", planned),
    "press": (f"/bench/1/{BLANK}/press", at_the_press),
    "sell": (f"/bench/1/{BLANK}/sell", None),
    "listing": (f"/bench/1/{BLANK}/sell?part=listing", pictured),
    "providers": (f"/bench/1/{BLANK}/sell?part=providers", None),
    "blanks": ("/blanks/hoodie-all-over", None),
    "measure": ("/blanks/measure", measure),
}


ON_SCENES = {
    "t-shirt": 5,
    "hoodie": 3,
    "hoodie-all-over": 4,
    "pillow-square": 2,
    "garden-flag": 6,
    "pen-wrap": 4,
    "tote-gusset": 2,
}
"""Which artwork of the demo is shown on a blank; the first one on all others."""
THUMB, ACROSS = (288, 216), 10
MOTIF = {"fit": "contain", "shift_mm": [0, 0], "scale": 1, "rotate_deg": 0, "background": None}
"""On sides that start empty."""


RANGE = (
    "straight-tumbler-shelf", "t-shirt-worn-park", "mug-11oz-desk",
    "pillow-square-armchair", "blanket-upright-armchair", "hoodie-worn-lobby",
)  # fmt: skip
"""The scenes of the README's picture: one design on several products."""
RANGE_PX, RANGE_ACROSS = (480, 360), 3


def side_by_side(
    base: str, infos: list[SceneInfo], size: tuple[int, int], across: int, arts: dict[str, int], times: int = 1
) -> Image.Image:
    """Return scenes side by side, each with the design that ``arts`` names for its blank, or the first.

    They are drawn ``times`` larger and reduced.
    """
    sheet = Image.new("RGB", (size[0] * across, size[1] * -(-len(infos) // across)), "#f1eee7")
    for i, info in enumerate(infos):
        template, panel = info.templates[0], info.printed().panel
        pair = f"{base}/api/pairs/{arts.get(template, 1)}/{template}"
        with urllib.request.urlopen(f"{pair}?panel={panel}") as answer:
            placement = json.load(answer)["placement"] or MOTIF
        asked = {
            "scene": info.id,
            "width": size[0] * times,
            "height": size[1] * times,
            "content": placement,
            "view": next(iter(info.views)),
        }
        with post(f"{pair}/mockup-preview?panel={panel}", asked) as answer:
            picture = Image.open(answer).resize(size, Image.Resampling.LANCZOS)
            sheet.paste(picture, (i % across * size[0], i // across * size[1]))
    return sheet


def post(address: str, body: dict[str, Any]) -> Any:
    """The answer to a body sent as JSON."""
    request = urllib.request.Request(address, json.dumps(body).encode(), {"Content-Type": "application/json"})
    return urllib.request.urlopen(request)


def main() -> None:
    base = sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8000"
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=shutil.which("chromium"), args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        for name, (path, step) in VIEWS.items():
            page.goto(base + path)
            page.wait_for_load_state("networkidle")
            if step:
                step(page)
            page.wait_for_load_state("networkidle")
            page.screenshot(path=TARGET / f"{name}.png")
        browser.close()
    packs = SceneLibrary().packs()
    scenes = [info for info in packs.values() if not info.photograph]
    side_by_side(base, scenes, THUMB, ACROSS, ON_SCENES).save(TARGET / "scenes.png", optimize=True)
    side_by_side(base, [packs[name] for name in RANGE], RANGE_PX, RANGE_ACROSS, {}, 3).save(TARGET / "range.png", optimize=True)


if __name__ == "__main__":
    main()
