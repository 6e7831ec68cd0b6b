"""What a job showed, in a form that commits before and after a change of shapes have in common."""

from typing import Any


def state(job: dict[str, Any]) -> dict[str, Any]:
    """Stages, verdicts, decisions, steps, tries, what is fitted and tightened, and what blocks the signature."""
    if "tasks" in job:
        stacks, torques = ([task for task in job["tasks"] if task["kind"] == kind] for kind in ("stack", "torque"))
    else:
        stacks, torques = job["building"]["stacks"], job["building"]["tightenings"]
    return {
        "stages": [[one["key"], one["done"], one["of"]] for one in job["stages"]],
        "blockers": sorted(one["sentence"] for one in job["blockers"]),
        "steps": [[one["key"], one["by"], one["skipped"], one["reopened"]] for one in job["steps"]],
        "features": [
            [
                one["key"],
                one["found"] and one["found"]["text"],
                one["judged"] and one["judged"]["sentence"],
                one["decision"] and one["decision"]["decided"],
                one["left_text"],
                [[reading["typed"], reading["text"], reading["struck_reason"]] for reading in one["readings"]],
            ]
            for one in job["features"]
        ],
        "settings": [
            [one["headline"], one["right"], [[made["set_by"], made["gap"], made["next"]] for made in one["tries"]]]
            for one in (job["setting"], job["mesh"])
            if one
        ],
        "stacks": sorted([one["place"], [[part["key"], part["fitted"]] for part in one["parts"]]] for one in stacks),
        "torques": sorted([one["fastener"], [[mark["typed"], mark["struck_reason"]] for mark in one["log"]]] for one in torques),
        "signed": job["signed"] and [job["signed"]["by"], job["signed"]["core_version"]],
    }
