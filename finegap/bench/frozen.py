"""Signed records keep the shape they were frozen in; this reads the older ones.

Core 0.1 knew neither damage, forecast, builds nor orders, and kept a verdict inside its result; core 0.2 knew nothing of stacks,
press fits and torques; core 0.3 set one gap with one check, and knew neither a duty's range, slip nor the proof.
"""

from __future__ import annotations

from typing import Any

from finegap.bench.models import Job
from finegap.core.families import FAMILIES
from finegap.core.families.model import Family

_FEATURE: dict[str, Any] = {
    "judged": None,
    "judged_left": None,
    "by_parts": False,
    "wanted": True,
    "fits": [],
    "expansion": "",
    "damages": [],
    "look": None,
    "look_left": None,
    "forecast": None,
    "odd": [],
    "missing": "",
    "options": [],
    "suspect": 0,
    "photos": [],
}
_READING = {"faults": [], "part": "", "taken": "typed"}
_STEP = {"look": "", "tells": [], "tools": [], "consumables": [], "note": "", "skipped": "", "photos": []}


def upgraded(record: dict[str, Any], job: Job) -> dict[str, Any]:
    """A frozen job in the shape shown now: nothing that was frozen is changed, what it did not know is left empty."""
    return _with_proof(_with_building(record if "drawing" in record else _with_inspection(record, job)))


def _with_proof(record: dict[str, Any]) -> dict[str, Any]:
    if "proving" in record:
        return record
    drawn = record["choice"]["map"]
    choice = record["choice"] | {"over": None, "hole": None, "map": drawn and {"way": []} | drawn}
    return record | {
        "choice": choice,
        "setting": record["setting"] and _setting(record["setting"], FAMILIES[record["family"]]),
        "mesh": None,
        "slip": {"found": [], "left": []},
        "proving": {"turning": None, "play": None, "coach": None, "seen": [], "lines": [], "noises": []},
        "known": {"density": "", "start": "", "hot": ""} | record["known"],
    }


def _setting(old: dict[str, Any], family: Family) -> dict[str, Any]:
    last = old["tries"][-1] if old["tries"] else None
    window = {key: old[key] for key in ("low", "high", "target", "low_mm", "high_mm", "target_mm")}
    held: dict[str, Any] = {
        "gap": last["gap"] if last else "",
        "gap_mm": last["gap_mm"] if last else None,
        "expanded_mm": last["expanded_mm"] if last else 0.0,
        "call": last["call"] if last else "",
        "proofs": [],
    }
    return old | {
        "sets": "gap",
        "name": family.gap.name,
        "place": family.gap.place,
        "faces": family.gap.faces.split(" and "),
        "gaps": [{"key": "gap", "name": family.gap.name, "derived": False} | window | held],
        "warming": None,
        "shims": None,
        "timing": None,
        "hot": old["hot"] and {"sentence": ""} | old["hot"],
        "housing": old["housing"] and {"prescribed": old["housing"]["school"], "lash_does": ""} | old["housing"],
    }


_NO_BUILDING: dict[str, Any] = {
    **{key: [] for key in ("stacks", "presses", "tightenings", "bearings", "pictures", "lubricants", "guns")},
    "packing": None,
    "lubricant": "",
    "gun": "",
}


def _with_building(record: dict[str, Any]) -> dict[str, Any]:
    if "building" in record:
        return record
    setting = record["setting"] and {"surprise": None} | record["setting"]
    return record | {
        "setting": setting,
        "choice": {"map": None} | record["choice"],
        "building": _NO_BUILDING,
        "known": {"medium": "", "media": []} | record["known"],
        "steps": [{"works": [], "measures": [], "waits": []} | step for step in record["steps"]],
        "features": [{"press": ""} | feature for feature in record["features"]],
    }


def _with_inspection(record: dict[str, Any], job: Job) -> dict[str, Any]:
    family = FAMILIES[record["family"]]
    drawing = family.built(family.complete({"means": (record["setting"] or {}).get("means", "housing")})).drawing
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
        "procedure": f"as Fine Gap listed it when job {job.number} was signed",
        "steps": [_STEP | step for step in record["steps"]],
        "drawing": {
            "width": drawing.size[0],
            "height": drawing.size[1],
            "marks": [{"style": m.style.value, "path": m.path} for m in drawing.marks],
        },
        "features": [_feature(feature, family) for feature in record["features"]],
        "explained": None,
        "order": None,
        "materials": [],
    }


def _feature(old: dict[str, Any], family: Family) -> dict[str, Any]:
    declared = family.by_key.get(old["key"])
    place = {"anchor": list(declared.anchor), "label": list(declared.label)} if declared else {}
    return (
        _FEATURE
        | old
        | place
        | {
            "judged": _judged(old["found"]),
            "judged_left": _judged(old["left"]),
            "done": old["found"] is not None,
            "readings": [_READING | reading for reading in old["readings"]],
        }
    )


def _judged(result: dict[str, Any] | None) -> dict[str, Any] | None:
    verdict = (result or {}).get("verdict")
    return {**verdict, "reasons": []} if verdict else None
