"""A range is laid out with the page's own scales."""

from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from improva.app.services import Services
from improva.core.artwork.pixels import Artwork
from improva.core.artwork.traits import find_traits
from improva.io.range_file import read_range
from improva.jobs.range_run import _laid_out
from improva.store.database import Database
from tests.conftest import encoded


@pytest.mark.parametrize(("fit", "scale"), [('"contain"', 0.904), ('{ fit = "contain", scale = 1.0 }', 1.0)])
def test_a_contained_cut_out_gets_room_unless_the_file_says_its_scale(tmp_path: Path, fit: str, scale: float) -> None:
    pixels = np.zeros((300, 300, 4), np.uint8)
    pixels[50:250, 50:250] = (90, 40, 120, 255)
    (tmp_path / "cut.png").write_bytes(encoded(Image.fromarray(pixels)))
    (tmp_path / "range.toml").write_text(f'art = ["cut.png"]\ntemplates = ["pillow-shaped"]\n[fit]\npillow-shaped = {fit}\n')
    plan = read_range(tmp_path / "range.toml")
    services = Services(Database(tmp_path / "data"))
    traits = [find_traits(Artwork.read(plan.arts[0].read_bytes()))]
    ((artwork_id, template_id),) = _laid_out(services, plan, traits)
    pair = services.pairs.load(artwork_id, template_id)
    placement = pair.placement(pair.template.panels[0])
    assert placement is not None and placement.fit == "contain" and placement.scale == pytest.approx(scale)
