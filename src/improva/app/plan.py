"""The plan of the work over all pairs, orders and samples."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from ..core.errors import PressError
from ..core.output import is_mirrored
from ..core.plan import Day, Expected, Heat, Kind, Minutes, PressBatch, Task, expected_on, plan_days, press_batches
from ..core.press import METHODS, total_seconds
from ..io.plan_files import SampleDay
from ..store import SampleRow
from ..store.models.plan import PlanModel
from ..store.order_items import ItemRow
from .order_items import order_items
from .pair import Pair
from .press import PressChoice, press_setup
from .progress import PairState, Progress, progress_of_arts
from .services import Services

TO_DO: dict[PairState, Kind] = {"fix": "fix", "picture": "picture", "list": "list"}


@dataclass(frozen=True)
class SampleOnItsWay:
    """A sample that has not arrived, its title, and when it is expected."""

    row: SampleRow
    title: str
    expected: Expected

    @property
    def day(self) -> SampleDay:
        """Return it as files show it."""
        return SampleDay(self.row.id, self.title, self.row.sample.provider, self.expected.day)


@dataclass(frozen=True)
class Plan:
    """The plan: days, batches of pressing, samples, and how many pairs have not been checked yet."""

    settings: PlanModel
    days: list[Day]
    batches: list[PressBatch]
    samples: list[SampleOnItsWay]
    unchecked: int


def heat_of(services: Services, pair: Pair) -> Heat | None:
    """Return how a pair's blank is pressed; None where it goes into no press."""
    try:
        setup = press_setup(services.store, pair.template, PressChoice())
    except PressError:
        return None
    figures = setup.figures
    return Heat(METHODS[setup.method], figures.temperature_c, total_seconds(setup.steps), figures.pressure)


def _ordered(services: Services, items: list[ItemRow], minutes: Minutes) -> list[Task]:
    """Return what orders ask for: approved items are printed or ordered, printed ones are pressed."""
    counts: dict[tuple[int, str, Kind], list[tuple[str, int]]] = {}
    pairs: dict[tuple[int, str], Pair] = {}
    for item in items:
        if item.state not in ("approved", "printed"):
            continue
        at = (item.artwork_id, item.template_id)
        pair = pairs.setdefault(at, services.pairs.load(*at))
        press = is_mirrored(pair.route)
        kind: Kind | None = ("print" if press else "order") if item.state == "approved" else "press" if press else None
        if kind:
            counts.setdefault((*at, kind), []).append((item.name, item.quantity))
    tasks = []
    for (art, template, kind), ordered in counts.items():
        pair = pairs[art, template]
        heat = heat_of(services, pair) if kind == "press" else None
        each = minutes.of(kind) + (heat.seconds / 60 if heat else 0)
        names = ", ".join(name for name, _ in ordered[:6]) + (f" and {len(ordered) - 6} more" if len(ordered) > 6 else "")
        tasks.append(Task(kind, art, template, pair.title, sum(n for _, n in ordered), each, names, heat))
    return tasks


def _of_pair(services: Services, progress: Progress, minutes: Minutes) -> list[Task]:
    """Return what a pair itself needs: its next step, and a first piece where it is pressed at home and was printed.

    A design that is ordered has its pieces from its orders instead.
    """
    pair, tasks = progress.pair, list[Task]()
    kind = TO_DO.get(progress.state)
    if kind:
        blocker = (progress.summary or {}).get("blocker") or "" if kind == "fix" else ""
        tasks.append(Task(kind, *pair.ids, pair.title, 1, minutes.of(kind), blocker))
    if "print" in progress.kinds and not progress.pressed and pair.mirrored and (heat := heat_of(services, pair)):
        tasks.append(Task("press", *pair.ids, pair.title, 1, minutes.press + heat.seconds / 60, "first piece", heat))
    return tasks


def plan_settings(services: Services) -> PlanModel:
    """Return the seller's settings of the plan."""
    return PlanModel.model_validate(services.store.selling.plan())


def make_plan(services: Services, settings: PlanModel, today: date) -> Plan:
    """Plan all work from a day on. No check is run.

    Raises :class:`ListingError` where the seller's minutes cannot hold it.
    """
    minutes, items = settings.minutes(), order_items(services)
    board = progress_of_arts(services, services.artworks.all())
    tasks = _ordered(services, items, minutes)
    ordered = {(item.artwork_id, item.template_id) for item in items}
    for progress in board:
        own = _of_pair(services, progress, minutes)
        tasks += [task for task in own if task.kind != "press" or progress.pair.ids not in ordered]
    days = plan_days(tasks, settings.start or today, settings.minutes_a_day, settings.weekends)
    return Plan(settings, days, press_batches(tasks), _samples(services), sum(p.state == "check" for p in board))


def _samples(services: Services) -> list[SampleOnItsWay]:
    rows, found = services.store.providers.samples(), []
    for row in rows:
        same = [other.sample for other in rows if other.sample.provider == row.sample.provider]
        expected = expected_on(row.sample, same)
        if expected:
            found.append(SampleOnItsWay(row, services.pairs.load(row.artwork_id, row.template_id).title, expected))
    return sorted(found, key=lambda each: each.expected.day)
