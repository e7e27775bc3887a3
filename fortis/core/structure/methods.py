"""Ready-made structures: their usual numbers, what each is for, when not, what is known and what disputed."""

from collections.abc import Mapping

from fortis.core.value import Value


class Dial(Value):
    """A number of a structure that the lifter may turn; `low` and `high` are sensible bounds."""

    name: str
    label: str
    usual: int
    low: int
    high: int


class Method(Value):
    """One structure. `template` is written notation with its dials in braces and a `{lift}` for each lift."""

    id: str
    name: str
    purpose: str
    template: str
    lifts: tuple[str, ...]
    dials: tuple[Dial, ...]
    is_for: str
    not_for: str
    known: str
    disputed: str


class UnknownMethodError(LookupError):
    """There is no structure of that id."""


STRENGTH = "For strength"
SIZE = "For size"
TIME = "To save time"
CONTROL = "For control and positions"
SPECIAL = "Special means"
PURPOSES = (STRENGTH, SIZE, TIME, CONTROL, SPECIAL)

_DIALS = {
    "sets": ("Sets", 1, 12),
    "rounds": ("Rounds", 1, 12),
    "reps": ("Reps", 1, 30),
    "low": ("Fewest reps", 1, 30),
    "high": ("Most reps", 2, 40),
    "percent": ("Per cent of max", 20, 105),
    "light": ("Lighter, per cent of max", 20, 95),
    "climb": ("Climb a set, points", 1, 10),
    "drop": ("Drop, per cent", 5, 50),
    "leave": ("Reps left", 0, 6),
    "within": ("Short rest, seconds", 5, 60),
    "rest": ("Rest, seconds", 15, 600),
    "seconds": ("Seconds", 5, 180),
    "minutes": ("Minutes", 2, 40),
    "every": ("Starts every … seconds", 20, 300),
    "lowering": ("Lowering, seconds", 1, 8),
    "pause": ("Pause, seconds", 1, 5),
    "back_off": ("Back-off, per cent lighter", 2, 30),
    "wrap": ("Tightness of ten", 3, 7),
    "tail": ("Half reps", 2, 10),
}


def _method(
    id_: str,
    name: str,
    purpose: str,
    template: str,
    lifts: str,
    dials: str,
    is_for: str,
    not_for: str,
    known: str,
    disputed: str,
) -> Method:
    turned = [pair.split("=") for pair in dials.split()]
    return Method(
        id=id_,
        name=name,
        purpose=purpose,
        template=template,
        lifts=tuple(lifts.split(", ")),
        dials=tuple(
            Dial(name=dial, label=_DIALS[dial][0], usual=int(usual), low=_DIALS[dial][1], high=_DIALS[dial][2])
            for dial, usual in turned
        ),
        is_for=is_for,
        not_for=not_for,
        known=known,
        disputed=disputed,
    )


METHODS: tuple[Method, ...] = (
    _method(
        "straight", "Straight sets", STRENGTH,
        "{lift}: {sets} x {reps} at {percent}% leave {leave} rest {rest}s",
        "Back squat", "sets=3 reps=5 percent=80 leave=2 rest=180",
        "The backbone: the same load for every set, so that weeks compare.",
        "Nothing speaks against it but boredom and the clock.",
        "Rest of 2 to 3 minutes serves size, 3 to 5 strength. From 6 to about 35 reps grow muscle alike near failure.",
        "How many sets a week are best for one lifter; the log tells better than any table.",
    ),
    _method(
        "top-back-off", "Top set and back-off", STRENGTH,
        "{lift}: {reps} at {percent}% leave {leave}; {sets} x {reps} at top -{back_off}% rest {rest}s",
        "Front squat", "reps=3 percent=88 leave=1 sets=2 back_off=10 rest=240",
        "One honest heavy set that judges the day, then work that follows from it.",
        "When the day is for volume and the top set would spoil it.",
        "A back-off of 5 to 15 % after a heavy top set often moves faster than it should.",
        "Whether the heavy set before really makes the lighter ones better, or only feels so.",
    ),
    _method(
        "wave", "Wave", STRENGTH,
        "{lift}: 3 at {percent}%; 2 at 88%; 1 at 91%; 3 at 87%; 2 at 90%; 1 at 93% rest {rest}s",
        "Bench press", "percent=85 rest=180",
        "Two rising waves, the second a little heavier: 3, 2, 1 and again.",
        "For novices, and for lifts where a single is unsafe.",
        "The second wave should feel lighter after the single of the first.",
        "For some it does, for some it does not. It takes months of numbers to know.",
    ),
    _method(
        "single-then-six", "Heavy single, then six", STRENGTH,
        "{lift}: 1 at {percent}%; {sets} x {reps} at {light}% rest {rest}s",
        "Deadlift", "percent=92 sets=1 reps=6 light=80 rest=240",
        "A near-maximal rep, a long rest, then a set of six that feels light.",
        "Small lifts and less experienced lifters.",
        "Big compound lifts only; suits stronger, experienced lifters.",
        "How long the single helps for, and whom.",
    ),
    _method(
        "cluster", "Cluster", STRENGTH,
        "{lift}: {sets} sets of ({reps}, {reps}, {reps}) at {percent}% leave {leave} within {within}s rest {rest}s",
        "Trap-bar deadlift", "sets=3 reps=2 percent=87 leave=1 within=10 rest=240",
        "Six to eight heavy reps with good form, a breath between every two.",
        "Where every mini-set costs an unrack and a rerack: bench, back squat, overhead dumbbells.",
        "About 85 % and up. With light loads a break in mid-set does worse than straight sets.",
        "How it compares with more, shorter straight sets of the same load.",
    ),
    _method(
        "single-drop", "Single and drop", STRENGTH,
        "{lift}: {sets} sets of (1 at {percent}% up {climb}%, {within}s, {reps} at {light}%) rest {rest}s",
        "Front squat", "sets=5 percent=88 climb=2 within=25 reps=3 light=74 rest=180",
        "A heavy single, plates off, then three or four unbroken: breaks plateaus of technical lifts.",
        "Without a quick way to strip the bar; not all year.",
        "Four to six sets for three to five weeks; legs once a week, upper body up to twice. The single climbs.",
        "Whether the single or the extra practice does the work.",
    ),
    _method(
        "rest-pause", "Rest-pause", SIZE,
        "{lift}: {sets} sets of (max at {percent}% to failure, {within}s, max to failure, {within}s, max to failure) "
        "rest {rest}s",
        "Lat pulldown", "sets=1 percent=75 within=20 rest=180",
        "A set to failure, a breath, a few more, once or twice again: much work in little time.",
        "Lifts that cannot be failed safely.",
        "After 20 s a third or so of the reps comes back.",
        "Whether it grows more than the same reps in straight sets.",
    ),
    _method(
        "ascending", "Ascending mini-sets", SIZE,
        "{lift}: {sets} sets of (3, 4, 5, 6, 7) at 12RM within {within}s rest {rest}s",
        "Seal row", "sets=2 within=15 rest=150",
        "Twenty-five reps with a 12-rep max, 15 s between 3, 4, 5, 6 and 7. Arms and machines.",
        "Free lifts that fold when tired.",
        "A load 3 % too heavy ruins the last two mini-sets.",
        "Little is published; the numbers are practice.",
    ),
    _method(
        "drop", "Drop set", SIZE,
        "{lift}: {sets} set of ({reps} at 12RM to failure, drop {drop}% to failure, drop {drop}% to failure)",
        "Leg extension", "sets=1 reps=12 drop=20",
        "To failure, a fifth off, on at once, once to three times. Saves time.",
        "Heavy barbell lifts; and not on everything, not all the time.",
        "Grows about as much as straight sets of the same effort, in a third of the time.",
        "How much recovery it costs beside them.",
    ),
    _method(
        "double", "Rep range", SIZE,
        "{lift}: {sets} x {low}-{high} leave {leave} rest {rest}s",
        "Dumbbell press", "sets=3 low=8 high=10 leave=1 rest=120",
        "Add reps until every set is at the top of the range, then load.",
        "Singles and doubles.",
        "The simplest way to progress where the next dumbbell is a big jump. Choose double progression for the lift.",
        "Nothing much.",
    ),
    _method(
        "stretched", "Stretched halves after failure", SIZE,
        "{lift}: {sets} x {low}-{high} leave {leave} rest {rest}s; 1 set of (max to failure, {tail} stretched halves)",
        "Lying leg curl", "sets=2 low=10 high=12 leave=1 rest=120 tail=5",
        "Half reps in the stretched part after full ones fail. Back and hamstrings above all.",
        "More than about a fifth of the week; never over half.",
        "The end point must be the same every week, or progress cannot be read.",
        "How far lengthened partials stand in for full reps.",
    ),
    _method(
        "pair", "Superset of opposites", TIME,
        "pair, {rounds} rounds, rest {rest}s:\n  {lift}: {low}-{high} leave {leave}\n  {lift}: {low}-{high} leave {leave}",
        "Ring dip, Ring row", "rounds=3 rest=60 low=8 high=10 leave=2",
        "Two lifts that share nothing, one after the other: time saved at no cost.",
        "Lifts that share muscles, grip or trunk. Overhead press with bench press is a bad pair.",
        "Chest and back, biceps and triceps, quads and hamstrings go well.",
        "Squat with bench looks harmless and is not quite.",
    ),
    _method(
        "circuit", "Circuit", TIME,
        "circuit, {rounds} rounds, between 10s, rest {rest}s:\n"
        "  {lift}: {reps} leave {leave}\n  {lift}: {reps} leave {leave}\n  {lift}: {reps} leave {leave}",
        "Goblet squat, Push-up, Ring row", "rounds=3 rest=120 reps=12 leave=2",
        "Three or more lifts in turn. Accessories at the end of a session.",
        "Heavy work: breath becomes the limit.",
        "Dense, and good for the heart.",
        "Little.",
    ),
    _method(
        "block", "Block against the clock", TIME,
        "pair, for {minutes} min:\n  {lift}: {reps} leave {leave}\n  {lift}: {reps} leave {leave}",
        "Push-up, Ring row", "minutes=8 reps=8 leave=3",
        "As many rounds as fit; next time a round more.",
        "Technical or near-limit lifts.",
        "Density, tonnage a minute, is what progresses.",
        "Little.",
    ),
    _method(
        "every", "Starts against the clock", TIME,
        "{lift}: {sets} x {reps} at {percent}% every {every}s",
        "Power clean", "sets=10 reps=2 percent=75 every=60",
        "Short sets that start every minute: speed and practice without drifting rests.",
        "Sets to failure.",
        "Rests that are kept make weeks comparable.",
        "Little.",
    ),
    _method(
        "tempo", "Tempo", CONTROL,
        "{lift}: {sets} x {reps} at {percent}% leave {leave} tempo {lowering}-1-1-0 rest {rest}s",
        "Split squat", "sets=3 reps=8 percent=65 leave=2 lowering=3 rest=120",
        "Lowering in 2 to 5 s: control, positions, size with lighter loads.",
        "Maximal work, where lowering is just controlled. Very slow on big free lifts: lungs give out first.",
        "Time under tension by itself predicts nothing much.",
        "How slow is still useful.",
    ),
    _method(
        "paused", "Paused reps", CONTROL,
        "{lift}: {sets} x {reps} at {percent}% leave {leave} tempo 2-{pause}-1-0 rest {rest}s",
        "Bench press", "sets=4 reps=3 percent=78 leave=2 pause=2 rest=180",
        "A dead stop kills the bounce and trains the position.",
        "When the aim is the most weight moved.",
        "A record is only a record against the same pause.",
        "Little.",
    ),
    _method(
        "sides", "One side at a time", CONTROL,
        "{lift}: {sets} x {low}-{high} each side leave {leave} rest {rest}s",
        "One-arm row", "sets=3 low=8 high=10 leave=2 rest=90",
        "Left and right apart, so that a difference shows.",
        "When time is short.",
        "Start with the weaker side and let the stronger one match it.",
        "How much of a difference matters.",
    ),
    _method(
        "hold", "Holds", CONTROL,
        "{lift}: {sets} x hold {seconds}s rest {rest}s",
        "Hollow hold", "sets=3 seconds=30 rest=60",
        "Seconds instead of reps. Body-weight skills and the trunk.",
        "As a stand-in for moving work.",
        "Strength gained in a position stays near it.",
        "Little.",
    ),
    _method(
        "overload", "Lowering overload", SPECIAL,
        "{lift}: {sets} x {reps} at {percent}% two up one down rest {rest}s",
        "Leg press", "sets=2 reps=5 percent=60 rest=180",
        "Lower more than can be lifted: two limbs up, one down.",
        "Most of the time. It costs recovery and joints.",
        "Muscles yield 20 to 60 % more force lowering than lifting (literature, from memory).",
        "Whether it beats the same effort done plainly.",
    ),
    _method(
        "bands", "Bands", SPECIAL,
        "{lift} [bands 30 kg top]: {sets} x {reps} at {percent}% rest {rest}s",
        "Bench press", "sets=6 reps=2 percent=55 rest=60",
        "The load grows along the lift: a heavy top end, and speed.",
        "Before the plain lift is learnt.",
        "Progress is judged within the same bands only; write the same set-up every time.",
        "How much carries over to the plain lift.",
    ),
    _method(
        "wrapped", "Restricted blood flow", SPECIAL,
        "{lift} [wrap {wrap} of 10]: 1 set of (30, 15, 15, 15) at {percent}% within {within}s",
        "Leg extension", "wrap=6 percent=25 within=30",
        "Light loads made hard by a wrap: sore joints, coming back from injury under guidance.",
        "Circulation, clotting, heart or blood-pressure problems, pregnancy: not without a doctor.",
        "20 to 30 % of max, never above 7 of 10 tight; stop on numbness or pain.",
        "Whether it adds anything for the healthy.",
    ),
)  # fmt: skip

_BY_ID = {method.id: method for method in METHODS}


def find_method(method_id: str) -> Method:
    """A structure by its id. Raises `UnknownMethodError`."""
    if method_id not in _BY_ID:
        raise UnknownMethodError(method_id)
    return _BY_ID[method_id]


def write_method(method: Method, lifts: tuple[str, ...] = (), turned: Mapping[str, int] | None = None) -> str:
    """Write a structure for some lifts with its dials turned; what is not given is as usual.

    Dials keep to their bounds, and a range of reps stays a range.
    """
    chosen = turned or {}
    numbers = {dial.name: min(max(chosen.get(dial.name, dial.usual), dial.low), dial.high) for dial in method.dials}
    if "low" in numbers:
        numbers["high"] = max(numbers["high"], numbers["low"] + 1)
    written = method.template
    for name, number in numbers.items():
        written = written.replace(f"{{{name}}}", str(number))
    for at, usual in enumerate(method.lifts):
        written = written.replace("{lift}", lifts[at] if at < len(lifts) else usual, 1)
    return written
