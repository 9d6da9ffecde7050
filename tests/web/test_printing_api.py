"""Print files as jobs: made, packed, stopped, resumed; tickets, gang sheets and the simulated devices."""

import io
import json
import os
import signal
import subprocess
import sys
import time
import urllib.request
import zipfile
from pathlib import Path
from typing import Any

import numpy as np
import pikepdf
import pypdfium2
import pytest
import pyvips
from PIL import Image, ImageCms

from improva.web.app import create_app
from tests.conftest import encoded, quadrants
from tests.waiting import wait_until
from tests.web.client import ApiClient, client_of
from tests.web.helpers import at, drop
from tests.web.printing import ended, print_file

SHIRT = "t-shirt"


@pytest.fixture
def client(tmp_path: Path) -> ApiClient:
    return client_of(create_app(tmp_path))


def pair(art: dict[str, Any], blank: str) -> str:
    return f"/api/pairs/{art['id']}/{blank}"


def test_print_options_of_a_pair_are_stored_and_planned(client: ApiClient) -> None:
    art = drop(client)
    asked = {"format": "pdf", "dpi": 100, "tab": "left", "tab_mm": 10, "marks": True, "paper": "a4", "overlap_mm": 8}
    state = client.put(at(art, "/printing"), json=asked).json
    assert state["plan"]["file_mm"] == pytest.approx([9.3 * 25.4 + 10, 8.2 * 25.4 + 12]) and state["can_tab"]
    assert len(state["plan"]["sheets"]) == 2 and state["plan"]["name"].endswith("_100dpi_mirrored_a4.pdf")
    again = client.get(at(art, "/printing")).json
    assert again == state and again["printing"]["tab"] == "left"
    tight = client.put(at(art, "/printing"), json={"paper": "100x100mm", "overlap_mm": 90}).json
    assert "overlap" in tight["plan"]["problem"] and client.post(at(art, "/print-job"), json={}).status_code == 422


def test_all_sides_come_in_one_zip_that_two_readers_open(client: ApiClient, tmp_path: Path) -> None:
    art = drop(client)
    body = {"fit": "contain", "shift_mm": [0, 0], "scale": 0.5, "rotate_deg": 0, "background": None}
    client.put(f"{pair(art, SHIRT)}/placement?panel=back", json=body)
    made = print_file(client, pair(art, SHIRT), sides="all", dpi=36)
    assert made["name"].endswith("_all-sides_36dpi.zip") and made["about"] == "2 files"
    data = client.get(made["url"]).data
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        names = archive.namelist()
        assert archive.testzip() is None and {n.split("_")[2] for n in names} == {"front", "back"}
        for name in names:
            with Image.open(io.BytesIO(archive.read(name))) as picture:
                assert picture.info["dpi"] == pytest.approx((36, 36), abs=0.05)
    (tmp_path / "a.zip").write_bytes(data)
    listed = subprocess.run(["unzip", "-t", str(tmp_path / "a.zip")], capture_output=True, text=True, check=True)
    assert all(name in listed.stdout for name in names)


def test_the_blanks_profile_is_proofed_and_converted_to(client: ApiClient) -> None:
    art = drop(client)
    profile = bytes(pyvips.Operation.call("profile_load", "p3"))
    assert client.put(at(art, "/printing"), json={"own_profile": True}).json["plan"]["problem"]
    form = {"file": (io.BytesIO(profile), "printer.icc")}
    client.put("/api/blanks/tumbler-20oz-straight/profile", data=form, content_type="multipart/form-data")
    made = print_file(client, at(art), own_profile=True, dpi=50)
    with Image.open(io.BytesIO(client.get(made["url"]).data)) as picture:
        assert picture.info["icc_profile"] == profile
        back = ImageCms.profileToProfile(picture.convert("RGB"), io.BytesIO(profile), ImageCms.createProfile("sRGB"))
    assert np.abs(np.asarray(back)[10, -10].astype(int) - (220, 30, 30)).max() <= 3
    proof = np.asarray(Image.open(io.BytesIO(client.get(at(art, "/soft-proof?px=200")).data)))
    assert proof.shape[1] == 200 and np.abs(proof[10, 10].astype(int) - (220, 30, 30)).max() <= 4  # within its reach


def test_a_press_profile_is_proofed_but_not_converted_to(client: ApiClient) -> None:
    art = drop(client)
    form = {"file": (io.BytesIO(bytes(pyvips.Operation.call("profile_load", "cmyk"))), "press.icc")}
    client.put("/api/blanks/tumbler-20oz-straight/profile", data=form, content_type="multipart/form-data")
    assert "stay RGB" in client.put(at(art, "/printing"), json={"own_profile": True}).json["plan"]["problem"]
    assert "stay RGB" in client.post(at(art, "/print-job"), json={}).json["detail"]
    plain, paper = (
        np.asarray(
            Image.open(io.BytesIO(client.get(at(art, "/soft-proof"), query_string={"px": 200, "paper": p}).data))
        ).astype(int)
        for p in ("false", "true")
    )
    assert plain[170, 190].min() >= 253 > paper[170, 190].max()  # the white corner, as the screen's and as the paper's


def test_a_job_is_stopped_and_leaves_nothing(client: ApiClient, tmp_path: Path) -> None:
    art = drop(client, encoded(Image.fromarray(np.random.default_rng(1).integers(0, 255, (900, 900, 3), dtype=np.uint8))))
    at_ = pair(art, "blanket-upright")
    client.put(f"{at_}/printing", json={"dpi": 300})
    job = client.post(f"{at_}/print-job", json={}).json
    same = client.post(f"{at_}/print-job", json={}).json
    assert same["id"] == job["id"]  # asked twice, made once
    wait_until(lambda: client.get(f"/api/jobs/{job['id']}").json["share"] > 0)
    started = time.perf_counter()
    assert client.post(f"{at_}/check", json={"content": client.get(at_).json["placement"]}).status_code == 200
    assert time.perf_counter() - started < 10  # others are answered meanwhile
    client.post(f"/api/jobs/{job['id']}/stop")
    assert ended(client, job)["state"] == "stopped"
    assert list((tmp_path / "made").glob("*.png")) == list((tmp_path / "made").glob(".*")) == []


def test_a_failed_print_says_why(client: ApiClient, tmp_path: Path) -> None:
    art = drop(client)
    client.put(at(art, "/printing"), json={"dpi": 100})
    made = tmp_path / "made"
    made.rmdir()
    made.write_text("a file where the folder was")
    job = ended(client, client.post(at(art, "/print-job"), json={}).json)
    assert job["state"] == "failed" and "cannot be written" in job["problem"]
    made.unlink()
    made.mkdir()
    assert ended(client, client.post(at(art, "/print-job"), json={}).json)["state"] == "done"


def test_a_killed_server_resumes_its_job(tmp_path: Path) -> None:
    """The real server is killed while it writes a large file, and started again."""
    with client_of(create_app(tmp_path)) as client:
        art = drop(client, encoded(Image.fromarray(np.random.default_rng(1).integers(0, 255, (900, 900, 3), dtype=np.uint8))))
        client.put(f"{pair(art, 'blanket-upright')}/printing", json={"dpi": 150})

    def server() -> tuple[subprocess.Popen[bytes], str]:
        port = 8000 + os.getpid() % 1000 + 700
        process = subprocess.Popen(
            [sys.executable, "-m", "improva.cli", "serve", "--data", str(tmp_path), "--port", str(port)],
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )
        return process, f"http://127.0.0.1:{port}"

    def ask(url: str, method: str = "GET", body: object = None) -> dict[str, Any]:
        data = json.dumps(body).encode() if body is not None else None
        request = urllib.request.Request(url, data, {"Content-Type": "application/json"}, method=method)

        def answer() -> dict[str, Any] | None:
            try:
                return dict(json.load(urllib.request.urlopen(request, timeout=30)))
            except OSError:
                return None  # the server is starting

        return wait_until(answer) or {}

    process, address = server()
    try:
        ask(f"{address}/api/board")
        job = ask(f"{address}{pair(art, 'blanket-upright')}/print-job", "POST", {})
        wait_until(lambda: ask(f"{address}/api/jobs/{job['id']}")["share"] > 0)
        process.send_signal(signal.SIGKILL)
        process.wait()
        assert list((tmp_path / "made").glob("[!.]*.png")) == []
        process, address = server()
        wait_until(lambda: ask(f"{address}/api/jobs/{job['id']}")["state"] not in ("queued", "running"), 120)
        again = ask(f"{address}/api/jobs/{job['id']}")
    finally:
        process.kill()
        process.wait()
    assert again["state"] == "done" and again["files"][0]["about"] == "7950 × 9450 px"
    assert list((tmp_path / "made").glob(".*")) == []  # what the killed one had begun is swept away


def test_the_ticket_is_one_page_with_everything_needed(client: ApiClient) -> None:
    art = drop(client, name="Gipfel-Bahn ÄÖ.png")
    notes = "Glacier blue first. " * 60
    client.put(at(art, "/printing"), json={"copies": 12, "notes": notes})
    answer = client.get(at(art, "/ticket"))
    assert answer.mimetype == "application/pdf" and "gipfel-bahn" in answer.headers["Content-Disposition"]
    with pypdfium2.PdfDocument(answer.data) as pdf:
        assert len(pdf) == 1
        text = pdf[0].get_textpage().get_text_range()
    for word in (
        "Gipfel Bahn ÄÖ",
        "Straight tumbler",
        "12",
        "9.30 in (236.2 mm)",
        "300 dpi",
        "mirrored",
        "196 °C",
        "385 °F",
        "Glacier",
    ):
        assert word in text, word
    with pikepdf.open(io.BytesIO(answer.data)) as pdf:
        assert [float(v) for v in pdf.pages[0].mediabox] == [0, 0, 612, 792]  # ANSI/ASME Y14.1 size A, in points


def test_a_gang_sheet_is_packed_stored_and_made(client: ApiClient) -> None:
    art = drop(client)
    item = {"artwork_id": art["id"], "template_id": "tumbler-20oz-straight", "panel": "wrap"}
    client.put(at(art, "/printing"), json={"dpi": 50})
    state = client.put("/api/gang", json={"items": [{**item, "count": 3}], "width_mm": 500, "length_mm": None}).json
    assert (
        len(state["puts"]) == 3 and len(state["sheets_mm"]) == 1 and 0 < state["waste"] < 0.5 and state["items"][0]["mirrored"]
    )
    assert client.get("/api/gang").json["gang"]["items"][0]["count"] == 3
    job = ended(client, client.post("/api/gang/job").json)
    assert job["state"] == "done" and job["files"][0]["name"].startswith("gang-sheet_3-prints_19.69x")
    with pikepdf.open(io.BytesIO(client.get(job["files"][0]["url"]).data)) as pdf:
        assert len(pdf.pages) == 1
    narrow = client.put("/api/gang", json={"items": [{**item, "count": 1}], "width_mm": 150}).json
    assert "does not fit" in narrow["problem"] and client.post("/api/gang/job").status_code == 422
    client.delete(f"/api/artworks/{art['id']}")
    assert client.get("/api/gang").json["items"] == []  # taken off the board, so off the sheet


def test_the_simulated_printer_uses_paper_and_ink_runs_low_and_jams(client: ApiClient, tmp_path: Path) -> None:
    art = drop(client)
    made = print_file(client, at(art), dpi=50)
    queue = lambda copies=1: client.post("/api/simulated-printer/queue", json={"url": made["url"], "copies": copies})  # noqa: E731
    first = queue().json
    # three quarters of the wrap are covered; ink on 0.2362 × 0.2083 m² at 12 ml a square metre and colour
    cover = 1 - quadrants().reshape(-1, 3).mean(axis=0) / 255
    assert first["used_ink_ml"] == pytest.approx(float(cover.sum()) * 0.23622 * 0.20828 * 12, rel=0.03)
    assert (
        first["printer"]["sheets"] == 49 and (tmp_path / "printed" / made["name"]).read_bytes() == client.get(made["url"]).data
    )
    assert queue(42).json["printer"]["low"][0] == "paper (7 sheets)"
    assert "put in paper" in queue(8).json["detail"]
    assert client.post("/api/simulated-printer/jam").json["jam_next"]
    assert "jammed" in queue().json["detail"] and client.get("/api/simulated-printer").json["sheets"] == 6
    assert "jammed" in queue().json["detail"]
    client.post("/api/simulated-printer/clear")
    assert queue().status_code == 200
    client.post("/api/simulated-printer/refill")
    sheets = print_file(client, at(art), dpi=50, paper="a4")
    assert client.post("/api/simulated-printer/queue", json={"url": sheets["url"]}).json["used_sheets"] == 3


def test_the_simulated_desk_accepts_valid_files_and_says_why_it_refuses_others(client: ApiClient) -> None:
    art = drop(client)
    bring = lambda made: client.post(at(art, "/simulated-upload"), json={"url": made["url"]}).json  # noqa: E731
    good = bring(print_file(client, at(art), dpi=150, format="jpg"))
    assert good["accepted"] and good["reasons"] == [] and "150 dpi" in good["seen"]
    coarse = bring(print_file(client, at(art), dpi=100))
    assert not coarse["accepted"] and "150 are needed" in coarse["reasons"][0]
    tabbed = bring(print_file(client, at(art), dpi=150, tab="left", tab_mm=20))
    assert any("shape" in reason for reason in tabbed["reasons"])
    assert "PDF" in bring(print_file(client, at(art), dpi=150, format="pdf"))["reasons"][0]
    assert client.post(at(art, "/simulated-upload"), json={"url": "/api/files/../x"}).status_code == 422


def test_pressings_are_planned_and_logged_and_improve_the_next_plan(client: ApiClient) -> None:
    art = drop(client)
    press = at(art, "/press")
    plan = client.get(press).json
    assert plan["figures"]["source"] == "practice" and plan["finish"] == "gloss" and len(plan["cautions"]) >= 6
    maker = {**plan["figures"], "temperature_c": 190, "main_s": 60, "note": "the leaflet"}
    kept = client.put(f"{press}/maker", json={"figures": maker}).json
    assert (
        kept["figures"]["source"] == "maker"
        and kept["steps"][2]["seconds"] == 60
        and kept["steps"][2]["temperature_f"] == pytest.approx(374)
    )
    assert client.get(f"{press}?finish=matte").json["maker"] is None
    entry = {"on": "2026-05-30", "figures": kept["figures"], "result": "usable", "faults": ["pale"], "note": ""}
    after = client.post(f"{press}/log", json=entry).json
    assert after["figures"]["main_s"] == 60 and after["by"] == "maker"  # the maker's figures win
    assert after["suggested"]["main_s"] == 66 and "a tenth longer" in after["why"][-1]
    learned = client.get(f"{press}?by=log").json
    assert (
        learned["figures"]["main_s"] == 66
        and learned["steps"][2]["seconds"] == 66
        and after["log"][0]["counts"]
        and client.get(at(art)).json["pressed"]
    )
    photo = {"file": (io.BytesIO(encoded(Image.new("RGB", (3000, 2000)), "JPEG")), "result.jpg")}
    at_entry = f"/api/pressings/{after['log'][0]['id']}"
    assert client.put(f"{at_entry}/photo", data=photo, content_type="multipart/form-data").status_code == 204
    with Image.open(io.BytesIO(client.get(f"{at_entry}/photo").data)) as picture:
        assert max(picture.size) == 1600
    client.delete(at_entry)
    assert client.get(press).json["log"] == [] and client.get(press).json["figures"]["main_s"] == 60
    assert client.put(f"{press}/maker", json={"figures": {**maker, "temperature_c": 900}}).status_code == 422
    assert client.get(f"{press}?method=mug").status_code == 422
    flag = f"/api/pairs/{art['id']}/garden-flag/press"
    assert sum(s["kind"] == "press" for s in client.get(flag).json["steps"]) == 2
    large = client.put(f"{flag}/machine", json={"name": "The large one", "method": "flat", "platen_mm": [400, 500]}).json
    assert large["press"] == "The large one" and sum(s["kind"] == "press" for s in large["steps"]) == 1
