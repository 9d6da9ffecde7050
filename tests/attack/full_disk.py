"""A disk that fills up while the server works: a file system of its own, in memory and small."""

from __future__ import annotations

import random
import shlex
import subprocess
import time
from pathlib import Path

import numpy as np
import requests
from PIL import Image

from tests.attack.report import Report
from tests.attack.target import Target
from tests.conftest import encoded

ROOM_MB, FILLER_MB = 24, 16
"""Free space at first, and what a file takes of it that is deleted at last."""

CAN_MOUNT = ["unshare", "--map-root-user", "--mount", "mount", "-t", "tmpfs", "tmpfs", "/mnt"]


def can_have_a_small_disk() -> bool:
    """Return whether a process of this machine may have a file system of its own."""
    try:
        return subprocess.run(CAN_MOUNT, capture_output=True, check=False).returncode == 0
    except FileNotFoundError:
        return False


class SmallDisk(Target):
    """A server whose data folder is a small disk, seen by the server alone (unshare(1), tmpfs(5))."""

    def __init__(self, demo: Path, room: Path, patience: float = 1.0) -> None:
        super().__init__(demo, room, patience)
        self._demo = self.data.with_name("demo")
        self.data.rename(self._demo)
        self.data.mkdir()

    def command(self) -> list[str]:
        """Return the command that makes the disk, copies the demo to it, and starts the server."""
        used = sum(file.stat().st_size for file in self._demo.rglob("*") if file.is_file()) // 1_000_000
        data, demo = shlex.quote(str(self.data)), shlex.quote(str(self._demo))
        filler = f"head -c {FILLER_MB}000000 /dev/urandom > {data}/filler"
        script = (
            f"mount -t tmpfs -o size={used + ROOM_MB}m tmpfs {data} && cp -r {demo}/. {data} && {filler} && "
            f"exec {shlex.join(super().command())}"
        )
        return ["unshare", "--map-root-user", "--mount", "sh", "-c", script]

    def make_room(self) -> None:
        """Delete the filler."""
        (Path(f"/proc/{self._running.pid}/root") / str(self.data / "filler").lstrip("/")).unlink()


def attack_full_disk(target: SmallDisk, uploads: int, seed: int) -> Report:
    """Fill the disk with artworks, use the board while it is full, make room, and use it again."""
    report, rng, session = Report("full disk", target.patience), random.Random(seed), requests.Session()
    for artwork in session.get(f"{target.url}/api/board", timeout=60).json()["artworks"]:
        session.get(f"{target.url}/api/pairs/{artwork['id']}/mug-11oz", timeout=60)  # prepared pictures are made now, not later
    stored = _fill(session, target, report, uploads, seed)
    report.figures["artworks until it was full"] = len(stored)
    for path in ("/api/board", "/api/blanks", "/", "/api/search?words=a", *(f"/api/board/{n}" for n in (1, 2, 3))):
        _get(session, target, report, path)
    for artwork_id in (1, 2, 3, *stored[:3]):
        for template_id in ("mug-11oz", "garden-flag", "t-shirt"):
            _get(session, target, report, f"/api/pairs/{artwork_id}/{template_id}")
            _get(session, target, report, f"/api/pairs/{artwork_id}/{template_id}/cell")
            _edit(session, target, report, artwork_id, template_id, rng.uniform(0.5, 2.0))
    target.make_room()
    if not _fill(session, target, report, 1, seed + 1000):
        report.faults.append("nothing can be stored after room was made")
    for artwork_id in (1, 2, 3, *stored):
        _get(session, target, report, f"/api/pairs/{artwork_id}/mug-11oz")
        _get(session, target, report, f"/api/artworks/{artwork_id}/preview?px=100")
    if not target.lives:
        report.faults.append("the server has ended")
    return report


def _fill(session: requests.Session, target: Target, report: Report, uploads: int, seed: int) -> list[int]:
    """Send artworks until one finds no room, and return the ids of those stored."""
    stored: list[int] = []
    for number in range(uploads):
        pixels = np.random.default_rng(seed + number).integers(0, 255, (700, 900, 3), dtype=np.uint8)
        started = time.monotonic()
        files = {"file": (f"{number}.png", encoded(Image.fromarray(pixels)))}
        answer = session.post(f"{target.url}/api/artworks", files=files, timeout=60)
        report.answered(f"artwork {number}", answer.status_code, time.monotonic() - started)
        if answer.status_code == 507:
            return stored
        if answer.status_code != 201:
            report.faults.append(f"artwork {number}: {answer.text[:200]}")
            return stored
        stored.append(int(answer.json()["id"]))
    return stored


def _get(session: requests.Session, target: Target, report: Report, path: str) -> None:
    started = time.monotonic()
    answer = session.get(target.url + path, timeout=60)
    report.answered(path, answer.status_code, time.monotonic() - started)
    if answer.status_code != 200:
        report.faults.append(f"{path} cannot be read: {answer.status_code} {answer.text[:160]}")


def _edit(session: requests.Session, target: Target, report: Report, artwork_id: int, template_id: str, scale: float) -> None:
    """Store an edit: it is stored whole, or refused and not stored."""
    pair = f"{target.url}/api/pairs/{artwork_id}/{template_id}"
    before = session.get(pair, timeout=60).json()["placement"]
    body = {"fit": "contain", "shift_mm": [0, 0], "scale": scale, "rotate_deg": 0, "background": None}
    answer = session.put(f"{pair}/placement", json=body, timeout=60)
    report.answered(f"edit of {pair}", answer.status_code, 0.0)
    after = session.get(pair, timeout=60).json()["placement"]
    wanted = scale if answer.status_code == 200 else before["scale"] if before else None
    if answer.status_code not in (200, 507) or (after and after["scale"]) != wanted:
        report.faults.append(f"edit of {artwork_id} on {template_id}: {answer.status_code}, now {after}")
