"""Broken files over HTTP, to every address that takes a file."""

from __future__ import annotations

import hashlib
import random
import time
from pathlib import Path

import requests

from tests.attack.mutations import mutated
from tests.attack.report import Report
from tests.attack.seeds import seeds
from tests.attack.target import Target

ADDRESSES = {
    "artwork": ("POST", "/api/artworks", "art.png"),
    "photograph": ("POST", "/api/artworks?aside=true", "photo.jpg"),
    "guide": ("POST", "/api/blanks/guide", "guide.pdf"),
    "profile": ("PUT", "/api/blanks/mug-15oz/profile", "printer.icc"),
    "font": ("POST", "/api/fonts", "face.ttf"),
    "template": ("POST", "/api/blanks/import", "blank.toml"),
    "scene pack": ("POST", "/api/own-scenes/packs", "scene.zip"),
    "orders": ("POST", "/api/pairs/1/mug-11oz/orders", "orders.csv"),
    "licence": ("PUT", "/api/artworks/1/licence", "licence.pdf"),
}


def attack_uploads(target: Target, count: int, seed: int, keep: Path) -> Report:
    """Send ``count`` broken files, evenly over all kinds; those that find a fault are kept in ``keep``."""
    report, rng, session = Report("uploads", target.patience), random.Random(seed), requests.Session()
    for kind, files in seeds().items():  # the valid ones first: what is loaded once is no growth
        for data in files:
            _send(session, target, kind, data)
    before = target.memory_mb()
    kinds = list(ADDRESSES)
    for number in range(count):
        kind = kinds[number % len(kinds)]
        data = mutated(seeds()[kind], rng)
        name = hashlib.sha256(data).hexdigest()[:12]
        started = time.monotonic()
        faults = len(report.faults)
        try:
            answer = _send(session, target, kind, data)
            report.answered(f"{kind} {name}", answer.status_code, time.monotonic() - started)
            if answer.status_code == 201 and kind == "artwork":  # what was taken in can also be shown
                _show(session, target, report, answer.json()["id"])
            if answer.status_code in (201, 200) and kind == "template":
                session.delete(f"{target.url}/api/blanks/{answer.json()['template']['id']}", timeout=60)
        except requests.RequestException as broken:
            report.faults.append(f"{kind} {name}: {broken}")
        if len(report.faults) > faults:
            keep.mkdir(exist_ok=True)
            (keep / f"{kind.replace(' ', '-')}-{name}").write_bytes(data)
    report.grown(target.memory_mb() - before)
    report.figures["peak, MB"] = round(target.peak_mb())
    if strays := target.strays():
        report.faults.append(f"files outside the data folder: {strays[:5]}")
    if not target.lives:
        report.faults.append("the server has ended")
    return report


def _send(session: requests.Session, target: Target, kind: str, data: bytes) -> requests.Response:
    method, path, name = ADDRESSES[kind]
    return session.request(method, target.url + path, files={"file": (name, data)}, timeout=120)


def _show(session: requests.Session, target: Target, report: Report, artwork_id: int) -> None:
    """Ask for the picture and one pair of an artwork, and take it off the board."""
    for path in (f"/api/artworks/{artwork_id}/preview?px=200", f"/api/pairs/{artwork_id}/mug-11oz"):
        started = time.monotonic()
        answer = session.get(target.url + path, timeout=120)
        report.answered(f"{path} of a broken file", answer.status_code, time.monotonic() - started)
    session.delete(f"{target.url}/api/artworks/{artwork_id}", timeout=60)
