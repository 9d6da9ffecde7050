"""Words as outlines: shaped by HarfBuzz, set in lines, bent along a path, and never as pixels until they are drawn."""

from .bending import PATHS, WordPath, bent
from .font import Font
from .setting import Block, Setting, set_words

__all__ = ["PATHS", "Block", "Font", "Setting", "WordPath", "bent", "set_words"]
