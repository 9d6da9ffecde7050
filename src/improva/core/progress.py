"""Progress and cancellation of long work."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pyvips

from .errors import Stopped


class Progress:
    """Report progress while files are written, and stop on request.

    Args:
        report: called with the finished share, 0…1, at every further hundredth.
        stopped: called regularly; returns whether to stop.
    """

    def __init__(self, report: Callable[[float], None] | None = None, stopped: Callable[[], bool] | None = None) -> None:
        self._report, self._stopped = report, stopped
        self._percent = -1
        self._from, self._to = 0.0, 1.0

    def part(self, start: float, end: float) -> Progress:
        """Return the progress of a part of the work, in shares of the whole."""
        span = self._to - self._from
        part = Progress(self._report, self._stopped)
        part._from, part._to = self._from + span * start, self._from + span * end
        return part

    def at(self, share: float) -> None:
        """Report the share that is done. Raises :class:`Stopped` on request."""
        self.check()
        percent = int(100 * (self._from + (self._to - self._from) * share))
        if self._report and percent != self._percent:
            self._percent = percent
            self._report(percent / 100)

    def follow(self, image: pyvips.Image) -> pyvips.Image:
        """Return an image that reports its computation; a stop request ends it with a libvips error."""
        if self._report is None and self._stopped is None:
            return image
        followed = image.copy()
        followed.set_progress(True)

        def along(_: Any, progress: Any) -> None:
            try:
                self.at(progress.percent / 100)
            except Stopped:
                followed.set_kill(True)

        followed.signal_connect("eval", along)
        return followed

    def check(self) -> None:
        """Raise :class:`Stopped` if a stop was requested."""
        if self._stopped and self._stopped():
            raise Stopped("Stopped before it was done; nothing was written.")


UNWATCHED = Progress()
"""A progress without a listener."""
