"""The arrows of the design, the generated types, and what ships with the app."""

import json
import re
import subprocess
from pathlib import Path

import pytest
from importlinter.cli import EXIT_STATUS_SUCCESS, lint_imports

from fortis.api.app import FRONT_END
from fortis.api.schema import schema

ROOT = Path(__file__).parents[1]


def test_arrows_point_one_way():
    assert lint_imports(config_filename=str(ROOT / "pyproject.toml")) == EXIT_STATUS_SUCCESS


def test_the_client_types_are_those_of_the_interface(tmp_path):
    (tmp_path / "openapi.json").write_text(schema())
    command = ["npx", "--no-install", "openapi-typescript", tmp_path / "openapi.json", "-o", tmp_path / "schema.ts"]
    subprocess.run(command, cwd=ROOT / "web", check=True, capture_output=True)
    assert (tmp_path / "schema.ts").read_text() == (ROOT / "web/src/data/schema.ts").read_text()


@pytest.mark.skipif(not FRONT_END.is_dir(), reason="the web client is not built")
def test_nothing_is_fetched_from_elsewhere():
    for file in FRONT_END.rglob("*"):
        if file.suffix in {".html", ".css", ".webmanifest"}:
            assert not re.search(r"(?:src|href|url)\s*[=(]\s*[\"']?https?:", file.read_text()), file
    manifest = json.loads((FRONT_END / "manifest.webmanifest").read_text())
    assert manifest["display"] == "standalone"
    assert (FRONT_END / manifest["icons"][0]["src"].lstrip("/")).is_file()
