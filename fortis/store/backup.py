"""Copies of the record: whole, checked before they count, one a day and one before every change of its form."""

import sqlite3
from contextlib import closing, suppress
from datetime import date, datetime
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


class InUseError(RuntimeError):
    """Somebody has the record open."""


def bring_back(backup: Path, path: Path, now: datetime) -> Path | None:
    """Put a copy in the place of a database, which is set aside; returns where, None where there was none.

    The copy is checked first and stays. What SQLite keeps beside a database goes aside with it: read with another
    one it would spoil that. Raises `FileNotFoundError`, `BackupError` where the copy is not whole, `InUseError`.
    """
    if not backup.exists():
        raise FileNotFoundError(backup)
    try:
        problems = damage(backup)
        with closing(sqlite3.connect(f"{backup.absolute().as_uri()}?mode=ro", uri=True)) as copy:
            ours = copy.execute("select 1 from sqlite_master where name = 'alembic_version'").fetchone()
    except sqlite3.Error as error:
        problems = [str(error)]
    if problems:
        raise BackupError(f"{backup} is damaged ({problems[0]}); choose another copy.")
    if not ours:
        raise BackupError(f"{backup} is the database of another program; choose another copy.")
    aside = folder(path) / f"{path.stem}-set-aside-{now:%Y-%m-%d-%H%M%S}.db" if path.exists() else None
    if aside:
        _let_go(path)
        _move(path, aside)
    try:
        back_up(backup, path)
    except BackupError:
        if aside:
            _move(aside, path)
        raise
    return aside


def _let_go(path: Path) -> None:
    """Make sure that nobody has a database open: only then can it leave the form that is written beside it."""
    try:
        with closing(sqlite3.connect(path, timeout=1)) as database:
            database.execute("PRAGMA journal_mode=DELETE")
    except sqlite3.OperationalError as error:
        if error.sqlite_errorcode & 0xFF in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED):
            raise InUseError(path) from error
    except sqlite3.DatabaseError:
        return


def _move(path: Path, target: Path) -> None:
    target.parent.mkdir(parents=True, exist_ok=True)
    for beside in ("", "-wal", "-shm"):
        with suppress(FileNotFoundError):
            path.with_name(path.name + beside).rename(target.with_name(target.name + beside))


def daily(path: Path, today: date) -> Path:
    """Copy a database once a day, and let go of copies that are too old."""
    target = folder(path) / f"{path.stem}-{today}.db"
    if not target.exists():
        back_up(path, target)
    for old in _too_old(path, today):
        old.unlink(missing_ok=True)
    return target


def _too_old(path: Path, today: date) -> list[Path]:
    """The copies that are neither of the last days nor the first of one of the last weeks. Others' files stay.

    Days and weeks are those that have a copy: a clock that leapt ahead makes no copy old.
    """
    copies = {}
    for file in folder(path).glob(f"{path.stem}-*.db"):
        try:
            copies[date.fromisoformat(file.stem.removeprefix(f"{path.stem}-"))] = file
        except ValueError:
            continue
    first_of_week: dict[tuple[int, int], date] = {}
    for day in sorted(copies):
        first_of_week.setdefault(day.isocalendar()[:2], day)
    recent = sorted(copies)[-DAYS_KEPT:]
    weekly = sorted(first_of_week.values())[-WEEKS_KEPT:]
    return [file for day, file in copies.items() if day not in {*recent, *weekly, today}]
