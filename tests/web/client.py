"""The client of tests of the API, typed so that an answer's JSON can be read at once."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, Self

from flask.testing import FlaskClient
from werkzeug.test import TestResponse

if TYPE_CHECKING:

    class Answer(TestResponse):
        """An answer of the API. ``json`` is None if the body is not JSON, so reading a key of it fails the test."""

        @property
        def json(self) -> Any: ...

    class ApiClient(FlaskClient):
        """Flask's test client, whose methods return :class:`Answer`."""

        def __enter__(self) -> Self: ...

        def get(self, *args: Any, **kwargs: Any) -> Answer: ...

        def post(self, *args: Any, **kwargs: Any) -> Answer: ...

        def put(self, *args: Any, **kwargs: Any) -> Answer: ...

        def patch(self, *args: Any, **kwargs: Any) -> Answer: ...

        def delete(self, *args: Any, **kwargs: Any) -> Answer: ...

        def open(self, *args: Any, **kwargs: Any) -> Answer: ...

        def options(self, *args: Any, **kwargs: Any) -> Answer: ...

else:
    ApiClient, Answer = FlaskClient, TestResponse


def client_of(app: Any) -> ApiClient:
    """Return the test client of an application."""
    client: ApiClient = app.test_client()
    return client
