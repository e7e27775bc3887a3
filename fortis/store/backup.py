"""Copies of the record: whole, checked before they count, one a day and one before every change of its form."""

import sqlite3
from contextlib import closing, suppress
from datetime import date, timedelta
from pathlib import Path

DAYS_KEPT = 14
WEEKS_KEPT = 12


class BackupError(RuntimeError):
    """A copy that could not be made, or is not whole; nothing is left of it."""


def back_up(path: Path, target: Path) -> None:
    """Copy a database that may be in use to `target`, whole and consistent.

    The copy is made beside `target`, checked, and renamed only then. Raises `FileNotFoundError` where there is no
    such database, `FileExistsError` where `target` exists, `BackupError` where no whole copy can be made.
    """
    if not path.exists():
        raise FileNotFoundError(path)
    if target.exists():
        raise FileExistsError(target)
    making = target.with_name(f".{target.name}.making")
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        making.unlink(missing_ok=True)
        with closing(sqlite3.connect(path)) as source, closing(sqlite3.connect(making)) as copy:
            source.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE")
        if problems := damage(making):
            raise BackupError(f"{path} is damaged ({problems[0]}), so it was not copied.")
        making.rename(target)
    except (OSError, sqlite3.Error) as error:
        raise BackupError(f"{path} could not be copied to {target}: {error}.") from error
    finally:
        with suppress(OSError):
            making.unlink(missing_ok=True)


def damage(path: Path) -> list[str]:
    """What SQLite finds wrong with a database; nothing where it is sound. Raises `sqlite3.Error`."""
    with closing(sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro", uri=True)) as database:
        found = [row[0] for row in database.execute("PRAGMA integrity_check(20)")]
        broken = [f"a row of {row[0]} refers to nothing" for row in database.execute("PRAGMA foreign_key_check")]
    return [each for each in found if each != "ok"] + broken


def folder(path: Path) -> Path:
    """Where the backups of a database are kept."""
    return path.parent / "backups"


def before_migration(path: Path, revision: str) -> Path:
    """Copy a database before its form changes from `revision`; one such copy of each form is kept."""
    target = folder(path) / f"{path.stem}-before-{revision}.db"
    if not target.exists():
        back_up(path, target)
    return target


def daily(path: Path, today: date) -> Path:
    """Copy a database once a day, and let go of copies that are too old."""
    target = folder(path) / f"{path.stem}-{today}.db"
    if not target.exists():
        back_up(path, target)
    for old in _too_old(path, today):
        old.unlink(missing_ok=True)
    return target


def _too_old(path: Path, today: date) -> list[Path]:
    """The copies that are neither of the last days nor the first of one of the last weeks. Others' files stay."""
    copies = {}
    for file in folder(path).glob(f"{path.stem}-*.db"):
        try:
            copies[date.fromisoformat(file.stem.removeprefix(f"{path.stem}-"))] = file
        except ValueError:
            continue
    first_of_week: dict[tuple[int, int], date] = {}
    for day in sorted(copies):
        first_of_week.setdefault(day.isocalendar()[:2], day)
    recent = {day for day in copies if day > today - timedelta(days=DAYS_KEPT)}
    weekly = {day for day in first_of_week.values() if day > today - timedelta(weeks=WEEKS_KEPT)}
    return [file for day, file in copies.items() if day not in recent | weekly]
