"""What can go wrong as the server starts: one line that says what to do, and exit status 2."""

import re
import shutil
import socket
import subprocess
import sys
from collections.abc import Callable
from pathlib import Path

import pytest
from click.testing import CliRunner

from improva.app.errors import NotFoundError
from improva.app.render_cache import RenderCache
from improva.cli import main
from improva.core.progress import UNWATCHED
from improva.jobs.handlers import handlers
from improva.store import Database
from improva.store.folder_lock import FolderInUseError, FolderLock
from improva.store.snapshot import take_snapshot
from tests.browser.conftest import free_port, served


def start(*arguments: str) -> subprocess.CompletedProcess[str]:
    command = [sys.executable, "-m", "improva.cli", "serve", *arguments]
    return subprocess.run(command, capture_output=True, text=True, timeout=60, check=False)


def says_in_one_line(ended: subprocess.CompletedProcess[str], words: str) -> bool:
    lines = [line for line in ended.stderr.splitlines() if line]
    return ended.returncode == 2 and len(lines) == 1 and re.search(words, lines[0]) is not None


def _torn(folder: Path) -> None:
    database = Database(folder)
    database.keep_setting("words", "x" * 300_000)
    database.connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    database.close()
    file = folder / "improva.sqlite"
    data = bytearray(file.read_bytes())
    data[8192:-4096] = b"\xa5" * (len(data) - 4096 - 8192)
    file.write_bytes(data)


def _no_database(folder: Path) -> None:
    folder.mkdir()
    (folder / "improva.sqlite").write_bytes(b"this was never a database" * 400)


@pytest.mark.parametrize("damage", [_torn, _no_database])
def test_a_corrupt_database_is_reported(tmp_path: Path, damage: Callable[[Path], None]) -> None:
    damage(tmp_path / "data")
    ended = start("--data", str(tmp_path / "data"), "--port", str(free_port()))
    assert says_in_one_line(ended, "damaged.*improva restore"), ended.stderr


def test_a_folder_that_cannot_be_made_is_reported(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("a file")
    ended = start("--data", str(tmp_path / "file" / "data"), "--port", str(free_port()))
    assert says_in_one_line(ended, "cannot be used.*can be written"), ended.stderr


@pytest.mark.parametrize("port", ["taken", "70000"])
def test_a_port_that_cannot_be_had_is_reported(tmp_path: Path, port: str) -> None:
    with socket.create_server(("127.0.0.1", 0)) as taken:
        wanted = str(taken.getsockname()[1]) if port == "taken" else port
        ended = start("--data", str(tmp_path), "--port", wanted)
    assert says_in_one_line(ended, f"127.0.0.1:{wanted} cannot be listened at.*--port"), ended.stderr


def test_a_second_server_on_one_folder_says_who_has_it(tmp_path: Path, demo_folder: Path) -> None:
    data = tmp_path / "data"
    shutil.copytree(demo_folder, data)
    with served(data) as url:
        ended = start("--data", str(data), "--port", str(free_port()))
        assert says_in_one_line(ended, f"served already at {url}/ .process [0-9]+ on "), ended.stderr
    with served(data):
        pass


def test_the_lock_is_released_with_its_holder(tmp_path: Path) -> None:
    first = FolderLock(tmp_path, "http://127.0.0.1:1/")
    with pytest.raises(FolderInUseError, match=r"http://127\.0\.0\.1:1/"):
        FolderLock(tmp_path, "http://127.0.0.1:2/")
    first.release()
    FolderLock(tmp_path, "http://127.0.0.1:3/").release()


@pytest.mark.parametrize("content", [b"", b"hello", b"PK\x03\x04 torn"])
def test_a_corrupt_backup_is_reported(tmp_path: Path, content: bytes) -> None:
    (tmp_path / "b.zip").write_bytes(content)
    ended = CliRunner().invoke(main, ["restore", str(tmp_path / "b.zip"), "--data", str(tmp_path / "new")])
    assert ended.exit_code == 2 and ended.output.count("\n") == 1 and "cannot be read as a backup" in ended.output


def test_leftovers_of_killed_processes_are_swept_at_the_start(tmp_path: Path, demo_folder: Path) -> None:
    data = tmp_path / "data"
    shutil.copytree(demo_folder, data)
    dead = subprocess.run([sys.executable, "-c", "import os; print(os.getpid())"], capture_output=True, text=True, check=True)
    host = socket.gethostname()[:40]
    left = data / "work" / f".job~{host}~{dead.stdout.strip()}~abc"
    left.mkdir(parents=True)
    (left / "snapshot.sqlite").write_bytes(b"private records")
    with served(data):
        assert not left.exists()


def test_jobs_leave_nothing_behind_and_work_in_the_data_folder(tmp_path: Path) -> None:
    database = Database(tmp_path)
    with pytest.raises(NotFoundError):  # there is no such artwork: the job fails in the middle
        handlers(tmp_path, RenderCache())["print"](
            {"artwork_id": 1, "template_id": "mug-11oz"}, take_snapshot(database, [], [], []), UNWATCHED
        )
    assert list((tmp_path / "work").iterdir()) == []
