"""May it be sold so? What the artwork's licence allows, and whether others sell the same."""

from __future__ import annotations

from ..origin import OWN_WORK
from .subject import Subject
from .verdict import Verdict

ID, TITLE = "origin", "Where it comes from"


def _said(status: str, message: str) -> Verdict:
    return Verdict(ID, TITLE, status, None, None, "", message)  # type: ignore[arg-type]


def check_origin(subject: Subject) -> Verdict | None:
    """Whether the noted licence covers prints that are made to order and sold; none where nothing can be known.

    Common practice, no published source: a commercial licence may exclude print on demand, and elements sold as they
    were bought are sold by others too. What a licence says is for the seller to read; this only holds it up.
    """
    origin = subject.origin
    if origin is None:
        return None
    if not origin.source:
        return _said("pass", "Nothing is noted of where it comes from: note it at the Artwork station before listing.")
    named = f"Its licence{f' ({origin.licence})' if origin.licence else ''}"
    if origin.commercial is False:
        return _said("fail", f"{named} does not allow commercial use, so prints of it cannot be sold.")
    if origin.print_on_demand is False:
        return _said("fail", f"{named} excludes print on demand: do not list it, or get a licence that allows it.")
    if origin.source in OWN_WORK:
        return _said("pass", "Your own work." if origin.source == "own" else "Made to order for you.")
    if origin.print_on_demand is None:
        return _said(
            "warn", f"Whether {named[0].lower()}{named[1:]} allows print on demand is not noted: read it, and note it."
        )
    if not subject.altered:
        return _said("warn", "A bought element used as it came: others sell it too. Make something of your own from it.")
    return _said("pass", f"{named} allows print on demand, and the element was changed.")
