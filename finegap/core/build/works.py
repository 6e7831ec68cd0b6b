"""What the steps of Build are done with in one job: press fits, stacks, torques."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from finegap.core.build.declared import DiscSpec
from finegap.core.build.disc_spring import preload_lines
from finegap.core.build.pressing import PressState, press_state
from finegap.core.build.stacking import StackState, stack_state
from finegap.core.build.tightening import Tightening
from finegap.core.facts import Facts
from finegap.core.families.model import FeatureKind, Step
from finegap.core.inspection import FeatureState
from finegap.core.reckoned import Line, Stand
from finegap.core.showing import Sentence


@dataclass(frozen=True)
class Works:
    """By their name in the steps: press fits, stacks by place, lines of the torque table.

    ``not_new`` are the sentences against parts that cannot be the new ones, by feature.
    """

    presses: Mapping[str, PressState]
    stacks: Mapping[str, StackState]
    tightenings: Mapping[str, Tightening]
    not_new: Mapping[str, Sentence]

    def holds_back(self, step: Step) -> tuple[Sentence, ...]:
        """Why a step cannot be marked done yet.

        A stack not complete, a torque not logged, a bushing that would not hold, a part that cannot be the new one.
        """
        reasons: list[Sentence] = [self.not_new[key] for key in self._parts_of(step) if key in self.not_new]
        for work in step.works:
            kind, _, key = work.partition(":")
            if kind == "stack" and key in self.stacks:
                reasons += _next_part(self.stacks[key])
            elif kind == "torque" and key in self.tightenings and not self.tightenings[key].complete:
                reasons.append(self.tightenings[key].open_sentence)
            elif kind == "press" and key in self.presses:
                reasons += _not_to_be_pressed(self.presses[key])
        return tuple(reasons)

    def measured_at(self, step: Step, facts: Facts) -> tuple[str, ...]:
        """Features of renewed parts that are measured, or looked at, as fitted at a step of Build."""
        renewed = self._parts_of(step) & facts.changed
        return tuple(f.key for f in facts.family.features if f.key in renewed and f.kind is not FeatureKind.PAIR)

    def _parts_of(self, step: Step) -> set[str]:
        """Features whose parts a step of Build puts in."""
        if not step.puts_in:
            return set()
        stacks = [self.stacks[w.removeprefix("stack:")] for w in step.works if w.removeprefix("stack:") in self.stacks]
        return {*step.changed, *(part.feature for state in stacks for part in state.stack.parts if part.feature)}

    def not_tightened(self, facts: Facts) -> tuple[Sentence, ...]:
        """Torques that are not logged, of steps that were not skipped."""
        skipped = _skipped(facts)
        open_ = (t for key, t in self.tightenings.items() if f"torque:{key}" not in skipped)
        return tuple(t.open_sentence for t in open_ if not t.complete)

    def would_not_hold(self, facts: Facts) -> tuple[Sentence, ...]:
        """Press fits that should not have been made."""
        skipped = _skipped(facts)
        presses = (press for key, press in self.presses.items() if f"press:{key}" not in skipped)
        return tuple(_said(line) for press in presses for line in press.lines if line.stand is Stand.STOP)


def works_of(facts: Facts, features: tuple[FeatureState, ...]) -> Works:
    """Everything the steps of a job are done with, as it stands."""
    states = {state.feature.key: state for state in features}
    declared = {press.key: press for press in facts.family.presses}
    torques = {torque.key: torque for torque in facts.sheet.torques}
    building, duty = facts.sheet.building, facts.duty
    tightenings = {
        key: Tightening(torques[key], tuple(t for t in facts.tightened if t.fastener == key))
        for key in _names(facts, "torque")
        if key in torques
    }
    spring = spring_lines(building.disc, tightenings)
    return Works(
        {
            key: press_state(declared[key], building.presses[key], states, duty.temperature_c, duty.casing_c)
            for key in _names(facts, "press")
            if key in building.presses
        },
        {
            place: stack_state(facts.stacks[place], facts.fitted, facts.sheet.details, facts.used, building.reusable, spring)
            for place in _names(facts, "stack")
            if place in facts.stacks
        },
        tightenings,
        {
            key: Sentence("{name}: {why}", {"name": state.feature.name, "why": state.not_new})
            for key, state in states.items()
            if state.not_new is not None
        },
    )


def spring_lines(spec: DiscSpec | None, tightenings: Mapping[str, Tightening]) -> tuple[Line, ...]:
    """What the disc spring of the sheet does under its nut."""
    if spec is None:
        return ()
    under = tightenings.get(spec.under)
    joint = under.joint if under else None
    preload = joint.preload_n(under.torque.low_n_m, under.torque.high_n_m) if under and joint else None
    return preload_lines(spec.disc, spec.settles_mm, preload)


def _names(facts: Facts, kind: str) -> tuple[str, ...]:
    prefix = f"{kind}:"
    return tuple(w.removeprefix(prefix) for step in facts.family.steps for w in step.works if w.startswith(prefix))


def _skipped(facts: Facts) -> set[str]:
    return {work for step in facts.family.steps if step.key in facts.skipped for work in step.works}


def _next_part(state: StackState) -> list[Sentence]:
    if state.next is None:
        return []
    return [Sentence("{stack}: next comes {part}.", {"stack": state.stack.name, "part": state.next.name.lower()})]


def _not_to_be_pressed(press: PressState) -> list[Sentence]:
    return [_said(line) for line in press.lines if line.stand is Stand.STOP]


def _said(line: Line) -> Sentence:
    return Sentence("{name}: {words}", {"name": line.name, "words": line.words})
