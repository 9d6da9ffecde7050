"""A process whose worker ends at once when it does the job named "poison": ``python -m tests.jobs.poison FOLDER``."""

import os
import sys
from pathlib import Path
from typing import Any

from improva.core.progress import Progress
from improva.jobs.dispatcher import JobDispatcher
from improva.jobs.worker import Outcome
from improva.store import Database
from tests.waiting import wait_until


def work(parameters: dict[str, Any], snapshot: dict[str, Any], progress: Progress) -> Outcome:
    if parameters["name"] == "poison":
        os.kill(os.getpid(), 9)
    return Outcome([parameters["name"]])


if __name__ == "__main__":
    jobs = JobDispatcher(Database(Path(sys.argv[1])), {"print": work})
    jobs.take_up()
    wait_until(lambda: not jobs.table.handed_out() and not jobs.table.waiting(1), 30)
    jobs.close()
