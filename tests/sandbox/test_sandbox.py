"""Child processes with limits: what exceeds them is killed and answered with a sentence, and the next file is read as usual.

Limits are those of setrlimit(2), POSIX.1-2017.
"""

import os
import signal
from collections.abc import Iterator
from pathlib import Path

import pytest

from improva.core.errors import ArtworkError, SceneError
from improva.sandbox import Here, LimitError, Sandbox, SandboxError, Task
from tests.sandbox import tasks
from tests.waiting import wait_until


@pytest.fixture(scope="module")
def sandbox() -> Iterator[Sandbox]:
    made = Sandbox(("tests.sandbox.tasks",))
    yield made
    made.close()


@pytest.mark.parametrize("size", [0, 5, 900_000])
def test_a_file_is_read_as_it_is_here(sandbox: Sandbox, size: int) -> None:
    data = os.urandom(size)
    there, here = sandbox.read(tasks.COUNT, data, 2), Here().read(tasks.COUNT, data, 2)
    assert there.values["bytes"] == here.values["bytes"] == 2 * size
    assert there.blobs == here.blobs and there.values["process"] != os.getpid()


def test_a_process_reads_several_files(sandbox: Sandbox) -> None:
    used = {sandbox.read(tasks.COUNT, b"abc").values["process"] for _ in range(8)}
    assert len(used) <= 2


@pytest.mark.parametrize(
    ("task", "arguments", "words"),
    [
        (tasks.FILL_MEMORY, (1500,), "200 MB of memory"),
        (tasks.TURN_FOR_EVER, (), "1 seconds"),
        (tasks.SLEEP, (), "0 seconds"),
        (tasks.ANSWER_MUCH, (), "more than 1 MB"),
        (tasks.DIE, (signal.SIGSEGV,), "is damaged"),
        (tasks.DIE, (signal.SIGKILL,), "is damaged"),
    ],
)
def test_what_exceeds_a_limit_is_answered_and_the_next_file_is_read(
    sandbox: Sandbox, task: Task, arguments: tuple[int, ...], words: str
) -> None:
    with pytest.raises(LimitError, match=words):
        sandbox.read(task, b"file", *arguments)
    assert sandbox.read(tasks.COUNT, b"abc").values["bytes"] == 3


def test_memory_below_the_limit_can_be_used_again_and_again(sandbox: Sandbox) -> None:
    for _ in range(5):
        assert sandbox.read(tasks.FILL_MEMORY, b"", 90).values["filled"] == 90_000_000


def test_a_file_that_grows_too_large_is_stopped(sandbox: Sandbox, tmp_path: Path) -> None:
    with pytest.raises(ArtworkError, match="cannot be written"):
        sandbox.read(tasks.WRITE_MUCH, b"", str(tmp_path / "large"))
    assert (tmp_path / "large").stat().st_size <= 1_000_000


@pytest.mark.parametrize("reader", [Here(), "sandbox"])
def test_errors_keep_their_kind_and_their_sentence(sandbox: Sandbox, reader: Here | str) -> None:
    read = sandbox.read if isinstance(reader, str) else reader.read
    with pytest.raises(SceneError, match="not one"):
        read(tasks.REFUSE, b"")
    with pytest.raises(ArtworkError, match="This is damaged"):
        read(tasks.STUMBLE, b"")


def test_a_temporary_folder_with_a_long_name_is_reported(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """Sockets in it could not be reached, and every file would be answered with an error."""
    long = tmp_path / ("a" * 80)
    long.mkdir()
    monkeypatch.setattr("tempfile.tempdir", str(long))
    with pytest.raises(SandboxError, match="TMPDIR"):
        Sandbox()


def test_no_process_is_left_behind() -> None:
    own = Sandbox(("tests.sandbox.tasks",))
    process = own.read(tasks.COUNT, b"").values["process"]
    own.close()

    def gone() -> bool:
        return not Path(f"/proc/{process}").exists()

    wait_until(gone, 10)
