"""The real server with the demo's data, and Debian's Chromium."""

from __future__ import annotations

import hashlib
import shutil
import socket
import subprocess
import sys
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright

from tests.waiting import wait_until

CHROMIUM = shutil.which("chromium") or "/usr/bin/chromium"
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]

expect.set_options(timeout=60_000)  # the first picture lights the scene, on machines busy with other things too


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def wait_until_up(url: str, server: subprocess.Popen[bytes], limit_s: float = 90) -> None:
    def answers() -> bool:
        assert server.poll() is None, "the server ended by itself"
        try:
            urllib.request.urlopen(url, timeout=2).close()
        except (urllib.error.URLError, ConnectionError, TimeoutError):
            return False
        return True

    wait_until(answers, limit_s)


@contextmanager
def served(data: Path, *more: str, up: str = "/api/board") -> Iterator[str]:
    """A server on a data folder, and its address. It is up when it answers at ``up``."""
    port = free_port()
    url = f"http://127.0.0.1:{port}"
    server = subprocess.Popen([sys.executable, "-m", "improva.cli", "serve", *more, "--port", str(port), "--data", str(data)])
    try:
        wait_until_up(f"{url}{up}", server)
        yield url
    finally:
        server.terminate()
        server.wait(10)


@pytest.fixture(scope="session")
def address(tmp_path_factory: pytest.TempPathFactory, demo_folder: Path) -> Iterator[str]:
    data = tmp_path_factory.mktemp("board")
    shutil.copytree(demo_folder, data, dirs_exist_ok=True)
    with served(data, "--demo") as url:
        yield url


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        chromium = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        yield chromium
        chromium.close()


@pytest.fixture
def page(browser: Browser, address: str) -> Iterator[Page]:
    context = browser.new_context(viewport={"width": 1280, "height": 800}, base_url=address, accept_downloads=True)
    context.set_default_timeout(60_000)
    page = context.new_page()
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    page.on("console", lambda said: errors.append(said.text) if "Content Security Policy" in said.text else None)
    yield page
    context.close()
    assert errors == []


@pytest.fixture
def own_art(tmp_path: Path) -> Path:
    """Four fields of known colour with exactly the wrap's number of pixels, red at the top left."""
    from PIL import Image

    from tests.conftest import quadrants

    path = tmp_path / "four-fields.png"
    picture = quadrants(2790, 2460)
    # every test gets a file of its own, for the same file again would be the same artwork
    picture[-1, -1] = [*hashlib.sha256(str(tmp_path).encode()).digest()[:3]]
    Image.fromarray(picture).save(path, dpi=(300, 300))
    return path
