"""The tables. Times are UTC; loads exact decimals kept as text; what was typed is kept as typed."""

from datetime import UTC, date, datetime
from decimal import Decimal
from typing import Any

from sqlalchemy import JSON, Computed, DateTime, ForeignKey, Index, MetaData, String, UniqueConstraint
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column
from sqlalchemy.types import TypeDecorator


class ExactDecimal(TypeDecorator[Decimal]):
    """A decimal kept as text, because SQLite would make it a float."""

    impl = String
    cache_ok = True

    def process_bind_param(self, value: Decimal | None, dialect: Dialect) -> str | None:  # noqa: ARG002
        """To text."""
        return None if value is None else f"{value:f}"

    def process_result_value(self, value: str | None, dialect: Dialect) -> Decimal | None:  # noqa: ARG002
        """From text."""
        return None if value is None else Decimal(value)


class Instant(TypeDecorator[datetime]):
    """A moment in UTC; aware outside, naive in SQLite."""

    impl = DateTime
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> datetime | None:  # noqa: ARG002
        """To naive UTC."""
        return None if value is None else value.astimezone(UTC).replace(tzinfo=None)

    def process_result_value(self, value: datetime | None, dialect: Dialect) -> datetime | None:  # noqa: ARG002
        """To aware UTC."""
        return None if value is None else value.replace(tzinfo=UTC)


class Table(DeclarativeBase):
    """The base of all tables."""

    metadata = MetaData(
        naming_convention={
            "ix": "ix_%(table_name)s_%(column_0_name)s",
            "uq": "uq_%(table_name)s_%(column_0_name)s",
            "fk": "fk_%(table_name)s_%(column_0_name)s",
            "pk": "pk_%(table_name)s",
        }
    )
    type_annotation_map = {
        Decimal: ExactDecimal,
        datetime: Instant,
        dict[str, Any]: JSON(none_as_null=True),
        list[str]: JSON,
    }


class LifterRow(Table):
    """The one lifter: the unit they think in, their time zone, and how they count where they chose."""

    __tablename__ = "lifter"

    id: Mapped[int] = mapped_column(primary_key=True)
    unit: Mapped[str]
    zone: Mapped[str]
    training_since: Mapped[date | None]
    place_id: Mapped[int | None] = mapped_column(ForeignKey("place.id"))
    warm_ups: Mapped[str | None]
    plate_order: Mapped[str] = mapped_column(server_default="big plates inside")
    ways: Mapped[dict[str, Any] | None]


class BodyWeightRow(Table):
    """Body weight on a day."""

    __tablename__ = "body_weight"

    on: Mapped[date] = mapped_column(primary_key=True)
    kg: Mapped[Decimal]
    import_id: Mapped[str | None] = mapped_column(ForeignKey("import.id"))


class PlaceRow(Table):
    """A place to train, with its kit."""

    __tablename__ = "place"

    id: Mapped[int] = mapped_column(primary_key=True)
    kit: Mapped[dict[str, Any]]


class SeasonRow(Table):
    """A season: its text, when it was last changed, and when it was ended by the lifter."""

    __tablename__ = "season"

    id: Mapped[str] = mapped_column(String(36), primary_key=True)
    written: Mapped[str]
    unit: Mapped[str]
    at: Mapped[datetime]
    ended_at: Mapped[datetime | None]


class SessionRow(Table):
    """A session: planned, then started, then finished.

    `written` is the notation as typed, `slot` what sessions that stand in for each other share: a template, or
    the first of them. `resolved` is the prescription with its loads settled and `kit` the kit of the gym, both
    frozen when the session starts, so that what is played does not change under the lifter's hands. `felt` is how
    hard it was as a whole, 0 to 10. `structures` are the names of what `written` is made of, to find it by.
    """

    __tablename__ = "session"
    __table_args__ = (Index("ix_session_finished_at", "finished_at", "discarded_at", "started_at", "id"),)

    id: Mapped[str] = mapped_column(String(36), primary_key=True)
    slot: Mapped[str] = mapped_column(String(36), index=True)
    title: Mapped[str]
    written: Mapped[str]
    structures: Mapped[str] = mapped_column(server_default="")
    unit: Mapped[str]
    planned_on: Mapped[date | None] = mapped_column(index=True)
    started_at: Mapped[datetime | None] = mapped_column(index=True)
    finished_at: Mapped[datetime | None]
    discarded_at: Mapped[datetime | None]
    zone: Mapped[str | None]
    place_id: Mapped[int | None] = mapped_column(ForeignKey("place.id"))
    kit: Mapped[dict[str, Any] | None]
    resolved: Mapped[dict[str, Any] | None] = mapped_column(deferred=True)
    adjustments: Mapped[dict[str, Any] | None]
    felt: Mapped[int | None]
    import_id: Mapped[str | None] = mapped_column(ForeignKey("import.id"), index=True)
    season_id: Mapped[str | None] = mapped_column(ForeignKey("season.id"), index=True)


_ALIKE = """
CASE WHEN taken_back_at IS NULL AND "set" > 0 AND reps > 0 AND kg IS NOT NULL
AND coalesce(json_extract(asked, '$.range_of_motion'), 'full') = 'full'
AND coalesce(json_extract(asked, '$.lifting'), 'alone') = 'alone'
THEN coalesce(json_extract(asked, '$.tempo'), '') END
"""


class BoutRow(Table):
    """A bout performed, in its latest version.

    Its position in the session is unique: a bout sent twice is one bout. One that was taken back stays, with when
    that was. `alike` is worked out by the database: the tempo of a bout that can be compared with others (full reps
    of a work set with a load, lifted alone), empty where none was asked; None for every other bout.
    """

    __tablename__ = "bout"
    __table_args__ = (
        UniqueConstraint("session_id", "group", "round", "entry", "set", "bout"),
        Index("ix_bout_session_id", "session_id", "version"),
        Index("ix_bout_alike", "lift_id", "alike", "setup", "kg", "reps", "done_at", "session_id"),
    )

    id: Mapped[str] = mapped_column(String(36), primary_key=True)
    session_id: Mapped[str] = mapped_column(ForeignKey("session.id"))
    group: Mapped[int]
    round: Mapped[int]
    entry: Mapped[int]
    set: Mapped[int]
    bout: Mapped[int]
    exercise: Mapped[str]
    lift_id: Mapped[str] = mapped_column(index=True, server_default="")
    setup: Mapped[list[str]]
    side: Mapped[str]
    kg: Mapped[Decimal | None]
    body: Mapped[bool] = mapped_column(server_default="0")
    bottom_kg: Mapped[Decimal | None]
    top_kg: Mapped[Decimal | None]
    mean_kg: Mapped[Decimal | None]
    reps: Mapped[int]
    partial_reps: Mapped[int]
    seconds: Mapped[int]
    reserve: Mapped[Decimal | None]
    or_more: Mapped[bool] = mapped_column(server_default="0")
    ended: Mapped[str | None]
    note: Mapped[str] = mapped_column(server_default="")
    rep_seconds: Mapped[list[float] | None] = mapped_column(JSON(none_as_null=True))
    asked: Mapped[dict[str, Any] | None]
    source: Mapped[str | None]
    version: Mapped[int] = mapped_column(server_default="1")
    device: Mapped[str] = mapped_column(server_default="")
    began_at: Mapped[datetime | None]
    done_at: Mapped[datetime]
    taken_back_at: Mapped[datetime | None]
    alike: Mapped[str | None] = mapped_column(Computed(_ALIKE, persisted=False), deferred=True)


class BoutVersionRow(Table):
    """A version of a bout, recorded at some time on some device; `document` is None where it was taken back."""

    __tablename__ = "bout_version"

    bout_id: Mapped[str] = mapped_column(ForeignKey("bout.id"), primary_key=True)
    version: Mapped[int] = mapped_column(primary_key=True)
    at: Mapped[datetime]
    device: Mapped[str]
    document: Mapped[dict[str, Any] | None]


class LiftRow(Table):
    """A lift of the lifter's own, under an id that stays when it is renamed."""

    __tablename__ = "lift"

    id: Mapped[str] = mapped_column(primary_key=True)
    lift: Mapped[dict[str, Any]] = mapped_column(JSON)


class TemplateRow(Table):
    """A session's text kept to be used again."""

    __tablename__ = "template"

    id: Mapped[str] = mapped_column(String(36), primary_key=True)
    title: Mapped[str]
    written: Mapped[str]
    unit: Mapped[str]


class SetAsideRow(Table):
    """A caution set aside for good: for one lift, or for all where `lift_id` is empty."""

    __tablename__ = "set_aside"

    rule: Mapped[str] = mapped_column(primary_key=True)
    lift_id: Mapped[str] = mapped_column(primary_key=True)


class RememberedRow(Table):
    """A recent set or a max the lifter told from memory, as the bout it would have been. One taken back stays."""

    __tablename__ = "remembered"

    id: Mapped[str] = mapped_column(String(36), primary_key=True)
    at: Mapped[datetime] = mapped_column(index=True)
    bout: Mapped[dict[str, Any]]
    taken_back_at: Mapped[datetime | None]


class PolicyRow(Table):
    """How a lift is to progress, where the lifter chose."""

    __tablename__ = "policies"

    lift_id: Mapped[str] = mapped_column(primary_key=True)
    policy: Mapped[dict[str, Any]]


class ReadinessRow(Table):
    """How ready the lifter was before a session, as far as they said."""

    __tablename__ = "readiness"

    session_id: Mapped[str] = mapped_column(ForeignKey("session.id"), primary_key=True)
    readiness: Mapped[dict[str, Any]]


class ImportRow(Table):
    """A log that was taken in from a file: how much came with it, and when it was taken back, if it was.

    `written_at` is None until all of it is in the record; before that nothing of it is seen. `body_weights` are
    those that came with it, by day.
    """

    __tablename__ = "import"

    id: Mapped[str] = mapped_column(String(36), primary_key=True)
    name: Mapped[str]
    at: Mapped[datetime]
    sessions: Mapped[int]
    bouts: Mapped[int]
    body_weights: Mapped[dict[str, Any]]
    written_at: Mapped[datetime | None]
    taken_back_at: Mapped[datetime | None]
