"""Print providers, their offers, and samples."""

from __future__ import annotations

from typing import Any

from flask import Response

from ...app.errors import NotFoundError
from ...app.foreign_files import read_photograph
from ...app.samples import add_sample_to_provider_notes, calibrate_from_sample, log_sample_as_pressing, use_offer_as_costs
from ...store import ProviderRow, SampleRow
from ..context import load_pair, services
from ..presenters.providers import providers_out
from ..routing import Routes, binary
from ..schemas.common import PAIR_AT, PairPath, UploadForm
from ..schemas.providers import (
    LearnedIn,
    OfferIn,
    OfferPath,
    PhotoPath,
    ProviderIn,
    ProviderPath,
    ProvidersStateOut,
    SampleOrderIn,
    SamplePath,
)

api = Routes("providers")


def _answer(artwork_id: int, template_id: str) -> dict[str, Any]:
    return providers_out(services, services.pairs.load(artwork_id, template_id)).model_dump()


def _sample(sample_id: int) -> SampleRow:
    row = services.store.providers.sample(sample_id)
    if row is None:
        raise NotFoundError("There is no such sample any more.")
    return row


@api.get(f"{PAIR_AT}/providers", responses={200: ProvidersStateOut})
def compare_providers(path: PairPath) -> dict[str, Any]:
    """Return the providers of a pair's blank, compared, and its samples."""
    return _answer(path.artwork_id, path.template_id)


@api.put("/api/providers/<name>", responses={204: None})
def set_provider(path: ProviderPath, body: ProviderIn) -> tuple[str, int]:
    """Add or change a provider."""
    services.store.providers.keep(ProviderRow(path.name.strip(), body.origin.strip(), body.note.strip()))
    return "", 204


@api.delete("/api/providers/<name>", responses={204: None})
def remove_provider(path: ProviderPath) -> tuple[str, int]:
    """Remove a provider; its samples stay."""
    services.store.providers.forget(path.name)
    return "", 204


@api.put(f"{PAIR_AT}/providers/<name>/offer", responses={200: ProvidersStateOut})
def set_offer(path: OfferPath, body: OfferIn) -> dict[str, Any]:
    """Set a provider's cost and delivery for this blank.

    Raises :class:`NotFoundError` for an unknown provider.
    """
    if path.name not in {row.name for row in services.store.providers.all()}:
        raise NotFoundError("There is no such provider: add it first.")
    body.to_core()
    services.store.providers.keep_offer(path.name, services.blanks.get(path.template_id).id, body.model_dump())
    return _answer(path.artwork_id, path.template_id)


@api.delete(f"{PAIR_AT}/providers/<name>/offer", responses={200: ProvidersStateOut})
def remove_offer(path: OfferPath) -> dict[str, Any]:
    """Remove a provider's offer for this blank."""
    services.store.providers.keep_offer(path.name, services.blanks.get(path.template_id).id, None)
    return _answer(path.artwork_id, path.template_id)


@api.post(f"{PAIR_AT}/providers/<name>/costs", responses={200: ProvidersStateOut})
def take_costs_from_offer(path: OfferPath) -> dict[str, Any]:
    """Use a provider's offer as the costs of this blank."""
    use_offer_as_costs(services, load_pair(path), path.name)
    return _answer(path.artwork_id, path.template_id)


@api.post(f"{PAIR_AT}/samples", responses={200: ProvidersStateOut})
def add_sample(path: PairPath, body: SampleOrderIn) -> dict[str, Any]:
    """Add an ordered sample."""
    sample = body.to_core()
    pair = load_pair(path)
    services.store.providers.add_sample(*pair.ids, sample)
    return _answer(*pair.ids)


@api.put("/api/samples/<int:sample_id>", responses={200: ProvidersStateOut})
def change_sample(path: SamplePath, body: SampleOrderIn) -> dict[str, Any]:
    """Change a sample's record."""
    row = _sample(path.sample_id)
    services.store.providers.change_sample(row.id, body.to_core())
    return _answer(row.artwork_id, row.template_id)


@api.delete("/api/samples/<int:sample_id>", responses={200: ProvidersStateOut})
def remove_sample(path: SamplePath) -> dict[str, Any]:
    """Remove a sample from the log."""
    row = _sample(path.sample_id)
    services.store.providers.remove_sample(row.id)
    return _answer(row.artwork_id, row.template_id)


@api.post("/api/samples/<int:sample_id>/learned", responses={200: ProvidersStateOut})
def learn_from_sample(path: SamplePath, body: LearnedIn) -> dict[str, Any]:
    """Add a sample's findings to the calibration, the press log or the provider's notes."""
    row = _sample(path.sample_id)
    if body.to == "calibration":
        calibrate_from_sample(services, row, body.seam, (body.right_mm, body.down_mm))
    elif body.to == "press log":
        log_sample_as_pressing(services, row)
    else:
        add_sample_to_provider_notes(services, row)
    return _answer(row.artwork_id, row.template_id)


@api.post("/api/samples/<int:sample_id>/photos", responses={200: ProvidersStateOut})
def add_sample_photo(path: SamplePath, form: UploadForm) -> dict[str, Any]:
    """Store a photograph of a sample, upright and reduced."""
    row = _sample(path.sample_id)
    services.store.providers.add_photo(
        row.id, services.store.database.put_blob(read_photograph(services.reader, form.file.stream.read()))
    )
    return _answer(row.artwork_id, row.template_id)


@api.get("/api/samples/<int:sample_id>/photos/<int:number>", responses={200: binary("image/jpeg")})
def get_sample_photo(path: PhotoPath) -> Response:
    """Return a photograph of a sample.

    Raises :class:`NotFoundError`.
    """
    photos = _sample(path.sample_id).photos
    if not 0 <= path.number < len(photos):
        raise NotFoundError("There is no such photograph.")
    return Response(services.store.database.blob(photos[path.number]), mimetype="image/jpeg")
