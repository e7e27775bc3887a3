"""Hypothesis strategies for the whole algebra, in the canonical shapes that reading gives."""

from decimal import Decimal

from hypothesis import strategies as st

from fortis.core.structure import model as m
from fortis.core.units import Unit

seconds = st.integers(1, 3600)
amounts = st.integers(1, 4000).map(lambda quarter: Decimal(quarter) / 4)
units = st.sampled_from(Unit)
names = st.sampled_from(
    ["Back squat", "Ring dip", "Seal row", "Leg extension", "Übung 7 – 🏋️", "O'Brien press", "x"]
)
shifts = st.builds(m.Shift, amount=st.integers(1, 98).map(Decimal), unit=st.sampled_from(["%", "kg", "lb"]))


def _range(kind, low, high):
    pairs = st.tuples(st.integers(low, high - 1), st.integers(1, 20))
    return pairs.map(lambda pair: kind(low=pair[0], high=min(pair[0] + pair[1], high)))


reps = st.one_of(
    st.builds(m.FixedReps, count=st.integers(1, 500)),
    _range(m.RepRange, 1, 500),
    st.just(m.MaxReps()),
    st.builds(m.Hold, seconds=seconds),
)


def _signed(shift, sign):
    return shift.model_copy(update={"amount": sign * shift.amount})


loads = st.one_of(
    st.builds(m.Weight, amount=amounts, unit=units),
    st.tuples(amounts, amounts, units)
    .filter(lambda each: each[0] < each[1])
    .map(lambda each: m.WeightRange(low=each[0], high=each[1], unit=each[2])),
    st.builds(
        m.Percent,
        percent=st.integers(1, 400).map(lambda half: Decimal(half) / 2),
        of=st.none() | st.builds(m.Weight, amount=amounts, unit=units),
    ),
    st.builds(m.RepMax, reps=st.integers(1, 50)),
    st.just(m.BodyPlus()),
    st.tuples(amounts, units, st.sampled_from([1, -1])).map(
        lambda each: m.BodyPlus(amount=each[2] * each[0], unit=each[1])
    ),
    st.tuples(shifts, st.sampled_from([1, -1])).map(lambda each: m.OfTop(shift=_signed(*each))),
    st.tuples(shifts, st.sampled_from([1, -1])).map(lambda each: m.OfPrevious(shift=_signed(*each))),
    st.just(m.LastTime()),
    st.tuples(shifts, st.sampled_from([1, -1])).map(lambda each: m.LastTime(shift=_signed(*each))),
)
efforts = st.one_of(
    st.integers(0, 10).map(lambda left: m.Leave(low=left, high=left)),
    _range(m.Leave, 0, 10),
    st.builds(m.Rpe, value=st.integers(2, 20).map(lambda half: Decimal(half) / 2)),
    st.builds(m.ToFailure, how=st.sampled_from(m.FailureKind)),
)
tempos = st.builds(
    m.Tempo,
    lowering=st.integers(1, 10),
    bottom=st.integers(0, 5),
    lifting=st.one_of(st.integers(0, 5), st.just("x")),
    top=st.integers(0, 5),
)


def _terms(**fixed):
    fields = {
        "load": st.none() | loads,
        "climb": st.none() | shifts,
        "effort": st.none() | efforts,
        "tempo": st.none() | tempos,
        "range_of_motion": st.none() | st.sampled_from([each for each in m.RangeOfMotion if each != "full"]),
        "side": st.none() | st.sampled_from([each for each in m.Side if each != "both"]),
        "lifting": st.none() | st.sampled_from([each for each in m.Lifting if each != "alone"]),
    }
    return st.builds(m.Terms, **{**fields, **fixed}) | st.builds(
        m.Terms,
        side=st.sampled_from([side for side in m.Side if side.is_each]),
        apart=seconds,
    )


bouts = st.builds(m.Bout, reps=reps, terms=_terms(), rest=st.none())
short_rests = st.none() | seconds


@st.composite
def sets_of_bouts(draw):
    several = draw(st.lists(st.builds(m.Bout, reps=reps, terms=_terms(), rest=short_rests), min_size=2, max_size=5))
    several[-1] = several[-1].model_copy(update={"rest": None})
    return m.Set(bouts=tuple(several), terms=draw(_terms()), within=draw(short_rests))


runs = st.builds(
    m.Sets,
    each=bouts.map(lambda bout: m.Set(bouts=(bout,))) | sets_of_bouts(),
    count=st.integers(1, 6),
    rest=short_rests,
    every=st.none(),
    span=st.none(),
) | st.builds(
    m.Sets,
    each=bouts.map(lambda bout: m.Set(bouts=(bout,))) | sets_of_bouts(),
    count=st.just(1),
    rest=st.none(),
    every=st.none() | seconds,
    span=seconds,
)
clocked_runs = st.builds(
    m.Sets,
    each=bouts.map(lambda bout: m.Set(bouts=(bout,))),
    count=st.integers(2, 12),
    rest=st.none(),
    every=seconds,
    span=st.none(),
)
befores = st.lists(st.sampled_from(["", "# why this is here", "# 🏔"]), max_size=2).map(tuple)
remarks = st.sampled_from(["", "", "hips lower", "left elbow: drops # twice"])
setups = st.lists(st.sampled_from(["belt", "straps", "bands 30 kg top"]), max_size=3).map(
    lambda items: m.SetUp(items=tuple(items))
)


def _grounded(entry):
    """The first bout of a lift has no bout before it to drop from."""
    first = entry.sets[0]
    opening = first.each.bouts[0]
    if not isinstance(opening.terms.over(first.each.terms).load, m.OfPrevious):
        return entry
    own = opening.terms.model_copy(update={"load": m.Weight(amount=Decimal(60))})
    bouts = (opening.model_copy(update={"terms": own}), *first.each.bouts[1:])
    grounded = first.model_copy(update={"each": first.each.model_copy(update={"bouts": bouts})})
    return entry.model_copy(update={"sets": (grounded, *entry.sets[1:])})


entries = st.builds(
    m.Entry,
    exercise=names,
    setup=setups,
    sets=st.lists(runs | clocked_runs, min_size=1, max_size=3).map(tuple),
    before=befores,
    remark=remarks,
).map(_grounded)
members = st.lists(entries, min_size=2, max_size=4).map(tuple)
rounds = st.none() | st.integers(1, 5)
rested = {"rest": short_rests, "between": short_rests, "every": st.none()}
clocked = {"rest": st.none(), "between": st.none(), "every": seconds}
groups = st.one_of(
    entries.map(lambda entry: m.Group(entries=(entry,))),
    *[
        st.builds(m.Group, entries=members, before=befores, remark=remarks, **{**starts, **length})
        for starts in (rested, clocked)
        for length in ({"rounds": rounds, "span": st.none()}, {"rounds": st.none(), "span": seconds})
    ],
)


preparation = st.builds(
    m.PreparationLine,
    items=st.lists(
        st.builds(
            m.Preparation,
            what=st.sampled_from(
                ["hip drills", "heat on the left elbow", "20 squats: the bar alone", "hips 2:00 each"]
            ),
            seconds=st.none() | st.integers(1, 3600),
        ),
        min_size=1,
        max_size=3,
    ).map(tuple),
    before=befores,
    remark=remarks,
)


@st.composite
def sessions_of(draw):
    title = draw(st.sampled_from(["", "Thursday, lower body", "Été 🏔 2"]))
    written = draw(st.lists(groups, min_size=1, max_size=4))
    if not title:
        written[0] = _unremarked(written[0])
    after = draw(st.sampled_from([(), ("", "# that is all"), ("# that is all",)]))
    prep = tuple(draw(st.lists(preparation, max_size=2)))
    if prep and not title:
        prep = (prep[0].model_copy(update={"before": ()}), *prep[1:])
    return m.Session(title=title, prep=prep, groups=tuple(written), after=after)


def _unremarked(group):
    """Without a title the first remark would be taken for one, and blank lines at the top are let go."""
    if not group.is_straight:
        return group.model_copy(update={"before": ()})
    return group.model_copy(update={"entries": (group.entries[0].model_copy(update={"before": ()}),)})


sessions = sessions_of()
