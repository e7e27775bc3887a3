from fastapi.testclient import TestClient

from fortis.api.app import create_app
from fortis.api.work import WritingWork, commits
from fortis.core.units import Unit
from fortis.store.lifter import lifter, save_lifter


def test_what_an_endpoint_writes_is_committed_or_rolled_back_or_it_is_told_that_neither_was_done(database):
    app = create_app(database)

    def write(work: WritingWork) -> None:
        save_lifter(work, Unit.LB, training_since=None, warm_ups=None)
        work.flush()

    def fail(work: WritingWork) -> None:
        write(work)
        raise ValueError

    app.add_api_route("/forgotten", write, methods=["POST"])
    app.add_api_route("/failing", commits(fail), methods=["POST"])
    app.add_api_route("/good", commits(write), methods=["POST"])
    client = TestClient(app, base_url="http://localhost", raise_server_exceptions=False)

    def after(address):
        status = client.post(address).status_code
        with database() as work:
            return status, lifter(work).unit

    assert after("/forgotten") == (500, Unit.KG)
    assert after("/failing") == (500, Unit.KG)
    assert after("/good") == (200, Unit.LB)
