"""The one family of errors. Each message is a sentence for a seller: what is wrong, and what to do."""


class ImprovaError(Exception):
    """Something the user gave cannot be used; ``str(error)`` says what and how to mend it."""


class BadArtwork(ImprovaError):
    """A picture that is broken, too large, of a kind not read, or that points to other files."""


class BadTemplate(ImprovaError):
    """A template that is unknown, incomplete, or whose figures contradict each other."""


class BadPlacing(ImprovaError):
    """A placing that no piece of artwork can take: a zero scale, an unknown fit, a bad colour."""


class BadStep(ImprovaError):
    """A preparing step that is unknown, whose values are out of reach, or that the picture cannot take."""


class BadFont(ImprovaError):
    """A font that is broken, of a kind not read, or that is not here."""


class BadPiece(ImprovaError):
    """A piece of a design whose values are out of reach: words without letters, a frame wider than its panel."""


class BadScene(ImprovaError):
    """A scene pack that is unknown or not valid, or a view, size or colour that it does not have."""


class BadOutput(ImprovaError):
    """A file that cannot be written as asked: an unknown ending, an impossible density or size."""


class Stopped(ImprovaError):
    """Work that was stopped on request before it was done."""


class BadListing(ImprovaError):
    """A listing, or a marketplace's limits, that cannot be."""


class BadPress(ImprovaError):
    """Press settings out of reach, or a blank that does not go into such a press."""
