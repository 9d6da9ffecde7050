"""Who may talk to the server: host names, other sites, log-in; and the headers of its answers.

Held against: RFC 9110, 7.4 (a server answers for its own host names only), RFC 6265bis (cookie attributes), W3C Content Security
Policy Level 3.
"""

import json
import re
import stat
from http.cookies import SimpleCookie
from pathlib import Path

import pytest
from click.testing import CliRunner

from improva.app.access import FILE, Password, PasswordError
from improva.cli import main
from improva.web.app import create_app
from improva.web.page_files import PAGE_ADDRESSES
from improva.web.security import Access
from tests.web.client import ApiClient, client_of

PASSWORD = "kettle and two cups"
SHOP = "http://board.example"


def closed_client(folder: Path) -> ApiClient:
    """A client of a board that other computers reach as board.example."""
    Password(folder).set(PASSWORD)
    client = client_of(create_app(folder, Access(("board.example",), login=True)))
    client.application.config["SERVER_NAME"] = None
    return client


@pytest.mark.parametrize("host", ["localhost", "localhost:8000", "127.0.0.1:5173", "[::1]:8000"])
def test_this_computers_own_names_are_answered(client: ApiClient, host: str) -> None:
    assert client.get("/api/board", headers={"Host": host}).status_code == 200


@pytest.mark.parametrize(
    "host", ["evil.example", "evil.example:8000", "127.0.0.1.evil.example", "localhost.evil.example", "a b"]
)
@pytest.mark.parametrize("path", ["/api/board", "/", "/mark.svg", "/nowhere"])
def test_other_host_names_are_refused(client: ApiClient, host: str, path: str) -> None:
    answer = client.get(path, headers={"Host": host})
    assert answer.status_code == 400 and "host name" in answer.json["detail"]


def test_a_rebound_name_changes_nothing(client: ApiClient) -> None:
    """The attacker's page and its requests carry the attacker's name, so that Host and Origin agree."""
    headers = {"Host": "evil.example", "Origin": "http://evil.example"}
    assert client.put("/api/blanks/board", json={"templates": []}, headers=headers).status_code == 400


def test_a_named_host_is_answered(tmp_path: Path) -> None:
    client = client_of(create_app(tmp_path, Access(("board.example",))))
    assert client.get("/api/board", base_url=SHOP).status_code == 200


@pytest.mark.parametrize("path", ["/", "/api/board", "/nowhere", "/api/nowhere", "/mark.svg"])
def test_every_answer_has_the_security_headers(client: ApiClient, path: str) -> None:
    headers = client.get(path).headers
    policy = dict(part.strip().split(" ", 1) for part in headers["Content-Security-Policy"].split(";"))
    assert policy["default-src"] == policy["script-src"] == "'self'" and policy["frame-ancestors"] == "'none'"
    assert headers["X-Content-Type-Options"] == "nosniff" and headers["X-Frame-Options"] == "DENY"
    assert headers["Referrer-Policy"] == "no-referrer"


def test_the_page_has_no_inline_script(client: ApiClient) -> None:
    scripts = re.findall(r"<script([^>]*)>(.*?)</script>", client.get("/").text, re.DOTALL)
    assert scripts and all("src=" in attributes and not body.strip() for attributes, body in scripts)


def test_the_page_and_the_server_know_the_same_addresses() -> None:
    router = (Path(__file__).parents[2] / "frontend" / "src" / "router.tsx").read_text()
    own = set()
    for path in re.findall(r'path: "(/[^"]*)"', router):
        own |= {re.sub(r"/:\w+\?", "", path), path.replace("?", "")}
    shape = {re.sub(r"<[^>]+>", ":", rule) for rule in PAGE_ADDRESSES}
    assert shape == {re.sub(r":\w+", ":", path) for path in own}


@pytest.mark.parametrize("path", ["/favicon.ico", "/nowhere", "/bench/one/mug", "/api/nowhere", "/assets/none.js"])
def test_unknown_addresses_are_not_found(client: ApiClient, path: str) -> None:
    assert client.get(path).status_code == 404
    shown = client.get(path, headers={"Accept": "text/html,application/xhtml+xml,*/*;q=0.8"})
    assert shown.status_code == 404 and (b'<div id="root">' in shown.data) == (not path.startswith("/api/"))


def test_strangers_see_the_log_in_and_no_data(tmp_path: Path) -> None:
    client = closed_client(tmp_path)
    assert client.get("/", base_url=SHOP).status_code == 200
    assert client.get("/api/session", base_url=SHOP).json == {"login_needed": True, "logged_in": False}
    for rule in client.application.url_map.iter_rules():
        if rule.rule.startswith("/api/") and rule.rule != "/api/session":
            path = re.sub(r"<[^>]+>", "1", rule.rule)
            method = next(iter((rule.methods or set()) - {"HEAD", "OPTIONS"}))
            assert client.open(path, method=method, base_url=SHOP).status_code == 401, path


def test_logging_in_and_out(tmp_path: Path) -> None:
    client = closed_client(tmp_path)
    assert client.post("/api/session", json={"password": "a guess that is wrong"}, base_url=SHOP).status_code == 401
    entered = client.post("/api/session", json={"password": PASSWORD}, base_url=SHOP)
    assert entered.json["logged_in"]
    cookie = SimpleCookie(entered.headers["Set-Cookie"])["improva"]
    assert cookie["httponly"] and cookie["samesite"] == "Strict"
    board = client.get("/api/board", base_url=SHOP)
    assert board.status_code == 200 and "Set-Cookie" not in board.headers, (
        "an answer that comes after the log-out would undo it"
    )
    client.delete("/api/session", base_url=SHOP)
    assert client.get("/api/board", base_url=SHOP).status_code == 401


def test_a_cookie_of_another_board_or_an_earlier_password_is_worth_nothing(tmp_path: Path) -> None:
    client = closed_client(tmp_path / "one")
    client.post("/api/session", json={"password": PASSWORD}, base_url=SHOP)
    cookie = client.get_cookie("improva", domain="board.example")
    assert cookie is not None
    Password(tmp_path / "one").set("another password")
    for folder in ("one", "two"):
        if folder == "two":
            Password(tmp_path / folder).set(PASSWORD)
        other = client_of(create_app(tmp_path / folder, Access(("board.example",), login=True)))
        other.set_cookie("improva", cookie.value, domain="board.example")
        assert other.get("/api/board", base_url=SHOP).status_code == 401


def test_guessing_is_slowed_down(tmp_path: Path) -> None:
    client = closed_client(tmp_path)
    tried = [client.post("/api/session", json={"password": f"guess number {n}"}, base_url=SHOP) for n in range(7)]
    assert [answer.status_code for answer in tried] == [401] * 5 + [429] * 2
    assert client.post("/api/session", json={"password": PASSWORD}, base_url=SHOP).status_code == 429
    other = {"REMOTE_ADDR": "192.0.2.7"}
    assert client.post("/api/session", json={"password": PASSWORD}, base_url=SHOP, environ_base=other).status_code == 200


def test_the_password_is_stored_as_a_salted_hash_for_its_owner_only(tmp_path: Path) -> None:
    first, second = Password(tmp_path / "one"), Password(tmp_path / "two")
    first.set(PASSWORD)
    second.set(PASSWORD)
    stored = [json.loads((tmp_path / name / FILE).read_text()) for name in ("one", "two")]
    assert all(each["hash"].startswith("$argon2id$") and PASSWORD not in json.dumps(each) for each in stored)
    assert stored[0]["hash"] != stored[1]["hash"] and stored[0]["secret"] != stored[1]["secret"]
    assert stat.S_IMODE((tmp_path / "one" / FILE).stat().st_mode) == 0o600
    assert first.matches(PASSWORD) and not first.matches(PASSWORD + " ")


@pytest.mark.parametrize("text", ["", "{}", "[]", '{"hash": "x"}', '{"hash": 1, "secret": "s"'])
def test_a_damaged_password_file_lets_nobody_in(tmp_path: Path, text: str) -> None:
    (tmp_path / FILE).write_text(text)
    with pytest.raises(PasswordError, match="damaged"):
        create_app(tmp_path, Access(("board.example",), login=True))


@pytest.mark.parametrize(
    ("arguments", "reason"),
    [
        (["--host", "192.0.2.1"], "without a login"),
        (["--allow-host", "board.example"], "without a login"),
        (["--host", "0.0.0.0"], "--allow-host"),
        (["--password-file", "short.txt"], "at least 8"),
        (["--password-file", "empty.txt"], "at least 8"),
    ],
)
def test_an_open_board_does_not_start_without_a_password(tmp_path: Path, arguments: list[str], reason: str) -> None:
    (tmp_path / "short.txt").write_text("short\n")
    (tmp_path / "empty.txt").write_text("")
    places = [str(tmp_path / part) if part.endswith(".txt") else part for part in arguments]
    ended = CliRunner().invoke(main, ["serve", *places, "--data", str(tmp_path / "data"), "--port", "0"])
    assert ended.exit_code == 2 and reason in ended.output
