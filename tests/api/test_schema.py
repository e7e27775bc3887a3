"""Every operation of the interface with requests made from its own description, good and bad.

`make schema` takes its time; here each operation gets a few.
"""

import os

import pytest
import schemathesis
from hypothesis import HealthCheck, settings

from fortis.api.app import create_app
from tests.serving import Threaded

EXAMPLES = int(os.environ.get("EXAMPLES", "6"))
REFUSALS = ["400", "404", "405", "409", "413", "415", "421", "422"]
CHECKS = {
    # A text may be no session, and a session not there, however well the request is formed.
    "positive_data_acceptance": {"expected-statuses": ["2xx", "404", "409", "422"]},
    "negative_data_rejection": {"expected-statuses": REFUSALS},
}
config = schemathesis.config.SchemathesisConfig.from_dict({"checks": CHECKS})
schema = schemathesis.openapi.from_dict(create_app().openapi(), config=config)


@pytest.fixture(scope="module")
def serving(tmp_path_factory, demo_at):
    """A served demo."""
    path = tmp_path_factory.mktemp("schema") / "demo.db"
    demo_at(path)
    served = Threaded(path)
    served.start()
    yield served
    served.stop()


@schema.parametrize()
@settings(max_examples=EXAMPLES, derandomize=True, deadline=None, suppress_health_check=list(HealthCheck))
def test_every_answer_is_as_described(case, serving):
    case.call_and_validate(base_url=serving.address)
