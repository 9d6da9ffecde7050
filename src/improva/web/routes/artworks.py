"""Artworks: import, preview, rename, remove and restore."""

from __future__ import annotations

from typing import Any

from flask import Response

from ...core.artwork.pixels import as_array
from ...core.mockup.render import encode
from ...core.output.name_pattern import renamed
from ..answers import cached_answer
from ..context import services
from ..presenters.artworks import artwork_out
from ..routing import Routes, binary
from ..schemas.artworks import ArtPath, AsideQuery, PreviewQuery, TitleIn, TitlesIn, TitlesOut
from ..schemas.common import ArtworkOut, UploadForm

api = Routes("artworks", "/api/artworks")


@api.post("", responses={201: ArtworkOut})
def add_artwork(query: AsideQuery, form: UploadForm) -> tuple[dict[str, Any], int]:
    """Import an artwork file. It is decoded whole first, so a damaged file is refused at once."""
    row = services.artworks.add(form.file.filename, form.file.stream.read(), query.aside)
    return artwork_out(row).model_dump(), 201


@api.patch("/<int:artwork_id>", responses={200: ArtworkOut})
def rename_artwork(path: ArtPath, body: TitleIn) -> dict[str, Any]:
    """Give an artwork another title."""
    services.artworks.get(path.artwork_id)
    services.store.artworks.rename(path.artwork_id, body.title.strip() or "Artwork")
    return artwork_out(services.artworks.get(path.artwork_id)).model_dump()


@api.put("/titles", responses={200: TitlesOut})
def rename_artworks(body: TitlesIn) -> dict[str, Any]:
    """Give several artworks titles by a pattern; with ``try_only`` the titles are returned and nothing is changed.

    Raises :class:`PlacementError` for a pattern without a field, or with an unknown one.
    """
    arts = [services.artworks.get(artwork_id) for artwork_id in dict.fromkeys(body.artwork_ids)]
    titles = renamed(body.pattern, [(art.title, art.file_name) for art in arts], body.find, body.replace)
    if not body.try_only:
        with services.store.database.writing():
            for art, title in zip(arts, titles, strict=True):
                services.store.artworks.rename(art.id, title)
    return TitlesOut(titles=titles).model_dump()


@api.delete("/<int:artwork_id>", responses={204: None})
def remove_artwork(path: ArtPath) -> tuple[str, int]:
    """Remove an artwork from the board. Its files and records stay stored."""
    services.artworks.get(path.artwork_id)
    services.store.artworks.set_removed(path.artwork_id, True)
    return "", 204


@api.post("/<int:artwork_id>/restore", responses={200: ArtworkOut})
def restore_artwork(path: ArtPath) -> dict[str, Any]:
    """Restore a removed artwork."""
    services.artworks.get(path.artwork_id)
    services.store.artworks.set_removed(path.artwork_id, False)
    return artwork_out(services.artworks.get(path.artwork_id)).model_dump()


@api.get("/<int:artwork_id>/preview", responses={200: binary("image/png", "image/jpeg")})
def get_artwork_preview(path: ArtPath, query: PreviewQuery) -> Response:
    """Return a reduced copy of the picture: PNG if it has transparency, else JPEG."""
    row = services.artworks.get(path.artwork_id)
    picture = as_array(services.artworks.proxy(row).reduced(query.px))
    ending = ".png" if picture.shape[2] == 4 else ".jpg"
    return cached_answer(encode(picture, ending), "image/png" if ending == ".png" else "image/jpeg")
