"""Opening a job on a pump."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import models, transaction
from django.utils import timezone

from finegap.api.errors import Refused
from finegap.bench.changes import OpenJob
from finegap.bench.models import Event, Job, SectionVersion
from finegap.bench.services.changing import ALL, zone_of
from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.families.family import Symptom
from finegap.core.gap.viscosity import AS_WRITTEN
from finegap.core.sheet import read_sheet
from finegap.pumps.meter import typed_hours
from finegap.pumps.models import Pump
from finegap.sheets.models import ShopProcedure


def open_job(actor: User, new: OpenJob, entry: Entry = AS_WRITTEN) -> Job:
    """Open a job on a pump, to the latest revision of its sheet and its duty as it stands.

    Raises
    ------
    FieldError
        No such pump, no reason given, or hours that are no count.
    Unlikely
        The pump is on loan.
    Refused
        The pump already has an unsigned job, or its sheet no revision.
    """
    if not new.pump:
        raise FieldError("pump", "none was chosen.", "Expected one from the list.")
    with transaction.atomic():
        pump = Pump.objects.select_related("sheet").filter(tag=new.pump).first()
        if pump is None:
            raise FieldError("pump", f"there is no pump {new.pump}.", "Expected a tag from Fleet.")
        if pump.retired:
            raise FieldError("pump", f"{pump.tag} is retired.", "Expected one in use; a lead takes it back first, on its page.")
        if pump.lent and not entry.meant:
            raise Unlikely("pump", f"{pump.tag} is on loan, at {pump.location}.", "Is it here? A lead says so on its page, too.")
        already = Job.objects.filter(pump=pump, ended="").first()
        if already:
            raise Refused(f"{pump.tag} is already on the bench.", [f"Job {already.number} is not signed yet."])
        revision = pump.sheet.revisions.first()
        if revision is None:
            raise Refused(f"The sheet {pump.sheet} has no revision yet.")
        sheet = read_sheet(revision.content)
        symptom = symptom_name(sheet.family.symptoms, new.symptom)
        reason = new.reason.strip() or symptom
        if not reason:
            raise FieldError("reason", "say why the pump came in.", "Expected a symptom from the list, or a few words.")
        last = Job.objects.aggregate(last=models.Max("number"))["last"] or 0
        job = Job.objects.create(
            number=last + 1,
            pump=pump,
            revision=revision,
            opened_by=actor,
            opened_at=timezone.now(),
            reason=reason,
            symptom=new.symptom,
            serial=pump.serial,
            hours_run=typed_hours(pump, new.hours_run, "hours run", entry, labelled=False),
            procedure=ShopProcedure.objects.filter(family=sheet.family.key).first(),
            **pump.duty(),
        )
        Event.objects.create(
            job=job, version=1, by=actor, at=job.opened_at, zone_min=zone_of(job.opened_at), what=f"Job opened: {job.reason}"
        )
        SectionVersion.objects.create(job=job, section=ALL, version=1)
        return job


def symptom_name(symptoms: tuple[Symptom, ...], key: str) -> str:
    """What a symptom is called; nothing for none, and an error for one the family does not list."""
    symptom = next((s for s in symptoms if s.key == key), None)
    if key and symptom is None:
        known = ", ".join(s.key for s in symptoms) or "none"
        raise FieldError("symptom", f"“{key}” is not one this family lists.", f"Expected any of: {known}.")
    return symptom.name if symptom else ""
