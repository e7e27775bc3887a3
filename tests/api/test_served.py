"""The pages and files as a product serves them: compressed, cached for good or never."""

import gzip

import pytest

from fortis.api.app import FRONT_END


def test_hashed_files_are_kept_for_good_and_the_page_is_asked_about(client):
    for file in (FRONT_END / "assets").iterdir():
        assert "immutable" in client.get(f"/assets/{file.name}").headers["Cache-Control"]
    for path in ("/", "/floor", "/sw.js", "/theme.js"):
        assert client.get(path).headers["Cache-Control"] == "no-cache"
    assert client.get("/assets/nothing.js").status_code == 404
    assert "immutable" not in client.get("/assets/nothing.js").headers.get("Cache-Control", "")


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


def test_each_page_has_a_nonce_of_its_own(client):
    pages = [client.get("/") for _ in range(2)]
    nonces = [page.text.partition('name="style-nonce" content="')[2].partition('"')[0] for page in pages]
    assert nonces[0] != nonces[1]
    for page, nonce in zip(pages, nonces, strict=True):
        assert f"'nonce-{nonce}'" in page.headers["Content-Security-Policy"]
