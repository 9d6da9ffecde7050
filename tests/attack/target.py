"""The server under attack: the real one, in a process of its own, on a copy of the demo's data folder."""

from __future__ import annotations

import os
import shutil
import signal
import subprocess
import sys
import tempfile
import urllib.request
from contextlib import suppress
from pathlib import Path

from tests.browser.conftest import free_port, wait_until_up


class Target:
    """A server that can be killed and started again on its data folder.

    Args:
        demo: a data folder with the demo, which is copied.
        room: an empty folder. Only the folder ``data`` in it may be written, and the server's own temporary folder, which is
            short of name and must be empty at the end.
        patience: how many times longer than usual an answer may take.
    """

    def __init__(self, demo: Path, room: Path, patience: float = 1.0) -> None:
        self.patience = patience
        self.room, self.data = room, room / "data"
        self._temporary = Path(tempfile.mkdtemp(prefix="attack-", dir="/tmp"))
        shutil.copytree(demo, self.data)
        self._port = free_port()
        self.url = f"http://127.0.0.1:{self._port}"
        self.log = room / "server.log"
        self._process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        """Start the server and wait until it answers."""
        command = self.command()
        with self.log.open("ab") as log:
            environment = {**os.environ, "TMPDIR": str(self._temporary)}
            self._process = subprocess.Popen(command, stdout=log, stderr=log, env=environment)
        wait_until_up(f"{self.url}/api/session", self._process)

    def command(self) -> list[str]:
        """Return the command that starts the server."""
        return [sys.executable, "-m", "improva.cli", "serve", "--port", str(self._port), "--data", str(self.data)]

    @property
    def _running(self) -> subprocess.Popen[bytes]:
        assert self._process is not None, "start the server first"
        return self._process

    @property
    def lives(self) -> bool:
        """Return whether the server runs and answers."""
        if self._running.poll() is not None:
            return False
        with suppress(OSError), urllib.request.urlopen(f"{self.url}/api/session", timeout=30) as answer:
            return bool(answer.status == 200)
        return False

    def kill(self) -> None:
        """Kill the server at once, as by SIGKILL or a power cut."""
        os.kill(self._running.pid, signal.SIGKILL)
        self._running.wait()

    def stop(self) -> None:
        """End the server."""
        if self._running.poll() is None:
            self._running.terminate()
            self._running.wait(20)
        shutil.rmtree(self._temporary, ignore_errors=True)

    def memory_mb(self) -> float:
        """Return the memory of the server's own process (proc(5), VmRSS)."""
        status = Path(f"/proc/{self._running.pid}/status").read_text()
        return int(next(line for line in status.splitlines() if line.startswith("VmRSS:")).split()[1]) / 1024

    def peak_mb(self) -> float:
        """Return the most memory that the server's own process has had (proc(5), VmHWM)."""
        status = Path(f"/proc/{self._running.pid}/status").read_text()
        return int(next(line for line in status.splitlines() if line.startswith("VmHWM:")).split()[1]) / 1024

    def strays(self) -> list[str]:
        """Return files that were written outside the data folder."""
        return sorted(str(path.relative_to(self._temporary)) for path in self._temporary.rglob("*") if path.is_file())
