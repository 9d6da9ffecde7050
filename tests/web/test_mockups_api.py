"""Pictures, films and presets over HTTP."""

from __future__ import annotations

import io
import json
from typing import Any

import numpy as np
import pytest
from PIL import Image

from tests.conftest import BLANK, closed_wave, encoded
from tests.web.client import ApiClient
from tests.web.helpers import cells
from tests.web.printing import ended

SCENE = "straight-tumbler-studio"
SMALL = {"sizes": [[160, 120]]}


def drop(client: ApiClient) -> str:
    """Add an artwork, and return the address of its pair with the tumbler."""
    data = {"file": (io.BytesIO(encoded(Image.fromarray(closed_wave()))), "wave.png")}
    answer = client.post("/api/artworks", data=data, content_type="multipart/form-data")
    assert answer.status_code == 201, answer.text
    return f"/api/pairs/{answer.json['id']}/{BLANK}"


def shots(*views: str) -> list[dict[str, Any]]:
    return [{"scene_id": SCENE, "view": view} for view in views]


def made(client: ApiClient, at: str, **mockup_settings: Any) -> list[dict[str, Any]]:
    """Choose pictures and make them."""
    answer = client.put(f"{at}/mockup-settings", json={**SMALL, **mockup_settings})
    assert answer.status_code == 200, answer.text
    job = client.post(f"{at}/mockup-job")
    assert job.status_code == 200, job.text
    done = ended(client, job.json)
    assert done["state"] == "done", done
    return list(done["files"])


def pixels(client: ApiClient, file: dict[str, Any]) -> np.ndarray:
    with Image.open(io.BytesIO(client.get(file["url"]).data)) as picture:
        return np.asarray(picture)


def test_by_default_the_first_view_is_chosen(client: ApiClient) -> None:
    at = drop(client)
    state = client.get(f"{at}/mockup-settings").json
    assert [(s["scene_id"], s["view"]) for s in state["mockup_settings"]["shots"]] == [(SCENE, "front")] and state[
        "pictures"
    ] == 1
    assert {s["id"] for s in state["surfaces"]} >= {"oak", "slate", "heather"}


def test_every_view_size_and_colour_gives_one_picture(client: ApiClient) -> None:
    at = drop(client)
    files = made(
        client, at, shots=shots("front", "back"), sizes=[[160, 120], [120, 120]], variants={"lid": ["Snow", "Ink"]}, sheet=True
    )
    names = [f["name"] for f in files]
    assert names[0] == f"wave_{BLANK}_contact-sheet.jpg" and len(names) == len(set(names)) == 10
    assert f"wave_{SCENE}_back-ink_120x120.jpg" in names
    by_name = {f["name"]: pixels(client, f).astype(int) for f in files[1:-1]}
    snow, ink = (by_name[f"wave_{SCENE}_front-{c}_160x120.jpg"] for c in ("snow", "ink"))
    assert snow.shape == (120, 160, 3) and (snow - ink).max() > 60
    sheet = pixels(client, files[0])
    assert sheet.shape[1] > 3 * 640 and cells(client)[0]["pictured"]


def test_pictures_made_before_are_reused(client: ApiClient) -> None:
    at = drop(client)
    first, second = (made(client, at, shots=shots("left"))[0] for _ in range(2))
    assert first["url"] == second["url"]
    warm = made(client, at, shots=shots("left"), grade={"warmth": 1})[0]
    assert warm["url"] != first["url"]
    mean = [pixels(client, f).astype(float).mean(axis=(0, 1)) for f in (first, warm)]
    assert mean[1][0] > mean[0][0] and mean[1][2] < mean[0][2]


def test_a_picture_records_what_it_shows(client: ApiClient) -> None:
    at = drop(client)
    file = made(client, at, shots=shots("right"))[0]
    with Image.open(io.BytesIO(client.get(file["url"]).data)) as picture:
        found = picture.getxmp()["xmpmeta"]["RDF"]["Description"]
    assert (found["template"], found["scene"], found["view"]) == (BLANK, SCENE, "right") and "Lid: Snow" in found["colours"]


def test_captions_dimensions_and_another_background_give_other_pictures(client: ApiClient) -> None:
    at = drop(client)
    photo = {"file": (io.BytesIO(encoded(Image.new("RGB", (300, 200), (30, 120, 200)))), "sea.png")}
    aside = client.post("/api/artworks?aside=true", data=photo, content_type="multipart/form-data").json["id"]
    words = [{"text": "Summit", "place": "bottom-right", "size": 0.08}]
    views = {"sizes": [[320, 240]]}
    plain = made(client, at, **views, shots=shots("front"))[0]
    captioned = made(client, at, **views, shots=shots("front"), captions=words)[0]
    sized = made(client, at, **views, shots=[{**shots("front")[0], "measured": True}])[0]
    laid = made(client, at, **views, shots=shots("front"), backdrop={"artwork_id": aside, "size": 0.5, "foot": 0.8})[0]
    assert len({f["url"] for f in (plain, captioned, sized, laid)}) == 4
    before, words_on, size_on, on_photo = (pixels(client, f).astype(int) for f in (plain, captioned, sized, laid))
    assert np.abs(words_on - before)[200:, 220:].max() > 60 and np.abs(words_on - before)[:150, :150].max() < 12
    assert np.abs(size_on - before).max() > 60 and "front-size" in sized["name"]
    assert np.abs(on_photo[5, 5] - (30, 120, 200)).max() < 8 and np.abs(on_photo[120, 160] - (30, 120, 200)).max() > 40
    assert "front-on-photo" in laid["name"]


def test_a_preview_matches_its_picture(client: ApiClient) -> None:
    at = drop(client)
    placement = client.get(at).json["placement"]
    asked = {"content": placement, "scene": SCENE, "width": 200, "height": 200}

    def look(**more: Any) -> np.ndarray:
        answer = client.post(f"{at}/mockup-preview", json={**asked, **more})
        assert answer.status_code == 200, answer.text
        return np.asarray(Image.open(io.BytesIO(answer.data))).astype(int)

    plain = look()
    assert np.abs(plain - look(settings={"camera": False})).max() <= 8
    camera = look(settings={})
    assert camera[:8, :8].mean() < 0.97 * plain[:8, :8].mean(), (
        "pictures are as a camera takes them, unless that is switched off"
    )
    warm = look(settings={"grade": {"warmth": 1}})
    assert (warm[..., 0] - warm[..., 2]).mean() > (plain[..., 0] - plain[..., 2]).mean() + 8
    clear = look(settings={"clear": True, "format": "png"})
    assert np.abs(clear[5, 5] - (241, 238, 231)).max() <= 4
    assert np.abs(look(settings={}, measured=True) - plain).max() > 60
    huge = [{"text": "Far too many words for a picture of this size, and they go on", "size": 0.3}]
    assert np.abs(look(settings={"captions": huge, "camera": False}) - plain).max() <= 8  # told of when the picture is made
    assert client.post(f"{at}/mockup-preview", json={**asked, "settings": []}).status_code == 422


def test_a_custom_angle_and_a_transparent_background(client: ApiClient) -> None:
    at = drop(client)
    file = made(client, at, shots=[{"scene_id": SCENE, "angle": 33}], clear=True, format="png")[0]
    assert file["name"] == f"wave_{SCENE}_33deg-clear_160x120.png"
    picture = pixels(client, file)
    assert picture.shape == (120, 160, 4) and picture[60, 80, 3] == 255 and picture[8, 8, 3] == 0
    refused = client.put(f"{at}/mockup-settings", json={**SMALL, "shots": shots("front"), "clear": True})
    assert refused.status_code == 200
    job = ended(client, client.post(f"{at}/mockup-job").json)
    assert job["state"] == "failed" and "cannot be transparent" in job["problem"]


def test_a_background_is_chosen_for_all_scenes(client: ApiClient) -> None:
    at = drop(client)
    plain = pixels(client, made(client, at, shots=shots("front"))[0]).astype(int)
    answer = client.put(f"{at}/choices", json={"route": "press", "angle": 0, "colours": {"table": "slate", "wall": "#20242c"}})
    assert answer.status_code == 200, answer.text
    dark = pixels(client, made(client, at, shots=shots("front"))[0]).astype(int)
    assert dark[112, 10].mean() < plain[112, 10].mean() - 25 and dark[8, 8].mean() < plain[8, 8].mean() - 60
    wrong = client.put(f"{at}/choices", json={"route": "press", "angle": 0, "colours": {"table": "velvet"}})
    assert wrong.status_code == 422 and "has no colour" in wrong.json["detail"]


def test_a_rotation_is_filmed(client: ApiClient) -> None:
    at = drop(client)
    job = client.post(f"{at}/film-job", json={"scene_id": SCENE, "seconds": 4, "size": [96, 72], "format": "gif"})
    file = ended(client, job.json)["files"][0]
    assert file["name"] == f"wave_{SCENE}_turning_4s_96x72.gif" and file["about"] == "film"
    with Image.open(io.BytesIO(client.get(file["url"]).data)) as film:
        assert getattr(film, "n_frames", 0) == 50 and film.size == (96, 72)
    still = client.post(
        "/api/pairs/1/t-shirt/film-job", json={"scene_id": client.get("/api/pairs/1/t-shirt").json["scenes"][0]["id"]}
    )
    assert still.status_code == 422 and "does not turn" in still.json["detail"]


def test_presets_are_saved_and_fit_other_blanks(client: ApiClient) -> None:
    at = drop(client)
    mockup_settings = {**SMALL, "shots": shots("front", "back"), "grade": {"warmth": 0.5}, "format": "webp"}
    kept = client.put(
        "/api/presets/Evening", json={"mockup_settings": mockup_settings, "colours": {"lid": "Ink", "table": "walnut"}}
    )
    assert [look["name"] for look in kept.json["presets"]] == ["Evening"]
    client.put("/api/presets/Evening", json={"mockup_settings": mockup_settings, "colours": {"lid": "Pine", "table": "walnut"}})
    used = client.post(f"{at}/presets/Evening")
    assert used.status_code == 200 and used.json["mockup_settings"]["grade"]["warmth"] == 0.5 and used.json["pictures"] == 2
    assert client.get(at).json["colours"] == {"lid": "Pine", "table": "walnut"}
    other = at.replace(BLANK, "mug-15oz")
    fitted = client.post(f"{other}/presets/Evening").json
    own = {s["id"] for s in client.get(other).json["scenes"]}
    assert fitted["mockup_settings"]["shots"] and {s["scene_id"] for s in fitted["mockup_settings"]["shots"]} <= own
    assert client.delete("/api/presets/Evening").json["presets"] == []
    gone = client.post(f"{at}/presets/Evening")
    assert gone.status_code == 404 and "no preset" in gone.json["detail"]


def test_findings_are_part_of_the_choice(client: ApiClient) -> None:
    at = drop(client)
    client.put(f"{at}/choices", json={"route": "press", "angle": 0, "colours": {"lid": "#123456"}})
    state = client.put(f"{at}/mockup-settings", json={**SMALL, "shots": shots("front")}).json
    assert any("Lid in #123456" in f["message"] for f in state["findings"])


@pytest.mark.parametrize(
    ("body", "says"),
    [
        ({"shots": [{"scene_id": "moon"}]}, "no scene 'moon'"),
        ({"shots": [{"scene_id": SCENE, "view": "above"}]}, "no view 'above'"),
        ({"shots": [{"scene_id": SCENE, "angle": 1e99}]}, ""),
        ({"shots": [{"scene_id": SCENE, "colours": {"lid": "Mauve"}}]}, "no colour 'Mauve'"),
        ({"sizes": [[90000, 90000]]}, "cannot be made"),
        ({"sizes": [[4, 400]]}, "cannot be made"),
        ({"sizes": []}, ""),
        ({"grade": {"exposure": 9}}, ""),
        (
            {
                "shots": [{"scene_id": SCENE}] * 30,
                "variants": {"lid": ["Snow", "Ink", "Pine", "Rowan"], "straw": ["Snow", "Ink"]},
            },
            "at once",
        ),
    ],
)
def test_impossible_choices_are_refused_and_not_stored(client: ApiClient, body: dict[str, Any], says: str) -> None:
    at = drop(client)
    before = client.get(f"{at}/mockup-settings").json
    answer = client.put(f"{at}/mockup-settings", json={**SMALL, **body})
    assert answer.status_code == 422 and says in answer.json["detail"]
    assert client.get(f"{at}/mockup-settings").json == before


def test_without_a_choice_nothing_is_made(client: ApiClient) -> None:
    at = drop(client)
    client.put(f"{at}/mockup-settings", json={**SMALL, "shots": []})
    answer = client.post(f"{at}/mockup-job")
    assert answer.status_code == 422 and "No scene is chosen" in answer.json["detail"]


def test_another_artwork_is_shown_on_another_copy(client: ApiClient) -> None:
    at = drop(client)
    mug, scene_id = at.replace(BLANK, "mug-11oz"), "mug-11oz-both"
    red = {"file": (io.BytesIO(encoded(Image.new("RGB", (300, 120), (200, 20, 20)))), "red.png")}
    other = client.post("/api/artworks", data=red, content_type="multipart/form-data").json["id"]
    shot = [{"scene_id": scene_id, "view": "both sides"}]
    one, _ = made(client, mug, shots=shot, sizes=[[320, 240]], format="png")
    same, _ = made(
        client, mug, shots=shot, sizes=[[320, 240]], format="png", places={scene_id: {"wrap-2": other}, "x": {"y": other}}
    )
    assert one["url"] != same["url"]
    before, after = pixels(client, one).astype(int), pixels(client, same).astype(int)
    changed = np.abs(after - before).max(axis=2) > 40
    assert changed[:, 160:].sum() > 500 and changed[:, :140].sum() < 40, "only the right mug is another"
    reddish = (after[..., 0] > 100) & (after[..., 1] < 60)
    assert reddish[:, 160:].sum() > 500
    gone = client.put(f"{mug}/mockup-settings", json={"shots": shot, "places": {scene_id: {"wrap-2": 999}}})
    assert gone.status_code == 404


def test_a_csv_beside_the_pictures_says_what_they_show(client: ApiClient) -> None:
    at = drop(client)
    *files, told = made(client, at, shots=shots("front", "left"))
    found = json.loads(client.get(told["url"]).data)["pictures"]
    assert told["name"] == f"wave_{BLANK}_pictures.json" and told["about"] == "what they show"
    assert [entry["file"] for entry in found] == [file["name"] for file in files]
    assert (found[1]["view"], found[1]["scene"], found[1]["template"], found[1]["design"]) == ("left", SCENE, BLANK, "Wave")
    assert len(made(client, at, shots=shots("front", "left"), listed=False)) == 2


def test_a_colour_that_a_scene_no_longer_has_is_dropped(client: ApiClient) -> None:
    at = drop(client)
    body = {"shots": shots("front"), "variants": {"lid": ["Snow"]}}
    assert client.put(f"{at}/mockup-settings", json=body).status_code == 200
    database = client.application.extensions["services"].store.database
    with database.writing() as connection:
        connection.execute("UPDATE pair SET mockup_settings = replace(mockup_settings, 'Snow', 'Heliotrope')")
    state = client.get(f"{at}/mockup-settings")
    assert state.status_code == 200 and state.json["mockup_settings"]["variants"]["lid"] == []
