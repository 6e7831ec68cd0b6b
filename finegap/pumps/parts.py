"""A part of a pump that goes into another, and takes its wear with it."""

from __future__ import annotations

import datetime as dt

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Q
from django.utils import timezone

from finegap.api.retry import digest
from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.families.features import Feature, FeatureKind
from finegap.core.sheet import SpecSheet, read_sheet
from finegap.core.wear.lives import Instead
from finegap.formats.days import written
from finegap.pumps.changes import MovePart
from finegap.pumps.history import hours_on, measured
from finegap.pumps.models import PartMoved, Pump
from finegap.pumps.services import day_of, is_retry, pump_named

_MOST = 200
"""Parts that may come to a pump or leave it (no source)."""


def move_part(actor: User, tag: str, new: MovePart, entry: Entry) -> None:
    """Say that a part of a pump was fitted in another: its sizes and hours go with it.

    Raises
    ------
    FieldError
        No such pump or part, the pump itself, one whose sheet has no such part or prints another new size for it, a part that
        went elsewhere and nothing took its place, one an open job has measured, a day that is none, before an overhaul of either
        or before such a part was moved, or hours that do not go with a meter.
    Unlikely
        The other pump is on loan or retired.
    Conflict
        The same identity with other contents.
    """
    with transaction.atomic():
        giver, taker = pump_named(tag), pump_named(new.taker.strip())
        sent = digest((tag, new), actor, entry)
        if is_retry(PartMoved.objects.filter(id=new.id).first(), sent):
            return
        if giver.pk == taker.pk:
            raise FieldError("into", f"{taker.tag} is this pump.", "Expected another.")
        if (taker.retired or taker.lent) and not entry.meant:
            where = "retired" if taker.retired else f"on loan, at {taker.location}"
            raise Unlikely("into", f"{taker.tag} is {where}.", "Is it meant?")
        features = _goes(giver, taker, new.part)
        on = day_of(new.day)
        for pump in (giver, taker):
            _check_day(pump, features, on)
        _check_there(giver, new.part, features)
        PartMoved.objects.create(
            id=new.id,
            pump=giver,
            taker=taker,
            part=new.part,
            features=[one.key for one in features],
            day=on,
            hours=hours_on(giver, new.hours, f"meter of {giver.tag}", on, entry),
            hours_there=hours_on(taker, new.hours_there, f"meter of {taker.tag}", on, entry),
            work=giver.pressure_bar * giver.speed_r_min,
            work_there=taker.pressure_bar * taker.speed_r_min,
            instead=new.instead.value,
            note=new.note.strip(),
            by=actor,
            at=timezone.now(),
            sent=sent,
        )


def _check_day(pump: Pump, features: list[Feature], on: dt.date) -> None:
    """Nothing is moved before what was signed, measured or moved of it later."""
    last = pump.jobs.filter(ended="signed").order_by("-number").first()
    if last and on < timezone.localdate(last.opened_at):
        problem = f"job {last.number} on {pump.tag} was opened later, and was signed without it."
        raise FieldError("day", problem, "Expected the day of that job, or later.")
    keys = [one.key for one in features]
    bench = pump.jobs.filter(ended="", readings__feature__in=keys, readings__struck_reason="").first()
    if bench:
        problem = f"job {bench.number} on {pump.tag} is open, and has measured it: those sizes would be of another part."
        raise FieldError("part", problem, "Expected that job signed or abandoned first.")
    moves = _moves_of(pump, keys)
    if moves and on < moves[-1].day:
        problem = f"it was moved on {pump.tag} on {written(moves[-1].day)}, later than that."
        raise FieldError("day", problem, "Expected that day or later; or strike that out first.")
    if pump.given.count() + pump.taken.count() >= _MOST:
        raise FieldError("part", f"{pump.tag} has {_MOST} on record already.", "Expected fewer.")


def _check_there(giver: Pump, part: str, features: list[Feature]) -> None:
    """A part is in one pump at a time: where nothing took the place of one that went, there is none to go again."""
    moves = _moves_of(giver, [one.key for one in features])
    last = moves[-1] if moves else None
    if last is None or last.pump_id != giver.pk or Instead(last.instead) is not Instead.NOTHING:
        return
    signed = giver.jobs.filter(ended="signed").order_by("-number").first()
    if signed is None or timezone.localdate(signed.opened_at) < last.day:  # an overhaul since then may have fitted one
        problem = f"it went into {last.taker.tag} on {written(last.day)}, and nothing took its place."
        raise FieldError("part", f"{part}: {problem}", "Expected one that is there; or strike that out first.")


def _moves_of(pump: Pump, keys: list[str]) -> list[PartMoved]:
    """What counts of a part of a pump that came or went, oldest first."""
    rows = PartMoved.objects.filter(Q(pump=pump) | Q(taker=pump), struck_reason="").select_related("taker").order_by("day", "at")
    return [one for one in rows[: 2 * _MOST] if set(one.features) & set(keys)]


def parts_of(pump: Pump, sheet: SpecSheet) -> dict[str, list[Feature]]:
    """Parts that can go into another pump, each with what is measured of it alone: not a gap, which is between two."""
    parts: dict[str, list[Feature]] = {}
    for feature in measured(sheet.family_of(pump.build)).values():
        if not feature.kind.is_gap and feature.kind is not FeatureKind.PAIR:
            parts.setdefault(feature.part, []).append(feature)
    return parts


def sheet_of(pump: Pump) -> SpecSheet:
    """A pump's sheet as it is now.

    Raises
    ------
    FieldError
        It has no revision.
    """
    revision = pump.sheet.revisions.first()
    if revision is None:
        raise FieldError("sheet", f"{pump.tag} has no sheet.", "Expected one.")
    return read_sheet(revision.content)


def _goes(giver: Pump, taker: Pump, part: str) -> list[Feature]:
    """What is measured of a part, where the other pump takes the same: by the new sizes the two sheets print."""
    own, there = sheet_of(giver), sheet_of(taker)
    features = parts_of(giver, own).get(part)
    if not features:
        known = ", ".join(parts_of(giver, own))
        raise FieldError("part", f"{giver.tag} has no “{part}” that is measured.", f"Expected one of: {known}.")
    others = {one.key for group in parts_of(taker, there).values() for one in group}
    for one in features:
        if one.key not in others:
            raise FieldError("into", f"{taker.tag} has no {one.name.lower()}.", "Expected a pump with the same part.")
        if own.spec(one.key).new_mm != there.spec(one.key).new_mm:
            problem = f"the sheet of {taker.tag} prints another new size for {one.name.lower()}."
            raise FieldError("into", problem, "Expected a pump with the same part.")
    return features
