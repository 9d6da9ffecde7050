"""The page's own files, and the server as it is started."""

import os
import shutil
import signal
import subprocess
import sys
from pathlib import Path

import pytest

from improva.web import app as web_app
from improva.web import page_files
from tests.browser.conftest import free_port, wait_until_up
from tests.web.client import ApiClient, client_of


@pytest.fixture
def client(tmp_path: Path) -> ApiClient:
    return client_of(web_app.create_app(tmp_path))


@pytest.mark.parametrize("path", ["/", "/bench/1/tumbler-20oz-straight/fit", "/blanks/mug-11oz", "/gang"])
def test_every_address_of_the_page_serves_its_document(client: ApiClient, path: str) -> None:
    answer = client.get(path)
    assert answer.status_code == 200 and b'<div id="root">' in answer.data
    assert answer.headers["Cache-Control"] == "no-cache"


def test_hashed_files_are_cached_for_ever(client: ApiClient) -> None:
    script = next((page_files.PAGE / "assets").glob("*.js")).name
    assert "immutable" in client.get(f"/assets/{script}").headers["Cache-Control"]


@pytest.mark.parametrize("path", ["/../../../etc/passwd", "/assets/..%2f..%2f..%2fapp.py", "/%2e%2e/app.py"])
def test_nothing_but_the_page_is_served(client: ApiClient, path: str) -> None:
    assert b"root:" not in client.get(path).data and b"def create_app" not in client.get(path).data


def test_a_missing_build_is_reported(client: ApiClient, monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    monkeypatch.setattr(page_files, "PAGE", tmp_path / "nowhere")
    answer = client.get("/")
    assert answer.status_code == 503 and "make demo" in answer.json["detail"]


def test_a_killed_server_restarts_with_everything(tmp_path: Path, demo_folder: Path) -> None:
    shutil.copytree(demo_folder, tmp_path, dirs_exist_ok=True)
    port = free_port()
    command = [sys.executable, "-m", "improva.cli", "serve", "--demo", "--port", str(port), "--data", str(tmp_path)]
    for _ in range(2):
        server = subprocess.Popen(command)
        wait_until_up(f"http://127.0.0.1:{port}/api/board", server)
        os.kill(server.pid, signal.SIGKILL)
        server.wait()
    board = client_of(web_app.create_app(tmp_path)).get("/api/board").json
    assert len(board["artworks"]) == 7
