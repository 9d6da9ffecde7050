"""Response model of pressing."""

from __future__ import annotations

from dataclasses import asdict

from ...app.press import press_setup
from ...core.press import CAUTIONS, FAULTS, METHODS, methods_of, total_seconds
from ...core.press.suggestion import RULE
from ...core.template import Template
from ...store import Store
from ..schemas.press import CauseOut, FaultOut, FiguresIn, LogEntryOut, PressIn, PressQuery, PressStateOut, PressStepOut


def press_out(store: Store, template: Template, query: PressQuery) -> PressStateOut:
    """Return the pressing plan of a pair with presses, faults and log."""
    setup = press_setup(store, template, query.to_choice())
    method, press, suggestion, steps = setup.method, setup.press, setup.suggestion, setup.steps
    presses = {p.name: p for p in [*store.pressings.presses(method), press]}
    return PressStateOut(
        method=method,
        methods={m: METHODS[m] for m in methods_of(template)},
        press=press.name,
        presses=[PressIn(name=p.name, method=p.method, platen_mm=p.platen_mm) for p in presses.values()],
        finish=setup.finish,
        finishes=list(template.finishes),
        by="maker" if setup.by_maker else "log",
        figures=FiguresIn.of(setup.figures),
        suggested=FiguresIn.of(suggestion.figures) if setup.log else None,
        why=list(suggestion.why),
        rule=RULE,
        common=FiguresIn.of(setup.common),
        maker=FiguresIn.of(setup.maker) if setup.maker else None,
        steps=[
            PressStepOut(
                do=s.do,
                kind=s.kind,
                lie=s.lie,
                seconds=s.seconds,
                temperature_c=s.temperature_c,
                temperature_f=s.temperature_f,
                pressure=s.pressure,
                box=s.part.box if s.part else None,
            )
            for s in steps
        ],
        total_s=total_seconds(steps),
        print_mm=setup.panel.file_mm,
        cautions=list(CAUTIONS),
        faults=[
            FaultOut(id=f.id, title=f.title, looks=f.looks, causes=[CauseOut(**asdict(c)) for c in f.causes]) for f in FAULTS
        ],
        log=[
            LogEntryOut(
                id=row.pressing.id,
                on=row.pressing.on,
                figures=FiguresIn.of(row.pressing.figures),
                result=row.pressing.result,
                faults=list(row.pressing.faults),
                note=row.pressing.note,
                photo=row.photo is not None,
                counts=row.pressing.id in suggestion.evidence,
            )
            for row in setup.log
        ],
    )
