"""Signed records keep the shape they were frozen in; a chain of small upgrades reads the older ones.

Each step takes a record of one version to the next. It changes nothing that was frozen and leaves empty what its day did not know.
Words it needs are those of that day and stand here: no step asks the present families, units or core.

=======  ==================================================================================================
version  what it holds
=======  ==================================================================================================
1        core 0.1: one gap, one family; a verdict inside its result
2        core 0.2: builds, damage, forecast, orders, photographs
3        core 0.3: stacks, press fits, torques
4        core 0.4 at first: several gaps with several checks, a duty's range, slip, the proof
5        core 0.4 later: end play, leaves told for each gap
6        core 0.5: stations counted, new parts confirmed, the whole log, the words of the column "Left"
7        core 0.6: what was struck out, what a lead did out of its turn, proofs by the step they were seen at
8        core 0.8: a document of its own (``document``), tasks of steps and views of means by their kind; up to 7 a record held
         the rendered screen twice, in mm and in inches
9        core 0.9: stacks in sub-assemblies, marks of a procedure that has changed since
10       core 0.9 later: the heading of the works at the signature
11       core 0.10: what working pressure leaves of a gap
12       core 0.11: who read the sheet against the manual
=======  ==================================================================================================
"""

from __future__ import annotations

import json
from typing import Any

from finegap.bench.record.rendered import TO_DOCUMENTS, Record
from finegap.core.formatting import Shown

RECORD_VERSION = 12
"""The version signatures are frozen in now."""


def upgraded(record: Record, version: int) -> Record:
    """A frozen job in one unit system, of the version it was stored with, in the shape shown now; ``record`` stays as it is."""
    for step in _CHAIN[version - 1 :]:
        record = step(record)
    return record


def read_twice(document: bytes, version: int) -> Record:
    """A record that held the rendered screen in both unit systems: each text as it was shown in mm and in inches."""
    kept = json.loads(document)
    paired: Record = _paired(upgraded(kept["mm"], version), upgraded(kept["in"], version))
    return paired


def _paired(mm: Any, inches: Any) -> Any:
    match mm, inches:
        case dict(), dict():
            return {key: _paired(value, inches[key]) for key, value in mm.items()}
        case list(), list() if len(mm) == len(inches):
            return [_paired(one, other) for one, other in zip(mm, inches, strict=True)]
        case str(), str() if mm != inches:
            return Shown(mm, inches)
    return mm


def carried(record: Record) -> Record:
    """To 9: a stack said what lay at its ends, and had no sub-assemblies; the drawing is asked for by itself now."""
    parts_of = {"on": "", "lubricant": ""}

    def stack(task: Record) -> Record:
        rest = {key: value for key, value in task.items() if key != "ends"}
        return rest | {"carriers": [], "together": [], "parts": [parts_of | part for part in task["parts"]]}

    tasks = [stack(task) if task["kind"] == "stack" else task for task in record.get("tasks", [])]
    return {"former": [], **record, "tasks": tasks, "drawing": ""}


def headed(record: Record) -> Record:
    """To 10: nobody had said what heads a report, nor how days are written on it."""
    return {**record, "slug": "", "works": None}


def pressed(record: Record) -> Record:
    """To 11: nothing was said of what pressure leaves of a gap."""
    return {**record, **{key: {"bent": [], **record[key]} for key in ("setting", "mesh") if record.get(key)}}


def read_by(record: Record) -> Record:
    """To 12: nobody was asked to read a sheet, and a sheet gave no cautions."""
    return {**record, "sheet_read": None, "sheet_unread": False, "cautions": [], "corrected": []}


_CHAIN = (*TO_DOCUMENTS, carried, headed, pressed, read_by)
