"""The guide to the structures as pages for people: `python -m fortis.guide FOLDER` writes one a structure."""

import sys
from pathlib import Path

from fortis.core.resolution import resolve
from fortis.core.structure.methods import METHODS, PURPOSES, Method, write_method
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline
from fortis.core.units import clock


def pages() -> dict[str, str]:
    """Every page by its file name: an index, and one for each structure."""
    return {"README.md": _index(), **{f"{method.id}.md": _page(method) for method in METHODS}}


def _index() -> str:
    lines = ["# Structures", "", "What each is for, and how it is written. The same pages stand in Compose.", ""]
    for purpose in PURPOSES:
        lines += [f"## {purpose}", ""]
        lines += [f"- [{method.name}]({method.id}.md)" for method in METHODS if method.purpose == purpose]
        lines.append("")
    return "\n".join(lines)


def _page(method: Method) -> str:
    written = write_method(method)
    seconds = timeline(resolve(lay_out(read(written)))).total_seconds
    numbers = [f"| {dial.label} | {dial.usual} | {dial.low} to {dial.high} |" for dial in method.dials]
    return "\n".join([
        f"# {method.name}",
        "",
        f"{method.purpose}. {method.is_for}",
        "",
        "```",
        written,
        "```",
        "",
        f"About {clock(seconds)} at the usual pace of its lifts.",
        "",
        "| Number | Usual | From, to |",
        "|---|---|---|",
        *numbers,
        "",
        f"**Not for.** {method.not_for}",
        "",
        f"**Known.** {method.known}",
        "",
        f"**Disputed.** {method.disputed}",
        "",
    ])  # fmt: skip


def main() -> None:
    """Write the pages into the folder named on the command line."""
    folder = Path(sys.argv[1])
    folder.mkdir(parents=True, exist_ok=True)
    for name, text in pages().items():
        (folder / name).write_text(text, encoding="utf-8")


if __name__ == "__main__":
    main()
