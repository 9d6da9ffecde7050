"""The OpenAPI document: every schema and operation has a name of its own."""

import ast
import json
import re
import shutil
from collections import Counter
from pathlib import Path

import schemathesis
from schemathesis.core.result import Ok

import improva.web
from improva.web.app import create_app
from improva.web.openapi import api_document
from tests.web.client import client_of


def test_no_two_schemas_share_a_name() -> None:
    """Of two models with one name the document would contain only the last, and the page's types would be wrong."""
    names = Counter(
        node.name
        for file in Path(improva.web.__file__).parent.rglob("*.py")
        for node in ast.parse(file.read_text()).body
        if isinstance(node, ast.ClassDef) and any(getattr(base, "id", "") in ("In", "Out", "BaseModel") for base in node.bases)
    )
    assert [name for name, times in names.items() if times > 1 and not name.endswith(("Path", "Query"))] == []


def test_the_document_needs_no_services_and_does_not_disturb_running_ones(tmp_path: Path) -> None:
    """An earlier version built a second application, which changed the folder of the seller's scenes until a restart."""
    app = create_app(tmp_path)
    services = app.extensions["services"]
    own = services.store.own_scenes.folder / "own-scene"
    shutil.copytree(services.scenes.packs()["pen-three"].folder, own)
    own.joinpath("scene.toml").write_text(own.joinpath("scene.toml").read_text().replace('"pen-three"', '"own-scene"'))
    assert "own-scene" in services.scenes.packs()
    client_of(app).get("/api/document/openapi.json")
    create_app(tmp_path / "another folder")
    assert "own-scene" in services.scenes.packs() and app.extensions["services"] is services


def test_every_operation_has_an_id_of_its_own() -> None:
    ids = [operation["operationId"] for path in json.loads(api_document())["paths"].values() for operation in path.values()]
    assert len(ids) == len(set(ids)) > 100


def test_the_document_is_made_on_request_only(tmp_path: Path) -> None:
    app = create_app(tmp_path)
    assert app.api_doc["paths"] == {}, "no address is described at the start"
    told = client_of(app).get("/api/document/openapi.json")
    assert told.mimetype == "application/json" and told.json == json.loads(api_document())
    named = {path.replace("{", "<").replace("}", ">") for path in told.json["paths"]}
    served = {
        re.sub("<(?:int|float|path):", "<", str(rule)) for rule in app.url_map.iter_rules() if str(rule).startswith("/api/")
    }
    assert served - named == {"/api/document/openapi.json"} and named <= served
    put = told.json["paths"]["/api/pairs/{artwork_id}/{template_id}/placement"]["put"]
    assert {p["name"] for p in put["parameters"]} >= {"artwork_id", "template_id", "panel"} and "requestBody" in put


def test_the_document_is_valid(tmp_path: Path) -> None:
    """By the schema of the OpenAPI Initiative for documents of version 3.1, which schemathesis carries."""
    document = json.loads(api_document())
    assert document["openapi"] == "3.1.0" and None not in document["components"].values()
    loaded = schemathesis.openapi.from_dict(document)
    operations = list(loaded.get_all_operations())
    assert len(operations) > 130 and all(isinstance(each, Ok) for each in operations)


def test_every_operation_describes_each_status_that_it_can_answer() -> None:
    document = json.loads(api_document())
    for path, operations in document["paths"].items():
        for method, operation in operations.items():
            statuses = set(operation["responses"])
            assert {"400", "401", "403", "404", "405", "409", "413", "422", "500", "507"} <= statuses, (method, path)
            assert statuses & {"200", "201", "204"}, (method, path)
