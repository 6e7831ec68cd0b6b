"""The gap of a job: the number, where setting stands, what heat does to it, and what it costs."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from finegap.core.assembly.tightening import Tightening
from finegap.core.bending import bent
from finegap.core.families.family import GapWords
from finegap.core.families.features import FeatureKind
from finegap.core.formatting import Amounts, Sentence, length
from finegap.core.gap import heat, table
from finegap.core.gap.losses import USUAL_KG_M3
from finegap.core.gap.move import Window
from finegap.core.gap.performance import Performance, perform
from finegap.core.gap.slip import Fluid
from finegap.core.gap.tries import Check, Setting
from finegap.core.inspection import FeatureState
from finegap.core.job_record import JobRecord, Phase
from finegap.core.means.base import FittedSize, Means, SetNow
from finegap.core.means.registry import GEAR
from finegap.core.measuring.uncertainty import from_interval
from finegap.core.measuring.verdict import Verdict

MESH = GapWords("mesh gaps", "", "")
"""What the gaps of a timing gear are called."""


@dataclass(frozen=True)
class GapAssessment:
    """What follows for the gap. ``setting`` is the gap of the clearance table, ``mesh`` that of a timing gear; ``now`` and
    ``mesh_now`` are what their means worked with.

    ``found`` is what the pump did with the gaps it came in with, ``left`` what it will do as it is put together. ``outside`` says
    which of its other gaps are outside their limit as it stands: a pump with one is not right, whatever was set. ``bent`` says what
    working pressure leaves of those that it closes.
    """

    choice: table.RowChoice
    window: Window | None
    setting: Setting | None
    mesh: Setting | None
    hot: heat.HotGap | None
    warming: heat.WarmingUp | None
    found: Performance | None
    left: Performance | None
    outside: tuple[Sentence, ...] = ()
    bent: tuple[Sentence, ...] = ()
    now: SetNow | None = None
    mesh_now: SetNow | None = None

    @property
    def windows(self) -> dict[str, Window]:
        """What everything that is set has to be, by the name it is asked under."""
        return {one.gap: one.window for s in self.settings for one in s.targets}

    @property
    def checked(self) -> dict[str, Check]:
        """The last check of everything that is set, by the name it is asked under; at its narrowest place, where it has several."""
        last = [h for s in self.settings if s.tries for h in s.tries[-1].results if not h.derived]
        return {h.target.gap: h.check for h in sorted(last, key=lambda h: -h.check.value_mm)}

    @property
    def settings(self) -> tuple[Setting, ...]:
        """Everything that is set."""
        return tuple(s for s in (self.setting, self.mesh) if s is not None)


def gap_assessment_of(record: JobRecord, features: tuple[FeatureState, ...]) -> GapAssessment:
    """Work out the gap from what was recorded."""
    sheet, duty = record.sheet, record.duty
    choice = table.choose(
        sheet.rows, duty.material, duty.viscosity_mm2_s, duty.temperature_c, sheet.cite(sheet.table_page), duty.duty_range
    )
    window = _window(record, choice.chosen.clearance_mm) if choice.chosen else None
    now = _now(record, window, choice, features)
    setting = _counted(record, sheet.means, sheet.means.set(now)) if now else None
    mesh_now = (
        SetNow(
            sheet.mesh.window,
            record.mesh_tries,
            sheet.school,
            MESH,
            places=_places(record),
            shut=_shut(record, sheet.mesh),
        )
        if sheet.mesh and record.sets_a_gap
        else None
    )
    mesh = _counted(record, sheet.mesh, sheet.mesh.set(mesh_now)) if sheet.mesh and mesh_now else None
    hot, warming = _heat(record, window, setting)
    found, left = _found(record, features), _left(record, features, setting)
    return GapAssessment(
        choice, window, setting, mesh, hot, warming, found, left, _outside(record, features), _bent(record, features), now, mesh_now
    )


def _outside(record: JobRecord, features: tuple[FeatureState, ...]) -> tuple[Sentence, ...]:
    """Gaps that nobody sets and that are outside their limit. One with a new part is left out until it is measured.

    A job that sets nothing puts nothing right: what it finds is done in the next.
    """
    if not record.sets_a_gap:
        return ()
    changed = {s.feature.key for s in features if s.renewed}
    found = []
    for state in features:
        feature = state.feature
        if feature.is_set or not (feature.kind is FeatureKind.PAIR or feature.kind is FeatureKind.GAP):
            continue
        is_new = bool({feature.key, feature.bore, feature.shaft} & changed)
        size, judgement = (state.left, state.left_judgement) if state.left or is_new else (state.found, state.found_judgement)
        if size is not None and judgement is not None and judgement.verdict is Verdict.CHANGE:
            limit, gap = state.spec.limit, length(size.value_mm)
            if limit is not None and limit.margin(size.value_mm) < 0:
                found.append(Sentence("{name}, {gap}, is outside its limit.", {"name": feature.name, "gap": gap}))
            else:
                found.append(Sentence("{name}, {gap}: {why}", {"name": feature.name, "gap": gap, "why": judgement.sentence}))
    return tuple(found)


def _bent(record: JobRecord, features: tuple[FeatureState, ...]) -> tuple[Sentence, ...]:
    """As left, or as found where nothing was measured after; nothing is said of a part that is new and was not measured."""
    told = []
    for state in features:
        left = state.left is not None and state.done_left
        if left or (state.done and not state.renewed):
            found = bent(record, state.feature, Phase.LEFT if left else Phase.FOUND)
            told += [Sentence("{name}: {what}", {"name": state.feature.name, "what": found[0]})] if found else []
    return tuple(told)


def _counted(record: JobRecord, means: Means, setting: Setting) -> Setting:
    """The setting, right only if its last check counts: made of the parts that are in, after the last torque of what holds the
    gap."""
    if not setting.right:
        return setting
    checked = setting.tries[-1].made.made
    # How two gears mesh is held by the timing gear, not by what holds a rotor along its shaft.
    holding = [s for s in record.family.steps if means.kind in s.undone_by or (s.before_check and means.kind != GEAR)]
    holding = [s for s in holding if s.puts_in and s.key not in record.skipped]
    torques = {key for step in holding for key in step.of("torque")}
    logs = [
        Tightening(t, tuple(one for one in record.tightened if one.fastener == t.key))
        for t in record.sheet.torques
        if t.key in torques
    ]
    open_ = ", ".join(log.torque.fastener.lower() for log in logs if not log.complete)
    if open_:
        return _not_yet(
            setting,
            Sentence("Right on trial: now the torque of the {name}, then check once more", {"name": open_}),
            Sentence("The {gap} was checked before the {name} had their torque.", {"name": open_, "gap": setting.targets[0].name}),
        )
    late = [log.torque.fastener.lower() for log in logs if any(one.made > checked for one in log.standing)]
    places = {place for step in holding for place in step.of("stack")}
    keys = {stack.key: stack.name for place, stack in record.stacks.items() if place in places}
    moved = dict.fromkeys(keys[one.stack] for one in record.fitted if one.stack in keys and one.made > checked)
    if late:
        why = Sentence("The {name} got their torque after the last check.", {"name": ", ".join(late)})
    elif moved:
        why = Sentence("{name}: put together after the last check.", {"name": ", ".join(moved)})
    elif record.renewed > checked:
        why = Sentence("Which parts are new was decided after the last check.")
    else:
        return setting
    return _not_yet(setting, Sentence("Check once more, as it stands"), why)


def _not_yet(setting: Setting, headline: Sentence, why: Sentence) -> Setting:
    return replace(setting, move=replace(setting.move, headline=headline, details=(why,)), right=False, unproved=why)


def _window(record: JobRecord, target_mm: float) -> Window:
    return Window(target_mm, target_mm - record.sheet.minus_mm, target_mm + record.sheet.plus_mm)


def _now(record: JobRecord, window: Window | None, choice: table.RowChoice, features: tuple[FeatureState, ...]) -> SetNow | None:
    """What the means works with; nothing where no number is known, or this job sets no gap."""
    if window is None or choice.chosen is None or not record.sets_a_gap:
        return None
    back = choice.chosen.back_mm
    return SetNow(
        window,
        record.tries,
        record.sheet.school,
        record.family.gap,
        back=None if back is None else _window(record, back),
        box=record.box,
        sizes={s.feature.key: _fitted(record, s) for s in features},
        zero=record.zero,
        lash_mm=record.lash_mm,
        places=_places(record),
        shut=_shut(record, record.sheet.means),
    )


def _shut(record: JobRecord, means: Means) -> bool:
    """What is put together again when the means is moved belongs to other scopes: this job leaves it closed."""
    return bool(means.opens(record.sheet.family)) and not means.opens(record.family)


def _places(record: JobRecord) -> dict[str, tuple[str, ...]]:
    """Where each gap that is set is checked, where that is at more places than one."""
    set_again = ((f.set_as, f.stations) for f in record.family.features if f.is_set)
    return {key: tuple(s.label for s in stations) for key, stations in set_again if len(stations) > 1}


def _size(state: FeatureState) -> float | None:
    """A size as it goes back in: as left, as new where it is changed and not measured, or as found."""
    if state.left is not None and state.done_left:
        return state.left.value_mm
    if state.renewed:
        return _new(state)
    return state.found.value_mm if state.found else None


def _fitted(record: JobRecord, state: FeatureState) -> FittedSize:
    """A size as it goes back in, with the ends of each plane it was measured in."""
    key, name = state.feature.key, state.feature.name.lower()
    is_left = state.left is not None and state.done_left
    result = state.left if is_left else None if state.renewed else state.found
    if result is None:
        return FittedSize(_size(state), name, from_interval(*state.spec.new_mm) if state.spec.new_mm else 0.0)
    stations: dict[tuple[str, str], list[float]] = {}
    for reading in record.readings.get((key, Phase.LEFT if is_left else Phase.FOUND), ()):
        stations.setdefault((reading.plane, reading.station), []).append(reading.at_20c_mm)
    planes: dict[str, list[float]] = {}
    for (plane, _), read in stations.items():
        planes.setdefault(plane, []).append(sum(read) / len(read))
    return FittedSize(result.value_mm, name, result.u_mm, {plane: (min(mm), max(mm)) for plane, mm in planes.items()})


def _new(state: FeatureState) -> float | None:
    return sum(state.spec.new_mm) / 2 if state.spec.new_mm else None


def _heat(record: JobRecord, window: Window | None, setting: Setting | None) -> tuple[heat.HotGap | None, heat.WarmingUp | None]:
    """Of the gap as checked, or of the target while nothing is checked."""
    body, duty, cite = record.sheet.heat, record.duty, record.sheet.cite()
    if body is None or window is None:
        return None, None
    gap = setting.gap_mm if setting else None
    cold = window.target_mm if gap is None else gap
    hottest = duty.temperature_c if duty.hot_c is None else duty.hot_c
    casing = duty.casing_c + hottest - duty.temperature_c
    hot = heat.hot_gap(cold, body, casing, hottest, cite)
    if duty.start_c is None:
        return hot, None
    return hot, heat.warming_up(cold, body, duty.start_c, casing, hottest, cite)


def _fluid(record: JobRecord) -> Fluid:
    return Fluid(record.duty.viscosity_mm2_s, record.duty.density_kg_m3 or USUAL_KG_M3)


def _perform(record: JobRecord, features: tuple[FeatureState, ...], gaps: Mapping[str, float]) -> Performance | None:
    losses = record.sheet.losses
    if losses is None:
        return None
    fresh = {s.feature.key: mm for s in features for mm in [_new(s)] if mm}
    return perform(losses, gaps, fresh, record.duty.pressure_bar, record.duty.speed_r_min, _fluid(record))


def _found(record: JobRecord, features: tuple[FeatureState, ...]) -> Performance | None:
    return _perform(record, features, {s.feature.key: s.found.value_mm for s in features if s.found})


def _left(record: JobRecord, features: tuple[FeatureState, ...], setting: Setting | None) -> Performance | None:
    """With the gap as set, or as it will be."""
    gaps = {s.feature.key: mm for s in features for mm in [_size(s)] if mm is not None}
    if setting:
        last = {h.target.key: h.check.value_mm for h in setting.tries[-1].results} if setting.tries else {}
        set_to: dict[str, float] = {}
        for one in setting.targets:  # of several places the widest, as of a gap that was found
            set_to[one.gap] = max(set_to.get(one.gap, 0.0), last.get(one.key, one.window.target_mm))
        gaps |= {s.feature.key: set_to[s.feature.set_as] for s in features if s.feature.set_as in set_to}
    return _perform(record, features, gaps)


def gap_blockers(record: JobRecord, gap_assessment: GapAssessment) -> tuple[tuple[Sentence, bool], ...]:
    """Why the gap keeps the job from being signed; whether a lead may sign all the same."""
    if not record.sets_a_gap:
        return ()
    if gap_assessment.setting is None:
        return ((gap_assessment.choice.sentence, False),)
    found: list[tuple[Sentence, bool]] = []
    if gap_assessment.hot is not None and gap_assessment.hot.touches:
        found.append((gap_assessment.hot.says, False))
    unknown = next(
        (w.unknown for w in (gap_assessment.hot, gap_assessment.warming) if w is not None and w.unknown is not None), None
    )
    if unknown is not None:
        found.append((unknown, True))
    if gap_assessment.warming is not None and gap_assessment.warming.is_known and gap_assessment.warming.touches:
        found.append((gap_assessment.warming.says, True))
    names = {"setting": record.family.gap.name, "mesh": "mesh gap"}
    for name, setting in (("setting", gap_assessment.setting), ("mesh", gap_assessment.mesh)):
        if setting is not None:
            found += _setting_blockers(setting, names[name])
    return tuple(found)


def _setting_blockers(setting: Setting, name: str) -> list[tuple[Sentence, bool]]:
    gap = setting.gap_mm
    if gap is None:
        return [(Sentence("The {name} has not been set and checked.", {"name": name}), False)]
    if gap <= 0:
        return [(Sentence("The {name} was measured as {gap}: never run at zero.", {"name": name, "gap": length(gap)}), False)]
    if setting.right:
        return []
    if setting.unproved is not None:
        return [(setting.unproved, True)]
    worst = setting.tries[-1].worst
    how = {
        Verdict.CHANGE: "is not inside {low} to {high}.",
        Verdict.MEASURE_AGAIN: "is not proved inside {low} to {high}.",
    }
    low, high, shown = worst.target.window.shown(worst.check.value_mm)
    amounts: Amounts = {"name": worst.target.name, "gap": shown, "low": low, "high": high}
    return [(Sentence("The {name}, {gap}, " + how[worst.judgement.verdict], amounts), True)]
