"""What a sheet of a family, built and set in one way, is asked: made from the JSON Schema of the file and from declarations.

No family and no means is named here. The schema has a few words of its own beside the standard ones: ``quantity`` is the dimension
of a text, ``open`` says that a range may have open ends, ``keys`` and ``choices`` name what of the family stands there, ``needs``
what a build has to have, ``called`` the words a manual's column may have over it, and ``typed`` is false for what is not asked.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from enum import Enum
from typing import Any

from finegap.core.families.builds import OF_THE_JOB, belongs
from finegap.core.families.family import Family
from finegap.core.families.features import FeatureKind
from finegap.core.materials import MATERIALS
from finegap.core.means.registry import KINDS, schema_of
from finegap.core.units import Dimension

Schema = Mapping[str, Any]
_MOST_ROWS = 500


class Kind(Enum):
    """What one value is."""

    TEXT = "text"
    NUMBER = "number"
    QUANTITY = "quantity"
    CHOICE = "choice"
    YES = "yes"
    DAY = "day"


class Many(Enum):
    """How many values stand in one field."""

    ONE = "one"
    RANGE = "range"
    LIST = "list"
    COUNTS = "counts"


@dataclass(frozen=True)
class Ask:
    """One thing that is asked. ``path`` is its place in the file; of a column that in its row.

    ``choices`` are what may be entered, by key; where others may be too, it is a TEXT. ``low`` and ``high`` bound a number.
    ``numbered`` when a bare number may stand for a text (an expansion). ``name_of`` when with one of the fields under its path it
    is the name of an object (a material that is not in the table).
    """

    path: str
    label: str
    kind: Kind = Kind.TEXT
    many: Many = Many.ONE
    dimension: Dimension | None = None
    hint: str = ""
    required: bool = False
    choices: Mapping[str, str] = field(default_factory=dict)
    whole: bool = False
    low: float = -1e9
    high: float = 1e9
    longest: int = 200
    open_ends: bool = False
    numbered: bool = False
    name_of: bool = False
    called: tuple[str, ...] = ()


@dataclass(frozen=True)
class RowName:
    """A row that is always there: its key in the file, its number on the drawing (0 without one), and what it is called."""

    key: str
    number: int
    name: str


@dataclass(frozen=True)
class Grid:
    """A table to type. With ``names`` its rows are those; without, as many as the manual prints, up to ``most``."""

    path: str
    label: str
    columns: tuple[Ask, ...]
    hint: str = ""
    required: bool = False
    most: int = _MOST_ROWS
    names: tuple[RowName, ...] = ()

    def place(self, row: int | str, column: str) -> str:
        """The path of a cell in the file."""
        return f"{self.path}.{row}.{column}" if self.names else f"{self.path}[{row}].{column}"


@dataclass(frozen=True)
class Section:
    """What belongs together on the page. One that is ``required`` has to be filled in."""

    key: str
    title: str
    hint: str
    asks: tuple[Ask, ...]
    grids: tuple[Grid, ...]
    required: bool


_ONLY_THESE = ("feature", "gap", "part")
"""Choices beside which nothing else can stand."""
SIZE = "size"
"""The column of a clearance table of several pump sizes; it is none of the file."""
_OF_SIZE = Ask(
    SIZE, "Pump size", hint="Where one table is for several: each gets a sheet.", called=("model", "size", "pump", "pump size")
)
_HEAD = "manual"


def form_of(schema: Schema, family: Family, build: Mapping[str, str], means: str) -> tuple[Section, ...]:
    """What is asked of a sheet.

    Parameters
    ----------
    schema : mapping
        JSON Schema of the file.
    family : Family
        The family, whole.
    build : mapping
        The choices made so far, by option.
    means : str
        What sets the gap; empty where that is not chosen yet.

    Raises
    ------
    FieldError
        A choice the family does not have.
    """
    return _Form(schema, family, build, means).sections()


class _Form:
    def __init__(self, schema: Schema, family: Family, build: Mapping[str, str], means: str) -> None:
        whole = family.complete({**build, **({"means": means} if means and _sets(family) else {})})
        self.schema, self.whole, self.family, self.means = schema, family, family.built(whole), means
        self.build = whole
        # A sheet is for jobs of every scope: what the usual one leaves alone is printed, too.
        jobs = next((tuple(one.choices) for one in self.family.options if one.key == OF_THE_JOB), ("",))
        built = [family.built({**whole, **({OF_THE_JOB: job} if job else {})}) for job in jobs]
        there = {f.key: f for one in built for f in one.features}
        features = sorted(there.values(), key=lambda one: one.number)
        printed = [f for f in features if f.kind is not FeatureKind.CHECK and not f.press]
        gaps = [f for f in features if f.kind is FeatureKind.PAIR or f.kind.is_gap]
        parts = {part.key: part for one in built for stack in one.stacks for part in stack.parts}
        self.shapes = {part.shape.value for part in parts.values()}
        keys = set(there)
        self.rows: dict[str, tuple[RowName, ...]] = {
            "feature": tuple(RowName(f.key, f.number, f.name) for f in printed),
            "press": tuple(RowName(p.key, 0, p.name) for p in family.presses if {p.outside, p.seat} & keys),
            "ring": tuple(RowName(key, 0, part.name) for key, part in parts.items() if part.shape.value == "o-ring"),
        }
        self.choices: dict[str, Mapping[str, str]] = {
            "feature": {f.key: f"{f.number} {f.name}" for f in family.features},
            "gap": {f.key: f"{f.number} {f.name}" for f in gaps},
            "torque": {key: key.capitalize() for key in family.torques},
            "material": {name: name for name in MATERIALS},
            "part": {key: part.name for key, part in parts.items()},
        }

    def sections(self) -> tuple[Section, ...]:
        head, sections = [], []
        for key, node in self.schema["properties"].items():
            node, required = self._met(node), key in self.schema["required"]
            if node.get("typed") is False or "const" in node:
                continue
            if node.get("type") in ("object", "array") or "oneOf" in node:
                found = self._section(key, node, required)
                sections += [found] if found.asks or found.grids else []
            else:
                head += [one for one in self._asked(key, node, "", required) if isinstance(one, Ask)]
        return (Section(_HEAD, "The manual", "", tuple(head), (), True), *sections)

    def _section(self, key: str, node: Schema, required: bool) -> Section:
        title = node.get("title") or _words(key)
        if not self._has(node):
            return Section(key, title, "", (), (), False)
        if key == "adjustment":
            return self._adjustment(key, node, required)
        found = list(self._asked(key, node, "", required))
        asks = tuple(one for one in found if isinstance(one, Ask))
        grids = tuple(one for one in found if isinstance(one, Grid))
        if len(grids) == 1 and not asks:
            grids = (replace(grids[0], hint=""),)
        # What the file says of maps is of its keys, and those have names here.
        return Section(
            key, title, "" if "keys" in node and key != "features" else node.get("description", ""), asks, grids, required
        )

    def _adjustment(self, key: str, node: Schema, required: bool) -> Section:
        """What sets the gap, and what the sheet has to say of that."""
        option = next((one for one in self.whole.options if one.key == "means"), None)
        choices = dict(option.choices) if option else {kind: kind.replace("_", " ") for kind in KINDS}
        label = option.name if option else "Set by"
        asks = [Ask(f"{key}.means", label, Kind.CHOICE, required=required, choices=choices)]
        found = list(self._asked(key, schema_of(self.means), "", required)) if self.means in KINDS else []
        asks += [one for one in found if isinstance(one, Ask)]
        grids = tuple(one for one in found if isinstance(one, Grid))
        return Section(key, "Adjustment", node.get("description", ""), tuple(asks), grids, required)

    def _has(self, node: Schema) -> bool:
        """Whether pumps built so have what a section is about."""
        needs = node.get("needs")
        if needs is None or needs in self.shapes or needs in self.whole.geared:
            return True
        return needs == "overhung" and bool(self.whole.overhung) and belongs(self.whole.overhung, self.build)

    def _met(self, node: Schema) -> Schema:
        """A node with the definition it refers to; its own words before those."""
        if "$ref" not in node:
            return node
        # What a definition says of every length helps nobody beside one of them.
        return {**self.schema["$defs"][node["$ref"].rpartition("/")[2]], "description": "", **node}

    def _asked(self, path: str, node: Schema, label: str, required: bool) -> Iterator[Ask | Grid]:
        """Everything asked at a node, one below the other."""
        node = self._met(node)
        if "const" in node or node.get("typed") is False:
            return
        label = label or node.get("title") or _words(path.rpartition(".")[2])
        if node.get("type") == "object" and (node.get("properties") or node.get("keys")):
            yield from self._of_object(path, node, label, required)
        elif node.get("type") == "array" and self._met(node["items"]).get("type") == "object":
            yield self._grid(path, node, label, required)
        else:
            yield from self._asks(path, node, label, required)

    def _of_object(self, path: str, node: Schema, label: str, required: bool) -> Iterator[Ask | Grid]:
        for key, child in node.get("properties", {}).items():
            child = self._met(child)
            words = child.get("title") or _words(key)
            nested = f"{label}: {words[0].lower()}{words[1:]}" if "." in path and not child.get("title") else words
            yield from self._asked(f"{path}.{key}", child, nested, required and key in node.get("required", ()))
        keys = node.get("keys")
        if not keys:
            return
        value = self._met(node["additionalProperties"])
        if value.get("type") == "object":
            names = self.rows[keys]
            if names:
                yield Grid(path, label, tuple(self._columns(value)), node.get("description", ""), required, len(names), names)
        elif keys == "option":
            yield from self._options(path)
        elif keys == "detail":
            for key, words in self.whole.details.items():
                yield Ask(f"{path}.{key}", words[0].upper() + words[1:], required=key in self._counted(), longest=200)
        else:
            for key, words in self.choices[keys].items():
                yield from self._asked(f"{path}.{key}", value, words, False)

    def _options(self, path: str) -> Iterator[Ask]:
        """The options this build has, but for what sets the gap."""
        for option in self.family.options:
            if option.key not in ("means", OF_THE_JOB):
                hint = "Where practitioners differ; what nobody has chosen is not asserted." if option.is_convention else ""
                yield Ask(f"{path}.{option.key}", option.name, Kind.CHOICE, choices=option.choices, hint=hint)

    def _counted(self) -> set[str]:
        """Details that count what this build has several of."""
        return {f.counted.detail for f in self.family.features if f.counted and f.counted.detail in self.whole.details}

    def _grid(self, path: str, node: Schema, label: str, required: bool) -> Grid:
        columns = tuple(self._columns(self._met(node["items"])))
        if path == "clearance_table.rows":
            columns = (*columns, _OF_SIZE)
        hint = node.get("description", "")
        return Grid(path, label, columns, hint, required, node.get("maxItems", _MOST_ROWS))

    def _columns(self, row: Schema) -> Iterator[Ask]:
        only = KINDS[self.means].columns(self.family) if self.means in KINDS else ()
        for key, node in row.get("properties", {}).items():
            if node.get("only") and key not in only:
                continue
            for one in self._asked(key, node, "", key in row.get("required", ())):
                if isinstance(one, Ask):
                    yield one

    def _asks(self, path: str, node: Schema, label: str, required: bool) -> Iterator[Ask]:
        """A value, a range or a list; of an object with a name, its name and then its other fields."""
        if "oneOf" in node:
            yield from self._alternatives(path, node, label, required)
            return
        item, many = node, Many.COUNTS if node.get("type") == "object" else Many.ONE
        if node.get("type") == "array":
            item = self._met(node["items"])
            many = Many.RANGE if node.get("maxItems") == node.get("minItems") == 2 and "choices" not in item else Many.LIST
        of = node.get("choices", item.get("choices", ""))
        one = self._one(path, item, label, required)
        yield replace(
            one,
            kind=Kind.CHOICE if of in _ONLY_THESE else one.kind,
            many=many,
            hint=node.get("description", item.get("description", "")),
            called=tuple(node.get("called", ())),
            open_ends=node.get("open", False),
            choices=self.choices.get(of, _listed(item)),
        )

    def _one(self, path: str, node: Schema, label: str, required: bool) -> Ask:
        ask = Ask(path, label, required=required, longest=node.get("maxLength", 200))
        if "quantity" in node:
            return replace(ask, kind=Kind.QUANTITY, dimension=Dimension[node["quantity"].upper()])
        if "enum" in node:
            return replace(ask, kind=Kind.CHOICE)
        if node.get("type") == "boolean":
            return replace(ask, kind=Kind.YES)
        if node.get("format") == "date":
            return replace(ask, kind=Kind.DAY)
        if node.get("type") in ("number", "integer"):
            low = node.get("minimum", node.get("exclusiveMinimum", -1e9))
            high = node.get("maximum", node.get("exclusiveMaximum", 1e9))
            return replace(ask, kind=Kind.NUMBER, whole=node["type"] == "integer", low=low, high=high)
        return ask

    def _alternatives(self, path: str, node: Schema, label: str, required: bool) -> Iterator[Ask]:
        found = [self._met(one) for one in node["oneOf"]]
        thing = next((one for one in found if one.get("type") == "object"), None)
        yield Ask(
            path,
            label,
            hint=node.get("description", ""),
            required=required,
            choices=self.choices.get(node.get("choices", ""), {}),
            numbered=any(one.get("type") == "number" for one in found),
            name_of=thing is not None,
        )
        for key, child in (thing or {}).get("properties", {}).items():
            if key != "name":
                child = self._met(child)
                words = child.get("title") or _words(key)
                yield from self._asks(f"{path}.{key}", child, f"{label}: {words[0].lower()}{words[1:]}", False)


def _sets(family: Family) -> bool:
    """Whether what sets the gap is an option of it."""
    return any(option.key == "means" for option in family.options)


def _listed(node: Schema) -> Mapping[str, str]:
    return {one: one for one in node.get("enum", ())}


def _words(name: str) -> str:
    words = name.replace("_", " ")
    return words[:1].upper() + words[1:]
