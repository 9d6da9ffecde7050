"""Words as vector outlines: shaped by HarfBuzz, set in lines and bent along a path. They become pixels only in the renderer."""

from .font import Font
from .layout import Block, Setting, set_words
from .path import PATHS, WordPath, bent

__all__ = [
    "PATHS",
    "Block",
    "Font",
    "Setting",
    "WordPath",
    "bent",
    "set_words",
]
