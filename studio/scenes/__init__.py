"""The scenes that ship, one module a kind of blank."""

from studio.bake import Scene
from studio.scenes import (
    blankets,
    close_ups,
    cups,
    cups_in_places,
    flags,
    hoodies,
    hoodies_flat,
    hoodies_hung,
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
        *tshirts.SCENES,
        *worn.SCENES,
        *hoodies.SCENES,
        *hoodies_flat.SCENES,
        *hoodies_hung.SCENES,
        *totes.SCENES,
        *close_ups.SCENES,
    )
}
