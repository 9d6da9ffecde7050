"""The long attack: ``python -m tests.attack`` (``make attack``). Prints what it finds; ends with 1 where there are faults."""

from __future__ import annotations

import argparse
import sys
import tempfile
from pathlib import Path

from improva.demo import lay_out
from improva.store import Database
from tests.attack.api_calls import attack_api
from tests.attack.full_disk import SmallDisk, attack_full_disk, can_have_a_small_disk
from tests.attack.kills import attack_by_kills
from tests.attack.report import Report
from tests.attack.target import Target
from tests.attack.uploads import attack_uploads


def main() -> int:
    """Attack a server on the demo's data."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--uploads", type=int, default=10_000, help="broken files")
    parser.add_argument("--calls", type=int, default=50, help="generated calls of each operation of the API")
    parser.add_argument("--kills", type=int, default=200)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--keep", type=Path, default=Path("build/attack"), help="where files that find faults are kept")
    chosen = parser.parse_args()
    reports: list[Report] = []
    with tempfile.TemporaryDirectory() as place:
        demo = Path(place) / "demo"
        database = Database(demo)
        lay_out(database)
        database.close()
        attacks = (
            lambda target: attack_uploads(target, chosen.uploads, chosen.seed, chosen.keep),
            lambda target: attack_api(target, chosen.calls, chosen.seed),
            lambda target: attack_by_kills(target, chosen.kills, chosen.seed),
        )
        for number, attack in enumerate(attacks):
            room = Path(place) / f"room-{number}"
            room.mkdir()
            target = Target(demo, room)
            target.start()
            try:
                reports.append(attack(target))
            finally:
                target.stop()
            print("\n".join(reports[-1].lines()), flush=True)
        if can_have_a_small_disk():
            room = Path(place) / "room-disk"
            room.mkdir()
            disk = SmallDisk(demo, room)
            disk.start()
            try:
                reports.append(attack_full_disk(disk, 100, chosen.seed))
            finally:
                disk.stop()
            print("\n".join(reports[-1].lines()), flush=True)
        else:
            print("full disk: not tried, a process may not have a file system of its own here")
    return 1 if any(report.faults for report in reports) else 0


if __name__ == "__main__":
    sys.exit(main())
