"""The one family of errors. Each message is a sentence for a seller: what is wrong, and what to do."""


class ImprovaError(Exception):
    """An input cannot be used; ``str(error)`` says why and what to do."""


class ArtworkError(ImprovaError):
    """The picture is broken, too large, of an unknown format, or refers to other files."""


class TemplateError(ImprovaError):
    """The template is unknown, incomplete, or contradicts itself."""


class PlacementError(ImprovaError):
    """The placement is not possible: a zero scale, an unknown fit, a bad colour."""


class StepError(ImprovaError):
    """The preparation step is unknown, out of range, or not possible for this picture."""


class FontError(ImprovaError):
    """The font is broken, of an unknown format, or missing."""


class PieceError(ImprovaError):
    """A piece of a design is out of range: a text without letters, a frame wider than its panel."""


class SceneError(ImprovaError):
    """The scene pack is unknown or not valid, or lacks a view, size or colour."""


class OutputError(ImprovaError):
    """The file cannot be written: an unknown extension, an impossible resolution or size."""


class DiskFullError(OutputError):
    """The file cannot be written because the disk is full."""


class Stopped(ImprovaError):
    """The job was stopped on request."""


class ListingError(ImprovaError):
    """The listing or a marketplace's limits are not possible."""


class PressError(ImprovaError):
    """The press settings are out of range, or the blank does not fit the press."""
