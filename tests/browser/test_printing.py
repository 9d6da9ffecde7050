"""The Print station beyond one file: sheets, tab, soft proof, jobs, gang sheet. The resulting files are checked."""

import io
from pathlib import Path

import numpy as np
import pikepdf
import pyvips
from PIL import Image
from playwright.sync_api import Page, Route, expect

from tests.browser.helpers import lay_on_bench, print_file, station, typed


def test_a_flag_is_cut_into_sheets_as_the_template_shows(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, blank="Garden flag")
    station(page, "Print")
    typed(page, "Resolution (dpi)", "60")
    page.get_by_text("On paper", exact=True).click()
    page.get_by_label("Paper", exact=True).select_option("letter")
    expect(page.get_by_text("4 sheets")).to_be_visible()
    expect(page.locator("[data-flat] circle").filter(has=page.locator("xpath=..")).nth(3)).to_be_attached()
    with page.expect_download() as coming:
        page.get_by_role("button", name="Make the print file").click()
    with pikepdf.open(coming.value.path()) as pdf:
        assert len(pdf.pages) == 5 and {tuple(float(v) for v in p.mediabox[2:]) for p in pdf.pages} == {(612.0, 792.0)}
    page.reload()
    page.get_by_text("On paper", exact=True).click()
    expect(page.get_by_label("Paper", exact=True)).to_have_value("letter")  # kept
    expect(page.get_by_role("list", name="Files made").get_by_text("letter.pdf")).to_be_visible()


def test_tab_and_marks_are_in_the_file_and_on_the_template(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art)
    station(page, "Print")
    page.get_by_text("Left", exact=True).first.click()
    typed(page, "Width", "0.5in")
    page.get_by_label("Trim marks above and below").check()
    expect(page.locator("[data-flat]").get_by_text("white tab for the tape")).to_be_visible()
    picture = np.asarray(print_file(page, "100").convert("RGB")).astype(int)
    assert picture.shape[1] == 930 + 50
    assert (picture[300, -50:] > 250).all() and (picture[300, -60] < 250).any()  # mirrored: the left tab is at the right


def test_the_soft_proof_is_shown_beside_the_original_and_the_file_is_converted(
    page: Page, own_art: Path, tmp_path: Path
) -> None:
    lay_on_bench(page, own_art)
    profile = tmp_path / "printer.icc"
    profile.write_bytes(bytes(pyvips.Operation.call("profile_load", "p3")))
    station(page, "Check")
    page.get_by_text("Limits of Straight tumbler").click()
    page.get_by_label("ICC profile").set_input_files(profile)
    expect(page.get_by_text("printer.icc")).to_be_visible()
    station(page, "Print")
    page.get_by_label("Convert to the printer's profile").check()
    page.get_by_role("button", name="Compare with screen colours").click()
    soft_proof = page.get_by_role("img", name="As the printer's profile says it comes out")
    expect(soft_proof).to_have_js_property("complete", True)
    shown = Image.open(io.BytesIO(soft_proof.screenshot())).convert("RGB")
    assert np.asarray(shown).std() > 20
    page.get_by_role("button", name="Close").click()
    picture = print_file(page, "50")
    assert picture.info["icc_profile"] == profile.read_bytes()


def test_a_large_file_shows_its_progress_and_can_be_stopped(page: Page, own_art: Path) -> None:
    lay_on_bench(page, own_art, blank="Throw blanket")
    station(page, "Print")
    typed(page, "Resolution (dpi)", "300")
    page.get_by_role("button", name="Make the print file").click()
    expect(page.get_by_text("% made")).to_be_visible()
    page.reload()  # it goes on without the page
    expect(page.get_by_text("% made")).to_be_visible()
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_text("Stopped; nothing was written.")).to_be_visible()


def download_ticket(page: Page) -> None:
    """Download the job ticket, which has one page."""
    with page.expect_download() as coming:
        page.get_by_role("link", name="Download the ticket").click()
    with pikepdf.open(coming.value.path()) as pdf:
        assert len(pdf.pages) == 1


def test_prints_are_ganged_and_sent_to_the_simulated_printer(page: Page, own_art: Path) -> None:
    page.clock.install()
    lay_on_bench(page, own_art)
    station(page, "Print")
    typed(page, "Resolution (dpi)", "50")
    page.get_by_text("Hand over", exact=True).click()
    download_ticket(page)
    with page.expect_response(lambda answer: answer.request.method == "PUT"):  # an answer that comes later would count as new
        page.get_by_role("button", name="To the gang sheet").click()
    expect(page.get_by_role("link", name="on it: view")).to_be_visible()
    before, late = page.request.get("/api/gang").json(), list[Route]()

    def hold_back(route: Route) -> None:
        if route.request.method == "GET" and not late:
            late.append(route)
        else:
            route.continue_()

    page.route("**/api/gang", hold_back)
    page.clock.fast_forward(2100)  # what the page knows is now old enough to be asked for anew
    page.get_by_role("link", name="on it: view").click()
    for other in ("Dusk on the Summit Line", "Signals"):  # what the demo laid there
        with page.expect_response(lambda answer: answer.request.method == "PUT"):
            page.get_by_role("button", name=f"Take {other}").click()
    expect(page.get_by_role("img", name="Sheet 1").locator("image")).to_have_count(1)
    assert late
    for route in late:  # what was asked before is told last, and does not bring back what was taken off
        route.fulfill(json=before)
    page.evaluate("new Promise((painted) => requestAnimationFrame(() => requestAnimationFrame(painted)))")
    expect(page.get_by_role("img", name="Sheet 1").locator("image")).to_have_count(1)
    page.get_by_text("Roll", exact=True).click()
    typed(page, "Width", "20in")
    page.get_by_label("Copies of").fill("3")
    page.keyboard.press("Enter")
    expect(page.get_by_text("of paper is unused")).to_be_visible()
    expect(page.get_by_role("img", name="Sheet 1").locator("image")).to_have_count(3)
    with page.expect_download() as coming:
        page.get_by_role("button", name="Make the gang sheet").click()
    with pikepdf.open(coming.value.path()) as pdf:
        assert float(pdf.pages[0].mediabox[2]) == 1440  # 20 in
    page.go_back()
    with page.expect_download():
        page.get_by_role("button", name="Make the print file").click()
    page.get_by_text("Hand over", exact=True).click()
    page.get_by_role("button", name="Print it").click()
    expect(page.get_by_text("Printed: 1 sheet")).to_be_visible()
    page.get_by_label("A provider prints it").click()
    expect(page.get_by_text("Simulated.")).to_be_visible()
    with page.expect_download():
        page.get_by_role("button", name="Make the print file").click()
    page.get_by_role("button", name="Upload the file").click()
    expect(page.get_by_text("Refused")).to_be_visible()
    expect(page.get_by_text("150 are needed")).to_be_visible()
