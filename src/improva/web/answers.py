"""Responses that are pictures."""

from __future__ import annotations

import pyvips
from flask import Response


def png_answer(image: pyvips.Image, compression: int = 3) -> Response:
    """Return a picture as PNG that browsers do not cache."""
    return Response(bytes(image.pngsave_buffer(compression=compression, keep="none")), mimetype="image/png")


def cached_answer(data: bytes, mimetype: str) -> Response:
    """Return a picture that browsers cache for good: its address changes with its content."""
    answer = Response(data, mimetype=mimetype)
    answer.headers["Cache-Control"] = "private, max-age=31536000, immutable"
    return answer
