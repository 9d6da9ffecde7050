"""The scenes that ship, one module a kind of blank."""

from studio.bake import Scene
from studio.scenes import (
    all_over,
    blankets,
    cups,
    cups_in_places,
    flags,
    garments,
    hoodies,
    mugs,
    mugs_in_places,
    pens,
    pillows,
    totes,
    tshirts,
    worn,
)

SCENES: dict[str, Scene] = {
    scene.id: scene
    for scene in (
        *cups.SCENES,
        *cups_in_places.SCENES,
        *mugs.SCENES,
        *mugs_in_places.SCENES,
        *pens.SCENES,
        *pillows.SCENES,
        *blankets.SCENES,
        *flags.SCENES,
        *garments.SCENES,
        *tshirts.SCENES,
        *worn.SCENES,
        *hoodies.SCENES,
        *all_over.SCENES,
        *totes.SCENES,
    )
}
