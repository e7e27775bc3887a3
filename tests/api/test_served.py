"""The pages and files as a product serves them: compressed, cached for good or never."""

import gzip
import re
import socket
from base64 import b64encode
from hashlib import sha256

import pytest

from fortis.api.app import FRONT_END
from fortis.serving import listen


def test_hashed_files_are_kept_for_good_and_the_page_is_asked_about(client):
    for file in (FRONT_END / "assets").iterdir():
        assert "immutable" in client.get(f"/assets/{file.name}").headers["Cache-Control"]
    for path in ("/", "/floor", "/sw.js", "/icon.svg"):
        assert client.get(path).headers["Cache-Control"] == "no-cache"
    assert client.get("/assets/nothing.js").status_code == 404
    assert "immutable" not in client.get("/assets/nothing.js").headers.get("Cache-Control", "")


VIEWS = {
    "/": "Today",
    "/floor/x": "Floor",
    "/ledger": "Ledger",
    "/ledger/x": "PastSession",
    "/nowhere": None,
    "/ledger/week/2026-11-23": "Week",
    "/ledger/blocks": "Blocks",
    "/ledger/import": "Import",
}


@pytest.mark.parametrize(("path", "view"), VIEWS.items())
def test_the_scripts_of_a_view_are_fetched_ahead(client, path, view):
    page = client.get(path).text
    ahead = re.findall(r'modulepreload" crossorigin href="(/assets/[^"]*)"', page)
    assert all(client.get(file).status_code == 200 for file in ahead)
    assert [
        file for file in ahead if re.match("/assets/(Today|Floor|Ledger|PastSession|Week|Blocks|Import)-", file)
    ] == [file for file in ahead if view and file.startswith(f"/assets/{view}-")]
    assert view is None or f"/assets/{view}-" in page


@pytest.mark.parametrize("way", ["gzip", "br", "zstd"])
def test_answers_are_compressed_as_the_browser_asks(client, way):
    script = max((FRONT_END / "assets").glob("*.js"), key=lambda file: file.stat().st_size)
    with client.stream("GET", f"/assets/{script.name}", headers={"Accept-Encoding": way}) as answer:
        assert answer.headers["Content-Encoding"] == way
        assert "Accept-Encoding" in answer.headers["Vary"]
        sent = b"".join(answer.iter_raw())
    assert len(sent) < script.stat().st_size / 2
    if way == "gzip":
        assert gzip.decompress(sent) == script.read_bytes()
    lifts = client.get("/api/compose/lifts", headers={"Accept-Encoding": way})
    assert lifts.headers["Content-Encoding"] == way
    assert len(lifts.json()) > 50


def test_answers_are_sent_at_once():
    with listen("127.0.0.1", 0) as listening, socket.create_connection(listening.getsockname()):
        accepted, _ = listening.accept()
        with accepted:
            assert accepted.getsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY)


def test_each_page_has_a_nonce_of_its_own(client):
    pages = [client.get("/") for _ in range(2)]
    nonces = [page.text.partition('name="style-nonce" content="')[2].partition('"')[0] for page in pages]
    assert nonces[0] != nonces[1]
    for page, nonce in zip(pages, nonces, strict=True):
        assert f"'nonce-{nonce}'" in page.headers["Content-Security-Policy"]


def test_the_page_brings_its_style_under_its_nonce(client):
    page = client.get("/")
    [(nonce, style)] = re.findall(r'<style nonce="([^"]*)">(.*?)</style>', page.text, re.DOTALL)
    assert f"'nonce-{nonce}'" in page.headers["Content-Security-Policy"]
    assert style in {file.read_text() for file in (FRONT_END / "assets").glob("*.css")}
    assert 'rel="stylesheet"' not in page.text


def test_of_the_scripts_in_the_page_only_its_own_may_run(client):
    page = client.get("/")
    allowed = re.search(r"script-src ([^;]*)", page.headers["Content-Security-Policy"])[1].split()
    [script] = re.findall(r"<script>(.*?)</script>", page.text, re.DOTALL)
    assert allowed == ["'self'", f"'sha256-{b64encode(sha256(script.encode()).digest()).decode()}'"]
