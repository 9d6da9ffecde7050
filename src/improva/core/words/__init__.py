"""Words as outlines: shaped by HarfBuzz, set in lines, bent along a path, and never as pixels until they are drawn."""

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
