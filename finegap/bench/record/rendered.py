"""The steps of records that held the rendered screen twice, in mm and in inches: versions 1 to 7, each to the next.

None is written any more, so these steps stay as they are. Words they need are those of their day.
"""

from __future__ import annotations

import json
from collections.abc import Callable
from decimal import ROUND_HALF_UP, Decimal
from functools import cache
from pathlib import Path
from typing import Any

Record = dict[str, Any]

# 1 to 2

_FEATURE_2: Record = {
    **dict.fromkeys(("judged", "judged_left", "look", "look_left", "forecast")),
    **{key: [] for key in ("fits", "damages", "odd", "options", "photos")},
    "by_parts": False,
    "wanted": True,
    "expansion": "",
    "missing": "",
    "suspect": 0,
}
_READING_2: Record = {"faults": [], "part": "", "taken": "typed"}
_GAUGE_2: Record = {"certificate": "", "repeatability": "", "leaves": [], "lengths": True}
_STEP_2: Record = {"look": "", "tells": [], "tools": [], "consumables": [], "note": "", "skipped": "", "photos": []}


def _inspection(record: Record) -> Record:
    duty = record["duty"]
    return record | {
        "known": {
            **dict.fromkeys(("hazards", "old_meter_last", "symptom", "place", "room"), ""),
            **{name: duty[name] for name in ("liquid", "temperature", "casing", "pressure", "speed")},
            "serial": record["pump"]["serial"],
            "viscosity": duty["viscosity_typed"],
            "hours_run": "" if record["hours_run"] is None else str(record["hours_run"]),
            "new_meter_first": "0",
            "reason": record["reason"],
            "symptoms": [],
            "build": [],
            "missing": [],
        },
        "ready": {"needs": [], "kit": None, "gauges": []},
        "procedure": f"as Fine Gap listed it when job {record['number']} was signed",
        "steps": [_STEP_2 | step for step in record["steps"]],
        "features": [_inspected(feature) for feature in record["features"]],
        "explained": None,
        "order": None,
        "materials": [],
        "blockers": [],
        "gauges": [_GAUGE_2 | gauge for gauge in record["gauges"]],
    }


def _inspected(old: Record) -> Record:
    found: Record = {
        "judged": _judged_2(old["found"]),
        "judged_left": _judged_2(old["left"]),
        "done": old["found"] is not None,
        "readings": [_READING_2 | reading for reading in old["readings"]],
    }
    return _FEATURE_2 | old | found


def _judged_2(result: Record | None) -> Record | None:
    verdict = (result or {}).get("verdict")
    return {**verdict, "reasons": []} if verdict else None


# 2 to 3

_NO_BUILDING: Record = {
    **{key: [] for key in ("stacks", "presses", "tightenings", "bearings", "pictures", "lubricants", "guns")},
    "packing": None,
    "lubricant": "",
    "gun": "",
}


def _building(record: Record) -> Record:
    setting = record["setting"]
    return record | {
        "setting": setting and {"mismatch": None} | setting,
        "choice": {"map": None} | record["choice"],
        "building": _NO_BUILDING,
        "known": {"medium": "", "media": []} | record["known"],
        "steps": [{"works": [], "measures": [], "waits": []} | step for step in record["steps"]],
        "features": [{"press": ""} | feature for feature in record["features"]],
    }


# 3 to 4

_GAP_3, _PLACE_3, _FACES_3 = "end clearance", "under the head", ["rotor", "head"]
"""What core 0.3 called its one gap: it knew one family alone."""


def _proof(record: Record) -> Record:
    drawn = record["choice"]["map"]
    return record | {
        "choice": record["choice"] | {"over": None, "hole": None, "map": drawn and {"way": []} | drawn},
        "setting": record["setting"] and _setting_4(record["setting"]),
        "mesh": None,
        "slip": {"found": [], "left": []},
        "proving": {"turning": None, "coach": None, "seen": [], "lines": [], "noises": []},
        "known": {"density": "", "start": "", "hot": ""} | record["known"],
    }


def _setting_4(old: Record) -> Record:
    last = old["tries"][-1] if old["tries"] else None
    window = {key: old[key] for key in ("low", "high", "target", "low_mm", "high_mm", "target_mm")}
    held: Record = {
        "gap": last["gap"] if last else "",
        "gap_mm": last["gap_mm"] if last else None,
        "expanded_mm": last["expanded_mm"] if last else 0.0,
        "call": last["call"] if last else "",
    }
    return old | {
        "sets": "gap",
        "name": _GAP_3,
        "place": _PLACE_3,
        "faces": _FACES_3,
        "gaps": [{"key": "gap", "name": _GAP_3, "derived": False} | window | held],
        "warming": None,
        "shims": None,
        "timing": None,
        "hot": old["hot"] and {"sentence": ""} | old["hot"],
        "housing": old["housing"] and {"prescribed": old["housing"]["school"], "lash_does": ""} | old["housing"],
    }


# 4 to 5


def _leaves(record: Record) -> Record:
    """Leaves were told for a pump with one gap, beside it; ``play`` was not asked."""
    return record | {
        "setting": _leaves_a_gap(record["setting"]),
        "mesh": _leaves_a_gap(record["mesh"]),
        "proving": {"play": None} | record["proving"],
    }


def _leaves_a_gap(setting: Record | None) -> Record | None:
    if setting is None:
        return None
    proofs = setting.get("proofs", [])
    first = setting["gaps"][0]["key"] if setting["gaps"] else ""
    gaps = [{"proofs": proofs if gap["key"] == first else []} | gap for gap in setting["gaps"]]
    return {key: value for key, value in setting.items() if key != "proofs"} | {"gaps": gaps}


# 5 to 6


@cache
def _set_as() -> dict[str, dict[str, str]]:
    """What Set asked for a found gap as, by family of core 0.4."""
    loaded: dict[str, dict[str, str]] = json.loads((Path(__file__).parent / "set_0_4.json").read_text())
    return loaded


_FEATURE_6: Record = {"partial": "", "partial_left": "", "renewed": None, "to_confirm": False, "left_note": ""}


def _truth(record: Record) -> Record:
    settings = [one for one in (record["setting"], record["mesh"]) if one]
    gaps = {gap["key"]: gap["gap"] for one in settings for gap in one["gaps"] if gap["gap"]}
    set_as = _set_as().get(record["family"], {})
    record = record | {"gauges": [{"mark": ""} | gauge for gauge in record["gauges"]]}
    return record | {
        "features": [_true(feature, gaps.get(set_as.get(feature["key"], ""), "")) for feature in record["features"]],
        "blockers": [{"feature": ""} | blocker for blocker in record["blockers"]],
        "used_gauges": _used(record, settings),
        "log_total": record["version"],
        "meanwhile": [],
        "core": record["signed"]["core_version"],
    }


def _used(record: Record, settings: list[Record]) -> list[Record]:
    """The gauges the page of core 0.4 and before named, with what the cabinet said of them at the signature."""
    used = {reading["gauge"] for feature in record["features"] for reading in feature["readings"]}
    used |= {tag for one in settings for made in one["tries"] for tag in made["gauge"].split(", ")}
    used |= {mark["wrench"] for one in record["building"]["tightenings"] for mark in one["log"] if not mark["struck_reason"]}
    return [gauge for gauge in record["gauges"] if gauge["tag"] in used]


def _true(feature: Record, as_set: str) -> Record:
    judged, judged_left = _with_chance(feature["judged"]), _with_chance(feature["judged_left"])
    readings = [{"understood": "", "reason": ""} | reading for reading in feature["readings"]]
    decision = feature["decision"] and {"parts": []} | feature["decision"]
    new = feature | {"judged": judged, "judged_left": judged_left, "readings": readings, "decision": decision}
    return _FEATURE_6 | new | {"left_text": _left_text(new, as_set)}


def _left_text(feature: Record, as_set: str) -> str:
    """The column "Left" as the page of core 0.4 and before had it."""
    left = feature["left"]
    if left:
        return f"{left['text']} ± {left['expanded_text']}, {_called(feature['judged_left'])}"
    if as_set:
        return f"{as_set} as set"
    return "as found" if feature["done"] else ""


def _called(judged: Record | None) -> str:
    return ", ".join(filter(None, (judged["call"], judged["chance"]))) if judged else ""


def _with_chance(judged: Record | None) -> Record | None:
    return judged and {**judged, "chance": _chance(judged["probability"])}


_LEAST, _MOST = 0.05, 99.95


def _chance(probability: float | None) -> str:
    """A probability as core 0.4 wrote it: percent with one decimal, half away from zero, never certain."""
    if probability is None:
        return ""
    percent = 100 * probability
    if not _LEAST <= percent < _MOST:
        return "over 99.9%" if percent > 50 else "under 0.1%"
    return f"{Decimal(percent).quantize(Decimal('0.1'), rounding=ROUND_HALF_UP)}%"


# 6 to 7

_STEP_7: Record = {"id": None, "early": [], "reopened": False, "past": "", "own": False}
_SETTING_7: Record = {"opens": [], "asks_opened": False, "outside": []}
_TRY_7: Record = {"id": None, "opened": False, "struck_reason": ""}


def _striking(record: Record) -> Record:
    building, proving = record["building"], record["proving"]
    stacks = [stack | {"parts": [{"id": None} | part for part in stack["parts"]]} for stack in building["stacks"]]
    return record | {
        "steps": [_STEP_7 | step for step in record["steps"]],
        "features": [_with_ids(feature) for feature in record["features"]],
        "building": building | {"stacks": stacks},
        "setting": _set_7(record["setting"]),
        "mesh": _set_7(record["mesh"]),
        "proving": _proving_7(proving),
        "signed": record["signed"] and {"own": False} | record["signed"],
        "struck": [],
        "abandoned": None,
        "amendments": [],
    }


def _with_ids(feature: Record) -> Record:
    named = {key: feature[key] and {"id": None} | feature[key] for key in ("decision", "renewed")}
    return feature | named


def _set_7(setting: Record | None) -> Record | None:
    if setting is None:
        return None
    housing = setting["housing"] and {"zero": None} | setting["housing"]
    return _SETTING_7 | setting | {"housing": housing, "tries": [_TRY_7 | made for made in setting["tries"]]}


def _proving_7(proving: Record) -> Record:
    """Which step a proof was seen at was not kept: it is of none."""
    seen: Record = {"id": None, "step": ""}
    coach = proving["coach"] and proving["coach"] | {"notes": [{"id": None} | note for note in proving["coach"]["notes"]]}
    rest = {key: value for key, value in proving.items() if key != "play"}
    return rest | {
        "turning": [seen | proving["turning"]] if proving["turning"] else [],
        "plays": [{"id": None, "step": "", "line": proving["play"]}] if proving["play"] else [],
        "seen": [seen | one for one in proving["seen"]],
        "coach": coach,
    }


# 7 to 8

_ALONE = ("turning", "end-play", "first-hour")
"""Tasks that belong to one step."""


_RENAMED_8 = {"call": "verdict", "stand": "status", "surprise": "mismatch"}


def _renamed_8(value: Any) -> Any:
    if isinstance(value, list):
        return [_renamed_8(one) for one in value]
    if isinstance(value, dict):
        return {_RENAMED_8.get(key, key): _renamed_8(one) for key, one in value.items()}
    return value


def _tasks(record: Record) -> Record:
    """A ``verdict`` that a result of core 0.1 still has inside is shown nowhere, and stays."""
    renamed: Record = _renamed_8(_tasks_apart(record))
    return {key: value for key, value in renamed.items() if key != "known"} | {"details": renamed["known"]}


def _tasks_apart(record: Record) -> Record:
    building = record["building"]
    pictures = [{"kind": "picture", **one, "key": f"picture:{one['key']}"} for one in building["pictures"]]
    tasks = [*map(_stack_8, building["stacks"]), *map(_press_8, building["presses"]), *map(_torque_8, building["tightenings"])]
    if building["packing"]:
        tasks.append({"kind": "packing", "key": "packing", **building["packing"]})
    if building["bearings"]:
        tasks.append({"kind": "grease", "key": "grease", "bearings": building["bearings"]})
    rest = {key: value for key, value in record.items() if key not in ("proving", "building")}
    return rest | {
        "tasks": [*tasks, *pictures, *_proofs_8(record)],
        "steps": [_step_8(step) for step in record["steps"]],
        "features": [_feature_8(feature) for feature in record["features"]],
        "building": {"pictures": building["pictures"] and [one | {"key": one["key"].partition(":")[2]} for one in pictures]}
        | {key: building[key] for key in ("lubricant", "lubricants", "gun", "guns")},
        "setting": _setting_8(record["setting"]),
        "mesh": _setting_8(record["mesh"]),
    }


def _feature_8(feature: Record) -> Record:
    labels = {station["key"]: station["label"] for station in feature["stations"]}
    readings = [one | {"where": labels.get(one["station"], one["station"])} for one in feature["readings"]]
    return feature | {"readings": readings, "made": [fit["tag"] for fit in feature["fits"]]}


def _step_8(step: Record) -> Record:
    keys = [f"{work}:{step['key']}" if work in _ALONE else work for work in step["works"]]
    return {key: value for key, value in step.items() if key != "works"} | {"tasks": keys}


def _stack_8(stack: Record) -> Record:
    parts = [part | {"id": part["id"] or "", "at": part["at"] or ""} for part in stack["parts"]]
    return {"kind": "stack", "key": f"stack:{stack['place']}", **stack, "parts": parts}


def _press_8(press: Record) -> Record:
    return {"kind": "press", "how": "", **press, "key": f"press:{press['key']}"}


def _torque_8(one: Record) -> Record:
    log = [mark | {"id": mark["id"] or ""} for mark in one["log"]]
    return {"kind": "torque", **one, "key": f"torque:{one['key']}", "fastener_key": one["key"], "log": log}


def _proofs_8(record: Record) -> list[Record]:
    """Each at the step it was seen at; where none was kept, at the first that is done with it."""
    proving = record["proving"]
    steps = {work: step["key"] for step in reversed(record["steps"]) for work in step["works"]}

    def at(kind: str, step: str) -> Record:
        of = step or steps.get(kind, "")
        return {"kind": kind, "key": f"{kind}:{of}", "step": of}

    def seen(one: Record) -> Record:
        return one | {"id": one["id"] or ""}

    found = [at("turning", one["step"]) | {"seen": seen(one)} for one in proving["turning"]]
    found += [at("end-play", one["step"]) | {"id": one["id"] or "", "line": one["line"]} for one in proving["plays"]]
    if proving["coach"]:
        notes = [seen(note) for note in proving["coach"]["notes"]]
        found.append({"kind": "run-in", "key": "run-in", **proving["coach"], "notes": notes})
    if proving["seen"] or proving["lines"]:
        of = proving["seen"][0]["step"] if proving["seen"] else ""
        told = {"lines": proving["lines"], "seen": [seen(one) for one in proving["seen"]], "noises": proving["noises"]}
        found.append(at("first-hour", of) | told)
    return found


def _setting_8(setting: Record | None) -> Record | None:
    if setting is None:
        return None
    drawn: Record = next((setting[name] for name in _DRAWN_8 if setting[name]), {})
    housing = setting["housing"]
    if housing:
        last = housing["ticks"][-1]["angle_deg"] if housing["ticks"] else 0.0
        # A tick was a hundredth of a millimetre, or half a thousandth of an inch.
        step = 0.0127 if " in" in housing["lead"] else 0.01
        drawn = {key: value for key, value in housing.items() if key not in ("ticks", "zero")}
        drawn["degrees_per_mm"] = last / (step * len(housing["ticks"])) if housing["ticks"] else 0.0
    rest = {key: value for key, value in setting.items() if key not in _DRAWN_8}
    return rest | {"means": {"kind": setting["means"], **drawn}, "zero": housing["zero"] if housing else None}


_DRAWN_8 = ("housing", "gaskets", "shims", "timing")


TO_DOCUMENTS: tuple[Callable[[Record], Record], ...] = (_inspection, _building, _proof, _leaves, _truth, _striking, _tasks)
"""From version 1 to 8, in order."""
