"""The cases that hold the client to the core's rules are those the core makes today."""

import json

import pytest

from fortis.core.adjustments import Adjustments
from tests.golden import FILES, FOLDER, written


@pytest.mark.parametrize("name", FILES)
def test_the_golden_cases_are_fresh(name):
    """Stale ones are renewed with `make golden`, and the client's own tests run again."""
    assert (FOLDER / f"{name}.json").read_text(encoding="utf-8") == written(name)


def test_there_are_cases_for_every_structure_and_every_kind_of_change():
    cases = json.loads((FOLDER / "played.json").read_text(encoding="utf-8"))["cases"]
    changes = [change["changed"] for case in cases for change in case["changes"]]
    assert len(changes) >= 500
    for kind in Adjustments.model_fields.keys() - {"prepared"}:  # which moves no set
        assert sum(bool(change[kind]) for change in changes) > 50, kind
