"""What hangs: a hoodie on a hanger, and a full bag on a hook."""

import numpy as np
import pytest

from studio import hung_tote
from studio.cloth.material import CANVAS
from studio.draped import hoodie, hoodie_hung, tote_hung, tshirt_hung
from studio.scenes import hoodies_hung

from .settled_cloth import crossed_edges


@pytest.fixture
def kept_only(monkeypatch: pytest.MonkeyPatch) -> None:
    for module in (hoodie_hung, tote_hung):
        monkeypatch.setattr(module, "hung", lambda: pytest.fail("not in studio/shapes_kept: bake a scene that shows it"))


@pytest.mark.usefixtures("kept_only")
def test_a_hoodie_hangs_from_its_shoulders_with_the_hood_behind() -> None:
    surface = hoodies_hung.hung()
    assert len(crossed_edges(surface, hoodie.CLOTH)) == 0
    at = {name: points for name, (_, points) in surface.panels.items()}
    every = np.concatenate(list(at.values()))
    bar = tshirt_hung.arms()
    assert every[:, 2].max() < bar[:, 2].max() + 8 and abs(at["rib-front"][:, 2].mean() + 66) < 6
    hood = np.concatenate([at["hood-left"], at["hood-right"]])
    assert hood[:, 1].mean() > 2, "behind the neck"
    for side, sign in (("left", 1), ("right", -1)):  # sleeves hang down by their own weight
        cuff = at[f"cuff-{side}"].mean(axis=0)
        assert 20 < sign * cuff[0] < 36 and cuff[2] < -55


@pytest.mark.usefixtures("kept_only")
def test_a_full_bag_hangs_from_its_handles() -> None:
    surface = hung_tote.settled()
    assert len(crossed_edges(surface, CANVAS)) == 0
    at = {name: points for name, (_, points) in surface.panels.items()}
    floor = at["gusset"][np.abs(surface.panels["gusset"][0][:, 0] - tote_hung.H - tote_hung.W / 2) < 8]
    assert -2.5 < floor[:, 2].min() < 0, "what is in it stretches it"
    upper = np.concatenate([at[name][surface.panels[name][0][:, 1] > -0.01] for name in ("front", "back")])
    at_handles = np.abs(np.abs(upper[:, 0]) - tote_hung.STRAPS + tote_hung.DRAWN_IN) < 2.5
    assert np.ptp(upper[at_handles, 1]) < 0.6 * tote_hung.DEEP, "its opening is drawn together by the handles"
    for name, sign in (("front", -1.0), ("back", 1.0)):
        line, thick = hung_tote.handle(surface.smoothed(1)[name], sign)
        assert line[:, 2].max() == pytest.approx(tote_hung.H + hung_tote.REACH + 0.62, abs=0.1)
        assert np.linalg.norm(thick, axis=1) == pytest.approx(1, abs=0.02)
        assert abs(thick[0] @ [0, sign, 0]) > 0.99 and abs(thick[len(thick) // 2] @ [0, 0, 1]) > 0.98, "flat over the peg"


def test_a_bag_is_an_open_box_before_it_is_hung() -> None:
    made, seams = tote_hung.cut_from(tote_hung.BLANK, tote_hung.CUT, 1.0, 3.0)
    at = tote_hung.placed(made)
    by_name = {panel.name: panel for panel in made}
    for (one, side), (other, opposite) in seams:
        a = at[one][by_name[one].sides[side]]
        b = at[other][by_name[other].sides[opposite]][::-1]
        assert np.abs(a - b).max() < 0.2, (one, side)
