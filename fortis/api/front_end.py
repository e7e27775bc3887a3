"""The built front end as it is served: hashed files for good, pages fresh, what a view needs fetched ahead."""

import json
import re
from base64 import b64encode
from collections.abc import Mapping
from hashlib import sha256
from pathlib import Path
from secrets import token_urlsafe
from typing import Any

from fastapi import FastAPI
from fastapi.responses import FileResponse, HTMLResponse, Response
from fastapi.staticfiles import StaticFiles
from starlette.exceptions import HTTPException
from starlette.types import Scope

from fortis.api.guard import policy

NONCE = "__STYLE_NONCE__"
"""Stands in the page for the nonce of its style elements."""
FRESH = {"Cache-Control": "no-cache"}
"""Asked about every time: the page and the service worker decide which version runs."""


LONGEST_ADDRESS = 1_000
FOR_GOOD = "public, max-age=31536000, immutable"


class _Hashed(StaticFiles):
    """Files whose names change with what is in them: a browser never asks for one twice."""

    async def get_response(self, path: str, scope: Scope) -> Response:
        response = await super().get_response(path, scope)
        response.headers["Cache-Control"] = FOR_GOOD
        return response


def serve_files(app: FastAPI, front_end: Path) -> None:
    """Serve the built files: before all routes, none of which they need to be held against."""
    app.mount("/assets", _Hashed(directory=front_end / "assets"), name="assets")


def serve_pages(app: FastAPI, front_end: Path) -> None:
    """Serve the page itself for every address that is a view: after all routes, since it takes what none did."""
    index = _with_style((front_end / "index.html").read_text(encoding="utf-8"), front_end)
    inline = [_hash(script) for script in re.findall(r"<script>(.*?)</script>", index, re.DOTALL)]
    ahead = _loaded_ahead(front_end)

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        if path.startswith("api/"):
            raise HTTPException(405)  # told as one, or as 404 where no method is for the address
        if "\0" in path or len(path) > LONGEST_ADDRESS:
            raise HTTPException(404, "There is nothing at this address.")
        file = (front_end / path).resolve()
        if path not in ("", "index.html") and file.is_file() and file.is_relative_to(front_end.resolve()):
            return FileResponse(file, headers=FRESH)
        nonce = token_urlsafe(16)
        own = {"Content-Security-Policy": policy(nonce, inline)}
        html = index.replace(NONCE, nonce).replace("</head>", f"{ahead.get(_view_at(path), '')}</head>")
        return HTMLResponse(html, headers=FRESH | own)


VIEWS = {
    "": "today/Today",
    "floor": "floor/Floor",
    "compose": "compose/Compose",
    "ledger": "ledger/Ledger",
    "ledger/": "ledger/PastSession",
    "ledger/week/": "ledger/Week",
    "ledger/blocks": "ledger/Blocks",
    "ledger/import": "ledger/import/Import",
    "strength": "strength/Strength",
    "kit": "kit/Kit",
}
"""The view at an address, by the most of what it begins with; with a slash where more follows."""
ASKS = {"today/Today": "/api/today", "strength/Strength": "/api/strength", "kit/Kit": "/api/kit"}
"""What a view asks for first, whatever its address: fetched while its scripts are."""


def _with_style(index: str, front_end: Path) -> str:
    """The page with its style in it: it is painted as soon as it is there, a round trip sooner on a slow line."""

    def style(link: re.Match[str]) -> str:
        return f'<style nonce="{NONCE}">{(front_end / link[1]).read_text(encoding="utf-8")}</style>'

    return re.sub(r'<link rel="stylesheet"[^>]* href="/([^"]+)">', style, index)


def _hash(script: str) -> str:
    """The name by which a policy allows a script that stands in the page itself, and no other."""
    return f"'sha256-{b64encode(sha256(script.encode()).digest()).decode()}'"


def _view_at(path: str) -> str:
    begins = [at for at in VIEWS if at and (path == at or path.startswith(f"{at.removesuffix('/')}/"))]
    return VIEWS[max(begins, key=len)] if begins else VIEWS.get(path, "")


def _loaded_ahead(front_end: Path) -> dict[str, str]:
    """For each view the links that have a browser fetch what it needs while it still reads the page's scripts."""
    built = front_end / ".vite" / "manifest.json"
    if not built.is_file():
        return {}
    manifest = json.loads(built.read_text(encoding="utf-8"))
    page = _files(manifest, "index.html")
    links = {}
    for view in VIEWS.values():
        files = [file for file in _files(manifest, f"src/views/{view}.tsx") if file not in page]
        links[view] = "".join(f'<link rel="modulepreload" crossorigin href="/{file}">' for file in files)
        if view in ASKS:
            links[view] += f'<link rel="preload" as="fetch" crossorigin href="{ASKS[view]}">'
    return links


def _files(manifest: Mapping[str, Any], name: str) -> list[str]:
    """The script of an entry of the build and all that it imports."""
    names = [name]
    for each in names:
        names += [other for other in manifest[each].get("imports", ()) if other not in names]
    return [manifest[each]["file"] for each in names]
