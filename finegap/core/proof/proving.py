"""What proving a job comes to: how it turned by hand, where the run-in stands, and the first hour."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from finegap.core.facts import Facts
from finegap.core.families.model import Step
from finegap.core.gap.move import Window
from finegap.core.gap.performance import Performance
from finegap.core.proof.first_hour import Running, first_hour
from finegap.core.proof.run_in import Advice, Rules, Say, advise, rules_for
from finegap.core.reckoned import Line, Stand
from finegap.core.showing import Amounts, Sentence, length
from finegap.core.working import Given, Working

CLOCK = tuple(str(hour) for hour in range(1, 13))
TURNING, END_PLAY, RUN_IN, FIRST_HOUR = "turning", "end-play", "run-in", "first-hour"
"""What steps of Prove are done with."""

_NOT_YET = {Say.BEGIN, Say.BACK_OFF, Say.STOP}


@dataclass(frozen=True)
class Proving:
    """Where the proof stands. ``turned`` are clock positions where the shaft dragged, by the step it was turned at; ``plays`` the
    end play likewise; ``advice`` and ``rules`` are for packing. ``is_run`` when anything was seen in the first hour."""

    turned: Mapping[str, tuple[str, ...]]
    plays: Mapping[str, Line]
    advice: Advice | None
    rules: Rules | None
    lines: tuple[Line, ...]
    is_run: bool = False

    def holds_back(self, step: Step) -> tuple[Sentence, ...]:
        """Why a step cannot be marked done yet: what was seen at another step proves nothing here."""
        found = []
        if TURNING in step.works:
            if step.key not in self.turned:
                found.append(Sentence("Say first how the shaft turns, all the way round."))
            elif self.turned[step.key]:
                found.append(_tight(self.turned[step.key]))
        if END_PLAY in step.works and step.key not in self.plays:
            found.append(Sentence("Measure the end play first."))
        if RUN_IN in step.works and self.advice is not None and self.advice.say in _NOT_YET:
            found.append(Sentence("Run-in: {what}.", {"what": self.advice.headline}))
        if FIRST_HOUR in step.works:
            if not self.is_run:
                found.append(Sentence("Nothing of the first hour was entered yet."))
            found += self.stopped
        return tuple(found)

    @property
    def stopped(self) -> tuple[Sentence, ...]:
        """What of the first hour stops the pump."""
        stops = (line for line in self.lines if line.stand is Stand.STOP)
        return tuple(Sentence("{name}: {words}", {"name": line.name, "words": line.words}) for line in stops)

    def blockers(self) -> tuple[tuple[Sentence, bool], ...]:
        """What keeps the job from being signed; whether a lead may sign all the same."""
        found = [(_tight(places), False) for places in dict.fromkeys(self.turned.values()) if places]
        return (*found, *((words, True) for words in self.stopped))


def _tight(places: tuple[str, ...]) -> Sentence:
    return Sentence("The shaft is tight at {at} o'clock: never run it like that.", {"at": ", ".join(places)})


def proving_of(facts: Facts, left: Performance | None, window: Window | None) -> Proving:
    """Work out the proof from what was recorded."""
    duty = facts.duty
    packed = any(RUN_IN in step.works for step in facts.family.steps)
    rules = rules_for(duty.temperature_c, facts.sheet.run_in.drops, facts.sheet.run_in.hottest_c) if packed else None
    set_gap = next((f.key for f in facts.family.features if f.is_set), "")
    running = facts.running or Running({})
    lines = first_hour(running, left, set_gap, duty.pressure_bar, duty.temperature_c)
    plays = {step: end_play(play_mm, window) for step, play_mm in facts.plays.items()}
    advice = advise(facts.run_in, rules) if rules else None
    return Proving(facts.turned, plays, advice, rules, lines, bool(running.values or running.noise))


def end_play(play_mm: float, window: Window | None) -> Line:
    """End play against the width of the gap's window: more than that, and the gap moves out of it with the load.

    Common practice, no source: no appreciable end play.
    """
    amounts: Amounts = {"play": length(play_mm, fine=True)}
    if window is None:
        return Line("End play", Sentence("{play}.", amounts))
    wide = window.high_mm - window.low_mm
    working = Working(
        "End play against the window",
        "play ≤ high − low",
        (
            Given("play", "by indicator, pushed and pulled", length(play_mm, fine=True)),
            Given("low", "smallest gap", window.shown()[0]),
            Given("high", "largest gap", window.shown()[1]),
        ),
        length(wide, fine=True),
        "geometry: the rotor may stand anywhere within its end play",
    )
    if play_mm <= wide:
        return Line("End play", Sentence("{play}: the gap stays in its window.", amounts), working=working)
    words = "{play}: more than the window is wide, the gap moves out of it with the load. Look at lock nut, bearing and collars."
    return Line("End play", Sentence(words, amounts), Stand.CARE, working)
