"""Who may talk to Fortis: pages that it served itself, at the names it goes by, in the form it understands.

A record on one's own machine is reached by every page the browser opens. A foreign page must neither read nor
write: a name that merely resolves to this machine is not answered, writes say where they come from, and what a page
could send without being asked about is not taken.
"""

from collections.abc import Iterable
from ipaddress import ip_address
from typing import NamedTuple
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.exceptions import HTTPException
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from fortis.api.problems import problem

LOOPBACK = ("localhost", "127.0.0.1", "::1")
READS = ("GET", "HEAD", "OPTIONS")
OWN_PAGES = ("same-origin", "none")
"""What browsers call a request of the page's own origin, and one that the user made."""
MOST_BYTES = 2_000_000
"""The longest body: the longest session text with every letter escaped."""
JSON = "application/json"


class Body(NamedTuple):
    """What a request may bring: of which content type, and how many bytes of it."""

    media: str
    most_bytes: int


USUAL_BODY = Body(JSON, MOST_BYTES)
BODIES = {"/api/imports/files": Body("application/octet-stream", 256_000_000)}
"""What is brought to the addresses that do not take JSON. No page of another origin can send it unasked."""

_POLICY = {
    "default-src": "'self'",
    "style-src": "'self'",
    "img-src": "'self' data: blob:",
    "object-src": "'none'",
    "base-uri": "'none'",
    "form-action": "'none'",
    "frame-ancestors": "'none'",
}


def policy(style_nonce: str = "", script_hashes: Iterable[str] = ()) -> str:
    """What a page may load and show: what Fortis serves, and what stands in the page itself."""
    own = {"style-src": f"'self' 'nonce-{style_nonce}'"} if style_nonce else {}
    own["script-src"] = " ".join(("'self'", *script_hashes))
    return "; ".join(f"{what} {where}" for what, where in (_POLICY | own).items())


HEADERS = {
    "Content-Security-Policy": policy(),
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Referrer-Policy": "no-referrer",
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
}
"""Sent with every answer: only what Fortis serves runs and is shown, and nobody frames it."""


class Guard:
    """Looks at every request before the app does, and puts `HEADERS` on every answer.

    `names` are the hosts it answers to beside the loopback ones. The address that a connection came in at is one as
    well: a page can be given a name for it, but not the address itself.
    """

    def __init__(self, app: ASGIApp, names: Iterable[str] = ()) -> None:
        self.app = app
        self.names = frozenset(map(str.lower, (*LOOPBACK, *names))) - {"0.0.0.0", "::"}

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Refuse, or let pass."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return

        async def guarded(message: Message) -> None:
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                for name, value in HEADERS.items():
                    headers.setdefault(name, value)
            await send(message)

        refusal = self._refusal(scope)
        if refusal:
            await problem(*refusal)(scope, receive, guarded)
            return
        if scope["method"] == "HEAD":
            await self.app({**scope, "method": "GET"}, receive, _without_body(guarded))
            return
        await self.app(scope, _bounded(receive, _body(scope)), guarded)

    def _refusal(self, scope: Scope) -> tuple[int, str, str] | None:
        headers = Headers(scope=scope)
        host = headers.get("host", "")
        if not self._answers_to(host, scope):
            return (
                421,
                "Not at this name",
                "Fortis does not go by this name; open it at the address it printed.",
            )
        if scope["method"] not in READS and not _is_own_page(headers, host):
            return 403, "From another page", "Only Fortis's own pages write to the record."
        length, body = headers.get("content-length", "0"), _body(scope)
        if not length.isdecimal() or int(length) > body.most_bytes:
            return _too_long(body)
        has_body = int(length) > 0 or "transfer-encoding" in headers
        if has_body and headers.get("content-type", "").partition(";")[0].strip().lower() != body.media:
            return 415, "Another kind of body", f"A body is sent as {body.media}."
        return None

    def _answers_to(self, host: str, scope: Scope) -> bool:
        try:
            name = urlsplit(f"//{host}").hostname or ""
        except ValueError:
            return False
        return name in self.names or _same_address(name, (scope.get("server") or ("",))[0])


def _body(scope: Scope) -> Body:
    return BODIES.get(scope["path"], USUAL_BODY)


def _too_long(body: Body) -> tuple[int, str, str]:
    return 413, "Too long", f"A body has {body.most_bytes:,} bytes at most."


def _is_own_page(headers: Headers, host: str) -> bool:
    """Whether a request that writes comes from a page of Fortis, or from no page at all."""
    origin, site = headers.get("origin"), headers.get("sec-fetch-site")
    if site is not None and site not in OWN_PAGES:
        return False
    return origin is None or origin.lower().partition("://")[2] == host.lower()


def _same_address(name: str, address: str) -> bool:
    try:
        return ip_address(name) == ip_address(address)
    except ValueError:
        return False


def _without_body(send: Send) -> Send:
    """Sends what a GET would, without its body."""

    async def headers_only(message: Message) -> None:
        await send({**message, "body": b""} if message["type"] == "http.response.body" else message)

    return headers_only


def _bounded(receive: Receive, body: Body) -> Receive:
    """Takes no more of a body than it may have, whatever length was told."""
    taken = 0

    async def bounded() -> Message:
        nonlocal taken
        message = await receive()
        taken += len(message.get("body", b""))
        if taken > body.most_bytes:
            raise HTTPException(413, _too_long(body)[2])
        return message

    return bounded
