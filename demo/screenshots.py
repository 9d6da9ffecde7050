"""Take the pictures in docs/screenshots from a running demo: ``python -m demo.screenshots http://127.0.0.1:8000``."""

from __future__ import annotations

import shutil
import sys
import urllib.request
from pathlib import Path

from PIL import Image
from playwright.sync_api import sync_playwright

TARGET = Path("docs/screenshots")
BLANK = "tumbler-20oz-straight"
VIEWS = {
    "board": "/",
    "fit": f"/bench/1/{BLANK}/fit",
    "prove": f"/bench/4/{BLANK}/prove",
    "show": f"/bench/2/{BLANK}/show",
    "print": f"/bench/3/{BLANK}/print",
}  # fmt: skip
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]


def main() -> None:
    base = sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8000"
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=shutil.which("chromium"), args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        for name, path in VIEWS.items():
            page.goto(base + path)
            page.wait_for_load_state("networkidle")
            page.screenshot(path=TARGET / f"{name}.png")
        browser.close()
    look = f"{base}/api/pairs/1/{BLANK}/look?width=1280&height=960&placing=" + urllib.request.quote(
        '{"fit":"cover","shift_mm":[0,0],"scale":1,"rotate_deg":0,"background":null}'
    )
    target = TARGET / "tumbler.png"
    with urllib.request.urlopen(look + "&colours=" + urllib.request.quote('{"lid":"Ink","straw":"Rowan"}')) as answer:
        Image.open(answer).save(target, optimize=True)


if __name__ == "__main__":
    main()
