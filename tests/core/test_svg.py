import base64

import pytest
from PIL import Image

from improva.core.artwork.pixels import Artwork, as_array
from improva.core.artwork.svg import draw_svg
from improva.core.errors import ArtworkError
from tests.conftest import encoded

BOX = '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="2in" height="1in" viewBox="0 0 200 100">{}</svg>'


def svg(inside: str, before: str = "") -> bytes:
    return (before + BOX.format(inside)).encode()


def test_lines_are_drawn_at_the_requested_size() -> None:
    art = Artwork.read(svg('<rect width="100" height="100" fill="#dc1e1e"/>'))
    # CSS Values and Units 3, 6.2: 1 in is 96 px
    assert art.facts.vector and art.facts.px == (192, 96)
    drawn = as_array(art.image((2000, 1000)))
    assert drawn.shape[:2] == (1000, 2000)
    assert tuple(drawn[500, 500]) == (220, 30, 30, 255) and drawn[500, 1500, 3] == 0
    assert drawn[500, 998, 3] == 255 and drawn[500, 1001, 3] == 0


@pytest.mark.parametrize(
    "inside",
    [
        '<image href="file:///etc/passwd" width="10" height="10"/>',
        '<image xlink:href="../secret.png" width="10" height="10"/>',
        '<use href="other.svg#part"/>',
        '<style>@import url("http://example.org/a.css");</style>',
        "<style>rect { fill: url(http://example.org/a.svg#p) }</style>",
        '<rect style="fill:url(\'/tmp/pattern.svg#p\')" width="9" height="9"/>',
        '<feImage href="//example.org/x.png"/>',
        '<script src="x.js"/>',
    ],
)
def test_references_to_other_files_are_refused_never_read(inside: str) -> None:
    with pytest.raises(ArtworkError, match="points to another file"):
        Artwork.read(svg(inside))


def test_references_within_the_drawing_are_allowed() -> None:
    picture = base64.b64encode(encoded(Image.new("RGB", (4, 4), "red"))).decode()
    art = Artwork.read(
        svg(
            '<defs><linearGradient id="g"><stop stop-color="#f00"/></linearGradient></defs><rect width="9" height="9" fill="url(#g)"/>'
            f'<image href="data:image/png;base64,{picture}" width="50" height="50"/>'
        )
    )
    assert art.facts.embeds_raster and any("pixels" in note for note in art.facts.notes)


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"<svg xmlns='http://www.w3.org/2000/svg'><g>", "not well formed"),
        (svg("&a;", '<!DOCTYPE svg [<!ENTITY a SYSTEM "file:///etc/passwd">]>'), "entities"),
        (svg("&a;", '<!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]>'), "entities"),
        (svg("", '<?xml-stylesheet href="a.css"?>'), "style sheet"),
        (b'<drawing><svg xmlns="http://www.w3.org/2000/svg"/></drawing>', "not an SVG"),
        (BOX.format("").replace("2in", "900in").encode(), "megapixels"),
    ],
)
def test_errors_in_a_drawing_are_reported(data: bytes, says: str) -> None:
    with pytest.raises(ArtworkError, match=says):
        Artwork.read(data)


@pytest.mark.parametrize("scale", [0.37, 1.0, 1.5, 2.43])
def test_a_drawing_covers_its_last_row_and_column_so_that_it_can_repeat(scale: float) -> None:
    """310 × 273.33 px: at no scale are both sides whole numbers, and a partly covered edge would show as a hairline between
    tiles.
    """
    svg = b'<svg xmlns="http://www.w3.org/2000/svg" width="310" height="273.3333" viewBox="0 0 310 273.3333"><rect width="310" height="273.3333" fill="#246"/></svg>'
    assert int(draw_svg(svg, scale)[3].min()) == 255
    letterboxed = svg.replace(b'height="273.3333" viewBox', b'height="500" viewBox')
    assert int(draw_svg(letterboxed, scale)[3].min()) == 0, "what its author left bare stays bare"


SHADOW = (
    '<filter id="f"><feGaussianBlur stdDeviation="2"/><feOffset dx="1"/><feMerge><feMergeNode/><feMergeNode in="SourceGraphic"/>'
    "</feMerge></filter>"
)


@pytest.mark.parametrize(
    "body",
    [
        SHADOW + '<rect filter="url(#f)" width="9" height="9"/>' * 12,
        '<g opacity="0.5">' * 5 + '<rect width="9" height="9"/>' + "</g>" * 5,
        '<g opacity="1">' * 50 + '<rect width="9" height="9"/>' + "</g>" * 50,
        '<g filter="none" mask="none" style="mix-blend-mode:normal">' * 50 + '<rect width="9" height="9"/>' + "</g>" * 50,
        '<g fill-opacity="0.5" clip-path="url(#c)">' * 50 + '<rect width="9" height="9"/>' + "</g>" * 50,
    ],
)
def test_shadows_and_ordinary_transparency_are_drawn(body: str) -> None:
    assert Artwork.read(svg(body)).facts.vector


@pytest.mark.parametrize(
    ("body", "says"),
    [
        ('<filter id="f"><feTurbulence/></filter>', "feTurbulence"),
        ('<filter id="f"><feMorphology radius="9"/></filter>', "feMorphology"),
        ('<filter id="f"><feConvolveMatrix order="99"/></filter>', "feConvolveMatrix"),
        ('<filter id="f"><feImage href="#a"/></filter>', "feImage"),
        ('<filter id="f">' + "<feOffset/>" * 9 + "</filter>", "9 steps"),
        (SHADOW + '<rect filter="url(#f)" width="9" height="9"/>' * 13, "13 filtered parts"),
        (SHADOW + '<rect style="filter: url(#f)" width="9" height="9"/>' * 13, "13 filtered parts"),
        (SHADOW + "<style>.s{filter:url(#f)}</style>" + '<rect class="s"/>' * 13, "13 filtered parts"),
        (SHADOW + "<style>rect{filter:url(#f)}</style>" + "<rect/>" * 13, "13 filtered parts"),
        ('<g opacity=".5">' * 6 + "</g>" * 6, "see-through groups"),
        ('<g style="opacity:50%">' * 6 + "</g>" * 6, "see-through groups"),
        ('<g mask="url(#m)">' * 6 + "</g>" * 6, "see-through groups"),
        ("<style>#a, .b { mix-blend-mode: multiply }</style>" + '<g class="b">' * 6 + "</g>" * 6, "see-through groups"),
    ],
)
def test_drawings_that_cost_too_much_are_refused(body: str, says: str) -> None:
    with pytest.raises(ArtworkError, match=says):
        Artwork.read(svg(body))
