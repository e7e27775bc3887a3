"""The tests some days ahead, with what they serve and the browser: none may depend on the day of the week.

`make test-ahead DAYS=2` runs them as if it were the day after tomorrow.
"""

import os
from datetime import UTC, datetime, timedelta

import time_machine

DAYS = int(os.environ.get("DAYS_AHEAD", "0"))
IN_THE_BROWSER = f"""(() => {{
  const by = {DAYS} * 86_400_000, Today = Date;
  globalThis.Date = class extends Today {{
    constructor(...told) {{ told.length ? super(...told) : super(Today.now() + by); }}
    static now() {{ return Today.now() + by; }}
  }};
}})()"""
"""Has a page begin as many days ahead."""


def go() -> None:
    """From now on let it be so many days later; time goes on."""
    if DAYS:
        time_machine.travel(datetime.now(UTC) + timedelta(days=DAYS), tick=True).start()


if __name__ == "__main__":
    go()

    from fortis.cli import app

    app()
