"""Why the pump came in: what to measure first, and which finding explains it."""

from __future__ import annotations

from dataclasses import dataclass

from finegap.core.families.model import Family, FeatureKind, Symptom
from finegap.core.gap.move import Window
from finegap.core.inspection import FeatureState
from finegap.core.measuring.verdict import Call
from finegap.core.showing import Amounts, Bare, Sentence, length


@dataclass(frozen=True)
class Explained:
    """The symptom, its suspects in order, the findings that explain it, and the sentence that says so."""

    symptom: Symptom
    suspects: tuple[str, ...]
    explains: tuple[str, ...]
    sentence: Sentence


def explain(family: Family, key: str, states: tuple[FeatureState, ...], window: Window | None) -> Explained | None:
    """What is known of a symptom so far; ``None`` where none was given or it points at nothing."""
    symptom = next((s for s in family.symptoms if s.key == key), None)
    if symptom is None or not symptom.suspects:
        return None
    by_key = {s.feature.key: s for s in states}
    suspects = [by_key[k] for k in symptom.suspects if k in by_key]
    guilty = [s for s in suspects if _guilty(s, window)]
    open_ = [s for s in suspects if s.wanted and not s.done and s.feature.kind is not FeatureKind.PAIR]
    return Explained(
        symptom,
        tuple(s.feature.key for s in suspects),
        tuple(s.feature.key for s in guilty),
        _sentence(symptom, guilty, open_, window),
    )


def _guilty(state: FeatureState, window: Window | None) -> bool:
    if state.found_verdict is not None and state.found_verdict.call is Call.CHANGE:
        return True
    return _outside(state, window)


def _outside(state: FeatureState, window: Window | None) -> bool:
    """The gap that Set sets has no wear limit: as found it is held against what it is to be."""
    if not state.feature.is_set or window is None or state.found is None:
        return False
    found, doubt = state.found.value_mm, state.found.expanded_mm
    return found - doubt > window.high_mm or found + doubt < window.low_mm


def _sentence(symptom: Symptom, guilty: list[FeatureState], open_: list[FeatureState], window: Window | None) -> Sentence:
    name = {"symptom": symptom.name}
    if guilty:
        told = [_told(s, window) for s in guilty]
        words = "“{symptom}” is explained by " + "; ".join(f"{{w{i}}}" for i in range(len(told))) + "."
        return Sentence(words, name | {f"w{i}": t for i, t in enumerate(told)})
    if open_:
        first = "; ".join(s.feature.name.lower() for s in open_[:3])
        return Sentence("“{symptom}”: look first at {first}.", name | {"first": first})
    return Sentence("Nothing found explains “{symptom}”. Look for: {also}", name | {"also": symptom.also})


def _told(state: FeatureState, window: Window | None) -> Sentence:
    amounts: Amounts = {"name": state.feature.name.lower()}
    if not _outside(state, window) or state.found is None or window is None:
        return Sentence("{name}", amounts)
    side = "wider" if state.found.value_mm > window.high_mm else "tighter"
    bounds: Amounts = {"low": Bare(length(window.low_mm)), "high": length(window.high_mm), "found": length(state.found.value_mm)}
    return Sentence(f"{{name}}, {{found}}, {side} than {{low}} to {{high}}", amounts | bounds)
