"""Generated calls of the whole API, with every answer held against the API document (schemathesis)."""

from __future__ import annotations

import random
import time
from typing import Any

import schemathesis
from hypothesis import HealthCheck, Phase, given, seed, settings
from jsonschema import Draft202012Validator
from schemathesis.core.result import Ok
from schemathesis.specs.openapi.checks import content_type_conformance, status_code_conformance

from improva.catalogue import templates
from tests.attack.report import SLOW_S, Report
from tests.attack.target import Target

CHECKS = [status_code_conformance, content_type_conformance]
"""Checks of schemathesis. Its check of bodies does not read tuples of OpenAPI 3.1 (prefixItems); jsonschema does it here."""

KNOWN: dict[str, list[Any]] = {
    "artwork_id": [1, 2, 3, 5],
    "template_id": list(templates()),
    "panel_id": ["wrap", "front", "back"],
    "scene_id": [1, 2],
    "sample_id": [1, 2],
    "pressing_id": [1, 2],
    "job_id": [1, 2, 3],
    "batch_id": [1],
    "number": [0, 1],
}
"""Parts of addresses that exist in the demo's data folder: without them nearly every answer would be 404."""

SHARE_KNOWN = 0.85

WARMING_CALLS = 3
"""Calls of each operation before memory is compared: the server's caches fill up to their limits (docs/adr/0024)."""


def attack_api(target: Target, each: int, start: int) -> Report:
    """Call every operation ``each`` times with values made from its description."""
    report, rng = Report("API calls", target.patience), random.Random(start)
    schema = schemathesis.openapi.from_url(f"{target.url}/api/document/openapi.json")
    operations = [found.ok() for found in schema.get_all_operations() if isinstance(found, Ok)]
    validators = [_validators(schema.raw_schema, operation) for operation in operations]
    first = min(each, WARMING_CALLS)
    for operation, own in zip(operations, validators, strict=True):
        _attack(operation, own, first, start, rng, report)
    before = target.memory_mb()
    for operation, own in zip(operations, validators, strict=True):
        _attack(operation, own, each - first, start + 1, rng, report)
    report.grown(target.memory_mb() - before)
    report.figures["operations"] = len(operations)
    report.figures["peak, MB"] = round(target.peak_mb())
    if not target.lives:
        report.faults.append("the server has ended")
    return report


def _validators(document: dict[str, Any], operation: Any) -> dict[int, Draft202012Validator]:
    """Return what validates the JSON of an operation's answers, by status."""
    found = {}
    for status, answer in document["paths"][operation.path][operation.method.lower()]["responses"].items():
        described = document["components"]["responses"][status] if "$ref" in answer else answer
        for kind, content in described.get("content", {}).items():
            if kind.endswith("json"):
                found[int(status)] = Draft202012Validator({**content["schema"], "components": document["components"]})
    return found


def _attack(
    operation: Any, validators: dict[int, Draft202012Validator], each: int, start: int, rng: random.Random, report: Report
) -> None:
    if each < 1:
        return

    @seed(start)
    @settings(
        max_examples=each,
        database=None,
        deadline=None,
        suppress_health_check=list(HealthCheck),
        phases=[Phase.explicit, Phase.generate],
    )
    @given(case=operation.as_strategy())
    def call(case: Any) -> None:
        for name, values in KNOWN.items():
            if name in (case.path_parameters or {}) and rng.random() < SHARE_KNOWN:
                case.path_parameters[name] = rng.choice(values)
        started = time.monotonic()
        answer = case.call(timeout=2 * SLOW_S * report.patience)
        report.answered(operation.label, answer.status_code, time.monotonic() - started)
        try:
            case.validate_response(answer, checks=CHECKS)
        except BaseExceptionGroup as found:
            report.faults += [
                f"{operation.label} {answer.status_code}: {str(each).splitlines()[0]}" for each in found.exceptions
            ]

    call()
