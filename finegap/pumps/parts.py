"""A part of a pump that goes into another, and takes its wear with it."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from finegap.api.retry import digest
from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.families.features import Feature, FeatureKind
from finegap.core.sheet import SpecSheet, read_sheet
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
        No such pump or part, the pump itself, one whose sheet has no such part or prints another new size for it, a day that is
        none or before an overhaul of either, or hours that do not go with a meter.
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
        if taker.retired and not entry.meant:
            raise Unlikely("into", f"{taker.tag} is retired.", "Is it meant?")
        features = _goes(giver, taker, new.part)
        on = day_of(new.day)
        for pump in (giver, taker):
            last = pump.jobs.filter(ended="signed").order_by("-number").first()
            if last and on < timezone.localdate(last.opened_at):
                problem = f"job {last.number} on {pump.tag} was opened later, and was signed without it."
                raise FieldError("day", problem, "Expected the day of that job, or later.")
            if pump.given.count() + pump.taken.count() >= _MOST:
                raise FieldError("part", f"{pump.tag} has {_MOST} on record already.", "Expected fewer.")
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
