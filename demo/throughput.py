"""Pictures a minute by one worker and by two, behind one queue: the figures of docs/scaling.md.

python -m demo.throughput [artworks] [workers …]
"""

from __future__ import annotations

import json
import os
import shutil
import subprocess
import sys
import tempfile
import time
from pathlib import Path

import numpy as np
from PIL import Image

PORT = 6399
URL = f"redis://127.0.0.1:{PORT}/0"
BLANKS = ("mug-11oz", "tumbler-20oz-straight", "garden-flag")


def _art(seed: int, path: Path) -> None:
    """A soft picture of 2400 × 2100 px."""
    small = np.random.default_rng(seed).integers(0, 255, (7, 8, 3), np.uint8)
    Image.fromarray(small).resize((2400, 2100), Image.Resampling.BICUBIC).save(path, quality=90)


def _warm(workers: int, folder: Path) -> list[subprocess.Popen[bytes]]:
    command = [sys.executable, "-m", "improva.cli", "worker", "--data", str(folder)]
    found = [subprocess.Popen(command, stdout=subprocess.PIPE) for _ in range(workers)]
    for process in found:
        assert process.stdout is not None
        process.stdout.readline()  # it says that it is working
    return found


def measure(arts: int, workers: int) -> tuple[int, float]:
    """How many pictures of 2000 × 2000 px were made, and in how many seconds."""
    from improva.web.app import create_app

    with tempfile.TemporaryDirectory() as place:
        folder = Path(place) / "data"
        app = create_app(folder)
        client = app.test_client()
        pairs = []
        for i in range(arts):
            path = Path(place) / f"art-{i}.jpg"
            _art(i, path)
            with path.open("rb") as file:
                art = json.loads(client.post("/api/artworks", data={"file": (file, path.name)}).data)["id"]
            pairs += [{"artwork_id": art, "template_id": blank} for blank in BLANKS]
        processes = _warm(workers, folder)
        start = time.monotonic()
        client.post("/api/batches", json={"kind": "pictures", "pairs": pairs})
        while (batch := json.loads(client.get("/api/batches").data)["batches"][0])["under_way"]:
            time.sleep(0.1)
        seconds = time.monotonic() - start
        for process in processes:
            process.terminate()
            process.wait()
        app.extensions["jobs"].close()
        assert batch["done"] == batch["jobs"] == batch["files"]
        return batch["files"], seconds


def main() -> None:
    """Measure each number of workers."""
    os.environ["IMPROVA_QUEUE"] = URL
    program = shutil.which("redis-server")
    assert program, "Debian's redis-server is missing"
    arts, counts = int((sys.argv[1:] or ["8"])[0]), [int(n) for n in sys.argv[2:]] or [1, 2]
    server = subprocess.Popen([program, "--port", str(PORT), "--save", ""], stdout=subprocess.DEVNULL)
    time.sleep(1)
    try:
        for workers in counts:
            made, seconds = measure(arts, workers)
            print(
                f"{workers} worker{'s' * (workers > 1)}: {made} pictures in {seconds:.0f} s, {60 * made / seconds:.0f} a minute"
            )
    finally:
        server.terminate()
        server.wait()


if __name__ == "__main__":
    main()
