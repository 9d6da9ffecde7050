"""Cloth by simulation: panels cut flat, sewn, and draped until they rest.

Lengths are in centimetres, masses in grams, times in seconds, so forces are in dyn. The texture coordinates of a cloth are its flat
places, so that a print laid on a panel in millimetres is exact on the cloth, through every fold.

- :mod:`.panels` cuts outlines into triangles; :mod:`.sewing` joins panels to one mesh.
- :mod:`.material` says how heavy, stiff and thick a cloth is.
- :mod:`.simulation` moves a mesh; :mod:`.obstacles` are what it lies on; :mod:`.contact` keeps it from passing through itself.
- :mod:`.crossings` proves that no triangle crosses another.
"""
