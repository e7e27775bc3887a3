"""Kit: what is on the rack, place by place; what to put on for a load; what the lifter says of themselves."""

from datetime import date
from decimal import Decimal
from typing import Annotated

from fastapi import APIRouter, Path, Response
from pydantic import BaseModel, Field

from fortis.api.problems import ProblemDetail
from fortis.api.work import Now, Work, WritingWork, commits
from fortis.core.conventions import USUAL, Conventions
from fortis.core.exercises import LONGEST_NAME, Exercise
from fortis.core.loading.calculator import A_BAR_LIFT, Calculated, calculate, weigh
from fortis.core.loading.kit import Kit, Stretch, read_plates, write_plates
from fortis.core.loading.resistance import Combination, Line, Solved, solve_bands, stretch_line
from fortis.core.loading.strip import PlateOrder
from fortis.core.loading.warm_up import School
from fortis.core.tally.body_weight import Weighed
from fortis.core.units import HEAVIEST, Unit
from fortis.core.value import Day, Entered, Kilograms
from fortis.store import lifter, places
from fortis.store.lifts import library
from fortis.store.tables import PlaceRow

router = APIRouter(
    prefix="/api/kit", tags=["kit"], responses={404: {"model": ProblemDetail}, 422: {"model": ProblemDetail}}
)


MOST_NUMBER = 2**63 - 1
PlaceId = Annotated[int, Path(ge=1, le=MOST_NUMBER)]
PlaceNumber = Annotated[int, Field(ge=1, le=MOST_NUMBER)]


class Place(BaseModel):
    """A place with its kit; `plates` as lifters write them."""

    id: int
    current: bool
    kit: Kit
    plates: str


class Self(BaseModel):
    """What the lifter says of themselves, and the last body weights they took, the latest first."""

    unit: Unit
    training_since: date | None
    warm_ups: School | None
    plate_order: PlateOrder
    ways: Conventions
    weighed: list[Weighed] = []


class SelfToKeep(BaseModel):
    """What the lifter says of themselves."""

    unit: Unit
    training_since: Day | None = None
    warm_ups: School | None = School.FEW
    plate_order: PlateOrder = PlateOrder.BIG_INSIDE
    ways: Conventions = USUAL


class KitView(BaseModel):
    """All places, and the lifter."""

    places: list[Place]
    lifter: Self


class KitToKeep(BaseModel):
    """A kit; `plates`, where given, are written as lifters do, and stand for those in the kit."""

    kit: Kit
    plates: str | None = Field(default=None, max_length=500)

    def whole(self) -> Kit:
        """The kit with its plates read. Raises `PlatesError`."""
        return self.kit if self.plates is None else self.kit.model_copy(update={"plates": read_plates(self.plates)})


class BodyWeight(BaseModel):
    """A body weight."""

    kg: Annotated[Entered, Field(ge=Decimal(25), le=Decimal(350))]


MOST_WEIGHED = 30


@router.get("")
def show(work: Work) -> KitView:
    """Every place with its kit, and what is known of the lifter."""
    current = places.current_place(work).id
    known = lifter.lifter(work)
    return KitView(
        places=[_place(row, current) for row in places.places(work)],
        lifter=Self(
            unit=known.unit,
            training_since=known.training_since,
            warm_ups=known.warm_ups,
            plate_order=known.plate_order,
            ways=known.ways,
            weighed=lifter.last_body_weights(work, MOST_WEIGHED),
        ),
    )


def _place(row: PlaceRow, current: int) -> Place:
    kit = places.kit_of(row)
    return Place(id=row.id, current=row.id == current, kit=kit, plates=write_plates(kit.plates))


@router.post("/places", status_code=201, responses={409: {"model": ProblemDetail}})
@commits
def add(asked: KitToKeep, work: WritingWork) -> Place:
    """Add a place; sent twice it is there once."""
    return _place(places.add_place(work, asked.whole()), places.current_place(work).id)


@router.put("/places/{place_id}", responses={409: {"model": ProblemDetail}})
@commits
def keep(place_id: PlaceId, asked: KitToKeep, work: WritingWork) -> Place:
    """Keep the kit of a place."""
    return _place(places.save_kit(work, asked.whole(), place_id), places.current_place(work).id)


@router.delete("/places/{place_id}", status_code=204, responses={409: {"model": ProblemDetail}})
@commits
def leave(place_id: PlaceId, work: WritingWork) -> Response:
    """Take a place away. The only one stays."""
    places.leave_place(work, place_id)
    return Response(status_code=204)


@router.put("/current/{place_id}", status_code=204)
@commits
def go_to(place_id: PlaceId, work: WritingWork) -> Response:
    """Put a place in use: loads are settled from its kit."""
    places.go_to(work, place_id)
    return Response(status_code=204)


@router.put("/lifter", status_code=204)
@commits
def keep_self(asked: SelfToKeep, work: WritingWork) -> Response:
    """Keep what the lifter says of themselves."""
    lifter.save_lifter(work, asked.unit, asked.training_since, asked.warm_ups, asked.plate_order, asked.ways)
    return Response(status_code=204)


@router.put("/body-weight", status_code=204)
@commits
def weigh_in(asked: BodyWeight, work: WritingWork, now: Now, on: Day | None = None) -> Response:
    """Keep a body weight for a day, today where none is named."""
    lifter.save_body_weight(work, on or lifter.today(work, now), asked.kg)
    return Response(status_code=204)


@router.delete("/body-weight/{on}", status_code=204)
@commits
def delete_weight(on: Day, work: WritingWork) -> Response:
    """Take a body weight away."""
    lifter.delete_body_weight(work, on)
    return Response(status_code=204)


Weight = Annotated[Entered, Field(gt=Decimal(0), le=HEAVIEST)]


class ToLoad(BaseModel):
    """Loads wanted one after the other, for a lift or a plain bar, in a place or the one in use."""

    wanted: list[Weight] = Field(min_length=1, max_length=60)
    lift: str | None = Field(default=None, max_length=LONGEST_NAME)
    place_id: PlaceNumber | None = None
    warm_up: School | None = None


@router.post("/load")
def load(asked: ToLoad, work: Work) -> Calculated:
    """What to put on, load by load, with the fewest plates moved."""
    return calculate(places.kit(work, asked.place_id), _lift(work, asked.lift), asked.wanted, asked.warm_up)


def _lift(work: Work, name: str | None) -> Exercise:
    return library(work).find(name) if name else A_BAR_LIFT


class OnTheBar(BaseModel):
    """Plates on one side, as lifters write them; a single one counts once: `25 20 5`."""

    side: str = Field(max_length=200)
    lift: str | None = Field(default=None, max_length=LONGEST_NAME)
    place_id: PlaceNumber | None = None


class Weighs(BaseModel):
    """What a loaded bar comes to."""

    total_kg: Kilograms
    bar: str | None
    bar_kg: Kilograms | None


@router.post("/weigh")
def weigh_bar(asked: OnTheBar, work: Work) -> Weighs:
    """What is on this bar."""
    kit = places.kit(work, asked.place_id)
    bar = kit.bar_for(_lift(work, asked.lift).load_kind)
    pairs = read_plates(asked.side, lifter.lifter(work).unit)
    singles = [plate.model_copy(update={"count": plate.count // 2}) for plate in pairs]
    total = weigh(bar, singles)
    return Weighs(total_kg=total, bar=bar.name if bar else None, bar_kg=bar.empty_kg if bar else None)


class Combinations(BaseModel):
    """Combinations of bands that were weighed."""

    combinations: list[Combination] = Field(min_length=1, max_length=100)


@router.post("/bands/solve")
def solve(asked: Combinations) -> list[Solved]:
    """What each pair of bands adds at the top, from weighed combinations, and how sure that is."""
    return list(solve_bands(asked.combinations))


class Measured(BaseModel):
    """What the scale showed at some stretches of a band."""

    measured: list[Stretch] = Field(min_length=1, max_length=50)


@router.post("/bands/line")
def line(asked: Measured) -> Line:
    """A band's pull as a line over its stretch."""
    return stretch_line(asked.measured)
