"""Files of every kind that can be uploaded, each valid, from which the attack makes broken ones."""

from __future__ import annotations

import io
import zipfile
from functools import cache

import numpy as np
import pikepdf
import pyvips
from PIL import Image, ImageCms

from improva.catalogue import template
from improva.core.template_file import write_toml
from improva.fonts import FONTS, font_bytes
from improva.io.scene_pack import read_info
from improva.io.scene_pack_zip import zip_pack
from improva.scenes import SHIPPED
from tests.conftest import encoded
from tests.pictures import guide_png

NOISE = np.random.default_rng(11).integers(0, 255, (120, 160, 4), dtype=np.uint8)

SVG = (
    b'<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="320" height="240">'
    b'<defs><filter id="f"><feGaussianBlur stdDeviation="3"/></filter><linearGradient id="g"><stop stop-color="red"/></linearGradient>'
    b'<pattern id="p" width="9" height="9"><path d="M0 0h5v5z"/></pattern></defs><g opacity="0.8"><rect width="90" height="60" '
    b'fill="url(#g)" filter="url(#f)"/><use xlink:href="#f"/><text x="9" y="90">Summit</text><circle r="40" fill="url(#p)"/></g></svg>'
)


def _pdf() -> bytes:
    file = io.BytesIO()
    with pikepdf.new() as pdf:
        page = pdf.add_blank_page(page_size=(360, 288))
        page.Contents = pdf.make_stream(b"1 0 0 rg 0 0 360 288 re f 0 1 0 rg 20 20 320 248 re f")
        pdf.save(file)
    return file.getvalue()


def _zip(files: dict[str, bytes]) -> bytes:
    file = io.BytesIO()
    with zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, data in files.items():
            archive.writestr(name, data)
    return file.getvalue()


def _pack() -> bytes:
    """The smallest pack that ships, under another id."""
    folder = min((path.parent for path in SHIPPED.glob("*/scene.toml")), key=lambda f: (f / "passes.exr").stat().st_size)
    packed = zipfile.ZipFile(io.BytesIO(zip_pack(read_info(folder))))
    files = {name.rpartition("/")[2]: packed.read(name) for name in packed.namelist()}
    files.pop("quick.exr", None)
    return _zip({**files, "scene.toml": files["scene.toml"].replace(folder.name.encode(), b"attack-scene")})


@cache
def seeds() -> dict[str, list[bytes]]:
    """Return valid files by the kind of upload."""
    rgb, rgba = Image.fromarray(NOISE[..., :3]), Image.fromarray(NOISE)
    turned = Image.Exif()
    turned[274] = 6
    profile = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    floats = pyvips.Image.new_from_array(NOISE[..., :3].astype(np.float32) / 255).copy(interpretation="scrgb")
    pictures = [
        encoded(rgba, dpi=(300, 300), icc_profile=profile),
        encoded(rgba.quantize(32)),
        encoded(Image.fromarray(NOISE[..., 0].astype(np.uint16) * 257)),
        encoded(rgb, "JPEG", dpi=(300, 300), exif=turned, icc_profile=profile),
        encoded(rgb, "JPEG", progressive=True),
        encoded(rgb.convert("CMYK"), "JPEG"),
        encoded(rgba, "TIFF", compression="tiff_lzw"),
        encoded(rgb, "TIFF", compression="tiff_deflate", dpi=(300, 300)),
        encoded(rgba.convert("CMYK"), "TIFF"),
        bytes(floats.tiffsave_buffer(compression="deflate")),
        encoded(rgba, "WEBP", lossless=True),
        encoded(rgb, "WEBP", quality=60),
        encoded(rgb, "GIF", save_all=True, append_images=[rgb.rotate(90)]),
        SVG,
    ]
    fonts = sorted((font_bytes(key) for key in FONTS), key=len)[:2]
    return {
        "artwork": pictures,
        "photograph": pictures[:6],
        "guide": [guide_png(), SVG, _pdf()],
        "profile": [profile, bytes(pyvips.Operation.call("profile_load", "cmyk"))],
        "font": fonts,
        "template": [write_toml(template(name)).encode() for name in ("mug-11oz", "tumbler-20oz-tapered", "t-shirt")],
        "scene pack": [_pack()],
        "orders": [b"order,name\r\nA-1,Anna\r\nA-2,Ben\r\n", "order;name\n1;Zoë\n".encode("cp1252")],
        "licence": [b"%PDF-1.7 a licence", b"any bytes"],
    }
