"""Why the pump came in: what to measure first, and which finding explains it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from finegap.core.families.family import Family, Side, Symptom
from finegap.core.families.features import FeatureKind
from finegap.core.formatting import Amounts, Bare, Sentence
from finegap.core.gap.move import Window
from finegap.core.inspection import FeatureState
from finegap.core.measuring.verdict import Verdict

Windows = Mapping[str, Window]
"""What each gap that is set has to be, by what Set asks for it as."""


@dataclass(frozen=True)
class Explained:
    """The symptom, its suspects in order, the findings that explain it, and the sentence that says so."""

    symptom: Symptom
    suspects: tuple[str, ...]
    explains: tuple[str, ...]
    sentence: Sentence


def explain(family: Family, key: str, states: tuple[FeatureState, ...], windows: Windows) -> Explained | None:
    """What is known of a symptom so far; ``None`` where none was given or it points at nothing."""
    symptom = next((s for s in family.symptoms if s.key == key), None)
    if symptom is None or not symptom.suspects:
        return None
    by_key = {s.feature.key: s for s in states}
    suspects = [by_key[k] for k in symptom.suspects if k in by_key]
    guilty = [s for s in suspects if _guilty(s, symptom, windows)]
    open_ = [s for s in suspects if s.wanted and not s.done and s.feature.kind is not FeatureKind.PAIR]
    return Explained(
        symptom,
        tuple(s.feature.key for s in suspects),
        tuple(s.feature.key for s in guilty),
        _sentence(symptom, guilty, open_, windows),
    )


def _guilty(state: FeatureState, symptom: Symptom, windows: Windows) -> bool:
    if state.found_judgement is not None and state.found_judgement.verdict is Verdict.CHANGE:
        return True
    side = _outside(state, windows)
    return side is not None and symptom.gap in (side, Side.EITHER)


def _outside(state: FeatureState, windows: Windows) -> Side | None:
    """A finding of a gap that is set: it has no wear limit, so its size as found is held against its window."""
    window = windows.get(state.feature.set_as)
    if window is None or state.found is None:
        return None
    found, doubt = state.found.value_mm, state.found.expanded_mm
    if found - doubt > window.high_mm:
        return Side.WIDER
    return Side.TIGHTER if found + doubt < window.low_mm else None


def _sentence(symptom: Symptom, guilty: list[FeatureState], open_: list[FeatureState], windows: Windows) -> Sentence:
    name = {"symptom": symptom.name}
    if guilty:
        told = [_told(s, windows) for s in guilty]
        words = "“{symptom}” is explained by " + "; ".join(f"{{w{i}}}" for i in range(len(told))) + "."
        return Sentence(words, name | {f"w{i}": t for i, t in enumerate(told)})
    if open_:
        first = "; ".join(s.feature.name.lower() for s in open_[:3])
        return Sentence("“{symptom}”: look first at {first}.", name | {"first": first})
    return Sentence("Nothing found explains “{symptom}”. Look for: {also}", name | {"also": symptom.also})


def _told(state: FeatureState, windows: Windows) -> Sentence:
    amounts: Amounts = {"name": state.feature.name.lower()}
    side, window = _outside(state, windows), windows.get(state.feature.set_as)
    if side is None or state.found is None or window is None:
        return Sentence("{name}", amounts)
    low, high, found = window.shown(state.found.value_mm)
    bounds: Amounts = {"low": Bare(low), "high": high, "found": found}
    return Sentence("{name}, {found}, {value} than {low} to {high}", {"value": side.value} | (amounts | bounds))
