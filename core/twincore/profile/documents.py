"""What the documents of families and boards hold, as their schemas say it. Written by `script/api`; do not edit it.

Numbers are exact. What an element, a function or a behaviour holds in detail is read by `elements`, `functions` and `behaviour`.
"""

from typing import Any, Literal, NotRequired, TypedDict

from twincore.profile.values import Number, Value

FamilyInput = TypedDict(
    "FamilyInput",
    {
        "id": str,
        "title": NotRequired[str],
        "level": NotRequired[bool],
        "often": NotRequired[Number],
        "unit": NotRequired[str],
        "from": NotRequired[Number],
        "to": NotRequired[Number],
        "notes": NotRequired[Any],
    },
)


class FamilyOutput(TypedDict):
    id: str
    title: NotRequired[str]
    compare: NotRequired[bool]
    notes: NotRequired[Any]


class FamilySignal(TypedDict):
    id: str
    title: NotRequired[str]
    kind: NotRequired[Literal["input", "output", "supply", "bus", "earth", "other"]]
    volts_class: NotRequired[Literal["mains", "24ac", "24dc", "12dc", "5dc", "dry", "bus", "sensor", "spark", "earth"]]
    polarity: NotRequired[bool]
    notes: NotRequired[Any]
    optional: NotRequired[bool]


class FamilyFact(TypedDict):
    id: str
    title: str
    unit: NotRequired[str]
    choices: NotRequired[list[Value]]
    number: NotRequired[bool]
    flag: NotRequired[bool]
    notes: NotRequired[Any]


class FamilyHoldPointSupply(TypedDict):
    id: str
    title: NotRequired[str]
    volts: Number
    pairs: list[list[str]]
    notes: NotRequired[Any]


FamilyHoldPoint = TypedDict(
    "FamilyHoldPoint",
    {
        "id": str,
        "kind": Literal[
            "isolate", "prove dead", "stored energy", "water", "gas", "heat", "moving", "hanging", "static"
        ],
        "title": NotRequired[str],
        "say": NotRequired[list[str]],
        "limit": NotRequired[Number],
        "supplies": NotRequired[list[FamilyHoldPointSupply]],
        "if": NotRequired[dict[str, Value]],
        "source": NotRequired[str],
        "notes": NotRequired[Any],
    },
)


FamilyProvingInput = TypedDict(
    "FamilyProvingInput",
    {
        "input": str,
        "way": Literal["hand", "follows", "cannot"],
        "begin": NotRequired[str],
        "end": NotRequired[str],
        "undo": NotRequired[str],
        "risk": NotRequired[Literal["none", "gas", "hot", "moving", "live"]],
        "with": NotRequired[str],
        "make_begin": NotRequired[str],
        "make_end": NotRequired[str],
        "keep_off": NotRequired[str],
        "why": NotRequired[str],
        "notes": NotRequired[Any],
    },
)


FamilyProvingRun = TypedDict(
    "FamilyProvingRun",
    {
        "id": str,
        "title": NotRequired[str],
        "scenario": str,
        "kind": Literal["forced cycle", "output test", "full cycle", "power loss", "fault"],
        "watch": NotRequired[list[str]],
        "hands_off": NotRequired[list[str]],
        "if": NotRequired[dict[str, Value]],
        "notes": NotRequired[Any],
    },
)


FamilyProvingReadingBand = TypedDict(
    "FamilyProvingReadingBand",
    {
        "from": NotRequired[Number],
        "to": NotRequired[Number],
    },
)


FamilyProvingReading = TypedDict(
    "FamilyProvingReading",
    {
        "id": str,
        "title": str,
        "unit": str,
        "band": FamilyProvingReadingBand,
        "uncertainty": NotRequired[Number],
        "how": NotRequired[list[str]],
        "risk": NotRequired[Literal["none", "gas", "hot", "moving", "live"]],
        "if": NotRequired[dict[str, Value]],
        "source": str,
        "notes": NotRequired[Any],
    },
)


class FamilyProvingOverrideDoe(TypedDict):
    set: NotRequired[str]
    to: NotRequired[Any]
    bridge: NotRequired[list[str]]
    unplug: NotRequired[str]
    wait_s: NotRequired[Number]
    expect: NotRequired[str]
    notes: NotRequired[Any]


class FamilyProvingOverride(TypedDict):
    id: str
    what: str
    how: NotRequired[str]
    time_out_s: Number
    undo: NotRequired[str]
    notes: NotRequired[Any]
    does: NotRequired[list[FamilyProvingOverrideDoe]]


class FamilyProving(TypedDict):
    inputs: NotRequired[list[FamilyProvingInput]]
    runs: NotRequired[list[FamilyProvingRun]]
    readings: NotRequired[list[FamilyProvingReading]]
    overrides: NotRequired[list[FamilyProvingOverride]]
    source: NotRequired[str]
    notes: NotRequired[Any]


class FamilyWorthSource(TypedDict):
    what: str
    who: NotRequired[str]
    on: NotRequired[str]
    page: NotRequired[str]
    picture: NotRequired[str]


class FamilyWorthDoubt(TypedDict):
    of: str
    what: Literal["on", "first", "keyed", "factory"]


class FamilyWorth(TypedDict):
    worth: Literal["sketched", "drawn", "usual", "leaflet", "measured"]
    sources: NotRequired[list[FamilyWorthSource]]
    doubts: NotRequired[list[FamilyWorthDoubt]]


class FamilyStanding(TypedDict):
    settings: NotRequired[FamilyWorth]
    functions: NotRequired[FamilyWorth]
    charts: NotRequired[FamilyWorth]
    connectors: NotRequired[FamilyWorth]
    behaviour: NotRequired[FamilyWorth]
    layout: NotRequired[FamilyWorth]


class FamilyDocument(TypedDict):
    format: Any
    version: Any
    id: str
    title: NotRequired[str]
    inputs: list[FamilyInput]
    outputs: list[FamilyOutput]
    rest: NotRequired[dict[str, Any]]
    never_together: NotRequired[list[dict[str, bool]]]
    signals: NotRequired[list[FamilySignal]]
    functions: list[dict[str, Any]]
    scenarios: NotRequired[list[dict[str, Any]]]
    facts: NotRequired[list[FamilyFact]]
    notes: NotRequired[Any]
    hold_points: NotRequired[list[FamilyHoldPoint]]
    proving: NotRequired[FamilyProving]
    standing: NotRequired[FamilyStanding]


BoardMade = TypedDict(
    "BoardMade",
    {
        "from": NotRequired[int],
        "to": NotRequired[int],
        "notes": NotRequired[Any],
    },
)


class BoardHole(TypedDict):
    at: list[Number]
    diameter_mm: Number
    notes: NotRequired[Any]


class BoardLayout(TypedDict):
    ref: str
    at: list[Number]
    size: NotRequired[list[Number]]
    turn: NotRequired[Number]
    on_side: NotRequired[Literal["top", "bottom", "left", "right"]]
    first: NotRequired[Literal["left", "right", "top", "bottom"]]
    notes: NotRequired[Any]


class BoardSupply(TypedDict):
    volts: NotRequired[list[Number]]
    hertz: NotRequired[list[Number]]
    phases: NotRequired[int]
    notes: NotRequired[Any]


class BoardSurroundings(TypedDict):
    temperature_c: NotRequired[list[Number]]
    humidity_percent: NotRequired[list[Number]]
    altitude_m: NotRequired[list[Number]]
    notes: NotRequired[Any]


class BoardConnectorPin(TypedDict):
    pin: Any
    mark: NotRequired[str]
    signal: NotRequired[str]
    without_device: NotRequired[str]
    notes: NotRequired[Any]
    volts_class: NotRequired[Literal["mains", "24ac", "24dc", "12dc", "5dc", "dry", "bus", "sensor", "spark", "earth"]]
    holds: NotRequired[int]


class BoardConnector(TypedDict):
    id: str
    style: NotRequired[str]
    keyed: NotRequired[bool]
    pins: list[BoardConnectorPin]
    notes: NotRequired[Any]
    takes: NotRequired[list[str]]


class BoardRelay(TypedDict):
    id: str
    signal: str
    common: NotRequired[Any]
    no: NotRequired[Any]
    nc: NotRequired[Any]
    amps: NotRequired[dict[str, Number]]
    notes: NotRequired[Any]
    rating: NotRequired[str]


class BoardAccept(TypedDict):
    fact: str
    one_of: NotRequired[list[Value]]
    between: NotRequired[list[Number]]
    unit: NotRequired[str]
    notes: NotRequired[Any]


class BoardMove(TypedDict):
    id: str
    what: str
    caution: NotRequired[str]
    place: NotRequired[str]
    notes: NotRequired[Any]


BoardChartRow = TypedDict(
    "BoardChartRow",
    {
        "if": dict[str, Any],
        "set": dict[str, Any],
        "notes": NotRequired[Any],
        "use": NotRequired[list[str]],
    },
)


class BoardChartColumn(TypedDict):
    heading: str
    role: Literal["fact", "set", "use", "note"]
    name: NotRequired[str]
    notes: NotRequired[Any]


BoardChart = TypedDict(
    "BoardChart",
    {
        "id": str,
        "for": NotRequired[dict[str, list[str]]],
        "rows": list[BoardChartRow],
        "notes": NotRequired[Any],
        "columns": NotRequired[list[BoardChartColumn]],
        "title": NotRequired[str],
        "page": NotRequired[str],
    },
)


class BoardCode(TypedDict):
    shown: str
    meaning: str
    look_at: NotRequired[str]
    clears: NotRequired[str]
    notes: NotRequired[Any]
    points_to: NotRequired[list[str]]


class BoardStoredEnergy(TypedDict):
    capacitance_uf: NotRequired[Number]
    volts: NotRequired[Number]
    bleed_kohm: NotRequired[Number]
    wait_s: NotRequired[Number]
    notes: NotRequired[Any]


class BoardKit(TypedDict):
    item: str
    count: NotRequired[int]
    needed_if: NotRequired[dict[str, Any]]
    replaces: NotRequired[list[str]]
    notes: NotRequired[Any]


class BoardCompanion(TypedDict):
    item: str
    why: NotRequired[str]
    notes: NotRequired[Any]


class BoardAct(TypedDict):
    point: str
    when: Value
    what: str
    time_out_s: NotRequired[Number]
    ends: NotRequired[str]
    notes: NotRequired[Any]


class BoardRemember(TypedDict):
    id: str
    what: str
    unit: NotRequired[str]
    read: NotRequired[str]
    enter: NotRequired[str]
    history: NotRequired[bool]
    rows: NotRequired[bool]
    fact: NotRequired[str]
    notes: NotRequired[Any]
    items: NotRequired[list[str]]


class BoardTemporary(TypedDict):
    id: str
    what: str
    notes: NotRequired[Any]


class BoardServicePortIdentity(TypedDict):
    at: int
    length: int
    notes: NotRequired[Any]


class BoardServicePortRegister(TypedDict):
    at: int
    gives: str
    kind: NotRequired[Literal["element", "remembers"]]
    scale: NotRequired[Number]
    write: NotRequired[bool]
    notes: NotRequired[Any]


class BoardServicePort(TypedDict):
    kind: Any
    unit: NotRequired[int]
    identity: NotRequired[BoardServicePortIdentity]
    registers: list[BoardServicePortRegister]
    outputs: NotRequired[list[str]]
    outputs_at: NotRequired[int]
    inputs: NotRequired[list[str]]
    inputs_at: NotRequired[int]
    sum_at: NotRequired[int]
    notes: NotRequired[Any]


class BoardLearning(TypedDict):
    title: NotRequired[str]
    knows: NotRequired[dict[str, dict[str, Any]]]
    finds: NotRequired[list[str]]
    needs: NotRequired[list[str]]
    told_by: NotRequired[str]
    can_be_stopped: NotRequired[bool]
    cycles: NotRequired[int]
    shows: NotRequired[str]
    notes: NotRequired[Any]


class BoardWorthSource(TypedDict):
    what: str
    who: NotRequired[str]
    on: NotRequired[str]
    page: NotRequired[str]
    picture: NotRequired[str]


class BoardWorthDoubt(TypedDict):
    of: str
    what: Literal["on", "first", "keyed", "factory"]


class BoardWorth(TypedDict):
    worth: Literal["sketched", "drawn", "usual", "leaflet", "measured"]
    sources: NotRequired[list[BoardWorthSource]]
    doubts: NotRequired[list[BoardWorthDoubt]]


class BoardStanding(TypedDict):
    settings: NotRequired[BoardWorth]
    functions: NotRequired[BoardWorth]
    charts: NotRequired[BoardWorth]
    connectors: NotRequired[BoardWorth]
    behaviour: NotRequired[BoardWorth]
    layout: NotRequired[BoardWorth]


class BoardEntering(TypedDict):
    before: NotRequired[list[str]]
    cleared: NotRequired[str]
    order: NotRequired[list[str]]
    notes: NotRequired[Any]


BoardFittingStepMeasure = TypedDict(
    "BoardFittingStepMeasure",
    {
        "mm": Number,
        "below": NotRequired[Number],
        "above": NotRequired[Number],
        "from": NotRequired[str],
        "notes": NotRequired[Any],
    },
)


BoardFittingStep = TypedDict(
    "BoardFittingStep",
    {
        "id": str,
        "what": str,
        "measure": NotRequired[BoardFittingStepMeasure],
        "route": NotRequired[str],
        "caution": NotRequired[str],
        "check": NotRequired[str],
        "picture": NotRequired[str],
        "if": NotRequired[dict[str, Any]],
        "notes": NotRequired[Any],
    },
)


class BoardDocument(TypedDict):
    format: Any
    version: Any
    part_number: str
    also_marked: NotRequired[list[str]]
    maker: str
    title: str
    family: str
    settings_layout: NotRequired[str]
    status: Literal["current", "discontinued"]
    made: NotRequired[BoardMade]
    settings: list[dict[str, Any]]
    functions: dict[str, Any]
    behaviour: NotRequired[dict[str, Any]]
    size_mm: NotRequired[list[Number]]
    height_mm: NotRequired[Number]
    holes: NotRequired[list[BoardHole]]
    layout: NotRequired[list[BoardLayout]]
    look: NotRequired[dict[str, Value]]
    supply: NotRequired[BoardSupply]
    surroundings: NotRequired[BoardSurroundings]
    connectors: NotRequired[list[BoardConnector]]
    relays: NotRequired[list[BoardRelay]]
    accepts: NotRequired[list[BoardAccept]]
    moves: NotRequired[list[BoardMove]]
    charts: NotRequired[list[BoardChart]]
    codes: NotRequired[list[BoardCode]]
    stored_energy: NotRequired[BoardStoredEnergy]
    kit: NotRequired[list[BoardKit]]
    companions: NotRequired[list[BoardCompanion]]
    notes: NotRequired[Any]
    acts: NotRequired[list[BoardAct]]
    remembers: NotRequired[list[BoardRemember]]
    temporary: NotRequired[list[BoardTemporary]]
    panels: NotRequired[list[dict[str, Any]]]
    service_port: NotRequired[BoardServicePort]
    learning: NotRequired[BoardLearning]
    standing: NotRequired[BoardStanding]
    entering: NotRequired[BoardEntering]
    in_hand: NotRequired[list[str]]
    fitting_steps: NotRequired[list[BoardFittingStep]]
