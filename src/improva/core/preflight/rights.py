"""Check the artwork's origin and licence."""

from __future__ import annotations

from ..origin import OWN_WORK
from .result import CheckResult
from .subject import Subject

ID, TITLE = "origin", "Origin and licence"


def _said(status: str, message: str) -> CheckResult:
    return CheckResult(ID, TITLE, status, None, None, "", message)  # type: ignore[arg-type]


def check_origin(subject: Subject) -> CheckResult | None:
    """Check whether the recorded licence covers print on demand.

    Common practice, no published source: a commercial licence may exclude print on demand, and elements sold as they
    were bought are sold by others too. What a licence says is for the seller to read; this only holds it up.
    """
    origin = subject.origin
    if origin is None:
        return None
    if not origin.source:
        return _said("pass", "No origin is recorded: record it at the Artwork station before listing.")
    named = f"Its licence{f' ({origin.licence})' if origin.licence else ''}"
    if origin.commercial is False:
        return _said("fail", f"{named} does not allow commercial use, so prints of it cannot be sold.")
    if origin.print_on_demand is False:
        return _said("fail", f"{named} excludes print on demand: do not list it, or get a licence that allows it.")
    if origin.source in OWN_WORK:
        return _said("pass", "Your own work." if origin.source == "own" else "Made to order for you.")
    if origin.print_on_demand is None:
        return _said(
            "warn", f"Whether {named[0].lower()}{named[1:]} allows print on demand is not recorded: read it, and record it."
        )
    if not subject.altered:
        return _said("warn", "A bought element used unchanged: others sell it too. Make something of your own from it.")
    return _said("pass", f"{named} allows print on demand, and the element was changed.")
