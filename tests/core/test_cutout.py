"""The product without its background, compared with what the rules of compositing give."""

from dataclasses import replace

import numpy as np
import pytest

from improva.core.colour import LINEAR_OF_BYTE
from improva.core.errors import OutputError, SceneError
from improva.core.mockup.composite import ShadedView, composite, composite_light, shade_plain_parts
from improva.core.mockup.cutout import DEEPEST, EDGE, cut_out, on_photograph, transparent
from improva.core.mockup.render import encode
from improva.core.mockup.tone import CODES, RANGE, table
from improva.core.mockup.view import make_view
from tests.scenery import PX, standing

RED = {"wrap": np.broadcast_to(np.array([0.05, 0.1, 0.8], np.float32), (8, 8, 3)).copy()}


def shaded(shadow: float = 0.6) -> ShadedView:
    return shade_plain_parts(make_view(*standing(shadow=shadow), PX), {"table": "White"})


def test_the_cut_out_in_linear_light_agrees_with_the_picture() -> None:
    found = composite_light(shaded(), RED)
    codes = np.clip(found + 0.5, 0, CODES).astype(np.uint16)
    assert np.abs(table()[0][codes].astype(int) - composite(shaded(), RED).astype(int)).max() <= 1
    assert RANGE == 4


def test_the_product_is_opaque_the_background_is_removed_and_the_shadow_stays() -> None:
    picture = transparent(cut_out(shaded(), RED, 0))
    whole = composite(shaded(), RED)[..., ::-1]
    inside = (slice(20, 52), slice(32, 64))
    assert (picture[inside][..., 3] == 255).all()
    assert np.abs(picture[inside][..., :3].astype(int) - whole[inside].astype(int)).max() <= 1
    assert picture[5, 20, 3] == 0
    shadow = picture[36, 72]
    assert shadow[:3].max() <= 1 and 0.3 * 255 < shadow[3] <= DEEPEST * 0.6 * 255 + 1


def test_a_shadow_fades_out_before_the_picture_ends() -> None:
    picture = transparent(cut_out(shaded(), RED, 0))
    assert picture[:, 89, 3].max() < picture[36, 80, 3]
    assert picture[0, 70, 3] <= picture[round(EDGE * PX[0]), 70, 3]


def test_no_fringe_of_the_background_is_left_at_the_edge() -> None:
    """Half-covered pixels keep the product's colour: no white background shows on black."""
    info, passes = standing()
    assert passes.cover is not None
    cover = passes.cover.copy()
    cover[18, 30:66] = 0.5
    basis = {"wrap": passes.basis["wrap"] * cover[..., None], "table": 0.5 * (1 - cover)[..., None] * np.ones(3, np.float32)}
    view = make_view(info, replace(passes, basis=basis, cover=cover), PX)
    picture = transparent(cut_out(shade_plain_parts(view, {"table": "White"}), RED, 0)).astype(int)
    assert np.abs(picture[18, 48, :3] - picture[30, 48, :3]).max() <= 6 and abs(picture[18, 48, 3] - 128) <= 2


def test_the_product_stands_where_it_is_placed_on_a_photograph() -> None:
    photo = np.full((300, 400, 3), 200, np.uint8)
    made, cover = on_photograph(cut_out(shaded(0.0), RED, 0), photo, (0.25, 0.9), 0.4)
    assert cover[250, 100] == 1 and cover[5, 390] == 0
    red = made[..., 0].astype(int) - made[..., 1] > 60
    rows, columns = np.flatnonzero(red.any(axis=1)), np.flatnonzero(red.any(axis=0))
    assert rows[-1] == pytest.approx(0.9 * 300, abs=4) and rows[-1] - rows[0] == pytest.approx(0.4 * 300, abs=6)
    assert (columns[0] + columns[-1]) / 2 == pytest.approx(100, abs=2)
    assert np.array_equal(made[5, 390], photo[5, 390])


def test_the_product_can_be_small_on_a_photograph() -> None:
    photo = np.full((60, 80, 3), 200, np.uint8)
    made, cover = on_photograph(cut_out(shaded(0.0), RED, 0), photo, (0.5, 0.9), 0.15)
    assert (cover > 0.5).sum() == pytest.approx(9 * 9, abs=12) and made[50, 40, 0].astype(int) - made[50, 40, 1] > 60


def test_its_shadow_darkens_the_photograph() -> None:
    photo = np.full((300, 400, 3), 200, np.uint8)
    made, _ = on_photograph(cut_out(shaded(0.6), RED, 0), photo, (0.5, 0.8), 0.5)
    dark = made[200, 285:300].mean()
    taken = 1 - LINEAR_OF_BYTE[round(dark)] / LINEAR_OF_BYTE[200]
    assert 0.2 < taken <= DEEPEST * 0.6 + 0.05


def test_impossible_cut_outs_are_reported() -> None:
    view = make_view(*standing(), PX)
    plain = shade_plain_parts(replace(view, cover=None), {"table": "White"})
    with pytest.raises(SceneError, match="does not say"):
        cut_out(plain, RED, 0)
    with pytest.raises(OutputError, match="cannot be transparent"):
        encode(transparent(cut_out(shaded(), RED, 0)), ".jpg")
    bare = shade_plain_parts(replace(view, cover=None if view.cover is None else view.cover * 0), {"table": "White"})
    with pytest.raises(SceneError, match="Nothing of the product"):
        on_photograph(cut_out(bare, RED, 0), np.zeros((40, 40, 3), np.uint8), (0.5, 0.5), 0.5)
