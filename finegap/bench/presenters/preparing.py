"""What has to be known and on hand before anything is opened, the steps, and what to order."""

from __future__ import annotations

from finegap.bench import responses
from finegap.bench.presenters.inspecting import photos
from finegap.bench.records import Records
from finegap.core.assembly.elastomers import MEDIA
from finegap.core.families.builds import OF_THE_JOB
from finegap.core.families.steps import Step
from finegap.core.formatting import Amount, Kind, Text
from finegap.core.job import Assessment
from finegap.core.job_tasks import key_of
from finegap.core.ordering import Order
from finegap.core.procedure import told
from finegap.core.sheet import SpecSheet
from finegap.core.tasks.press import one_stroke
from finegap.core.wear.parts import Catalogue, money

_MUST_BE_KNOWN = (
    ("serial", "serial"),
    ("medium", "kind of liquid"),
    ("hazards", "hazards of the liquid"),
    ("hours_run", "hours run"),
    ("symptom", "symptom"),
    ("place", "site or workshop"),
)


def details(records: Records) -> responses.JobDetailsResponse:
    """What is known of the job, as it can be typed again."""
    job, job_record = records.job, records.job_record
    family = job_record.sheet.family

    def number(value: int | None) -> str:
        # Where the meter counts something else, what is typed again is said to be hours.
        return "" if value is None else str(value) if job.pump.per_hour is None else f"{value} h"

    texts = {
        "serial": job.serial,
        "medium": job.medium,
        "hazards": job.hazards,
        "hours_run": number(job.hours_run),
        "symptom": job.symptom,
        "place": job.place,
    }
    return responses.JobDetailsResponse(
        liquid=job.liquid,
        media=[responses.NamedResponse(key, medium.name) for key, medium in MEDIA.items()],
        viscosity=job.viscosity_typed,
        temperature=Amount(job.temperature_c, Kind.TEMPERATURE),
        casing=Amount(job.casing_c, Kind.TEMPERATURE),
        density="" if job.density_kg_m3 is None else f"{job.density_kg_m3:g}",
        start=_maybe_c(job.start_c),
        hot=_maybe_c(job.hot_c),
        pressure=Amount(job.pressure_bar, Kind.PRESSURE),
        speed=f"{job.speed_r_min:g}",
        old_meter_last=number(job.old_meter_last),
        new_meter_first=number(job.new_meter_first),
        reason=job.reason,
        symptoms=[responses.NamedResponse(s.key, s.name) for s in family.symptoms],
        room=job.room,
        build=_build(records),
        missing=[label for name, label in _MUST_BE_KNOWN if not texts[name] and (name != "symptom" or family.symptoms)],
        **texts,
    )


def _maybe_c(c: float | None) -> Text:
    return "" if c is None else Amount(c, Kind.TEMPERATURE)


def steps(records: Records, assessment: Assessment) -> list[responses.StepResponse]:
    """Every step of the procedure, with who did it and when."""
    done = {mark.step: mark for mark in records.steps}
    known = _values(records)
    shown = []
    for step in records.job_record.family.steps:
        mark = done.get(step.key)
        shown.append(
            responses.StepResponse(
                id=mark.id if mark else None,
                key=step.key,
                stage=step.stage.value,
                text=step.text,
                why=step.why,
                caution=step.caution,
                hold=step.hold,
                look=step.look,
                tells=[*told(step, known), *_no_figure(step, records.job_record.sheet)],
                tools=list(step.tools),
                consumables=list(step.consumables),
                tasks=[key_of(task, step) for task in step.tasks],
                measures=list(assessment.tasks.measured_at(step, records.job_record)),
                waits=list(assessment.holds_back(step)),
                early=[] if mark else list(assessment.out_of_turn(step)),
                reopened=step.reopened,
                by=records.names[mark.by_id] if mark else None,
                at=mark.when if mark else None,
                note=mark.note if mark else "",
                skipped=mark.skipped if mark else "",
                past=mark.past if mark else "",
                own=mark.own if mark else False,
                photos=photos([p for p in records.photos if p.step == step.key], records),
            )
        )
    return shown


def _no_figure(step: Step, sheet: SpecSheet) -> list[str]:
    """What is tightened at a step, and the sheet gives no torque for: said, so that nobody takes the step for one."""
    printed = {torque.key for torque in sheet.torques}
    return [f"The sheet gives no torque for the {key}." for key in step.of("torque") if key not in printed]


def _values(records: Records) -> dict[str, Text]:
    """What steps may say: of the sheet, the job and the torque table."""
    job, sheet = records.job, records.job_record.sheet
    names = {option.key: option.choices for option in records.job_record.whole.options}
    return {
        **sheet.details,
        **{key: names[key][choice] for key, choice in records.job_record.build.items() if choice in names.get(key, {})},
        **{f"torque:{t.key}": t.span for t in sheet.torques},
        **{f"one_stroke:{key}": one_stroke(press) for key, press in sheet.building.presses.items()},
        "maker": sheet.maker,
        "model": sheet.model,
        "serial": job.serial,
        "liquid": job.liquid,
        "hazards": job.hazards,
        "temperature": Amount(job.temperature_c, Kind.TEMPERATURE),
        "pressure": Amount(job.pressure_bar, Kind.PRESSURE),
    }


def ready(records: Records, assessment: Assessment) -> responses.ReadyResponse:
    """Tools, consumables, the kit and the gauges the job needs, with what is missing."""
    said_of = {row.item: row for row in records.on_hand}
    kit = order(assessment.ready, records.job_record.sheet.catalogue)
    return responses.ReadyResponse(
        needs=[
            responses.NeedResponse(
                item, kind, said_of[item].here if item in said_of else None,
                records.names[said_of[item].by_id] if item in said_of else "",
            )
            for item, kind in assessment.needs
        ],
        kit=kit,
        gauges=[
            state.feature.name
            for state in assessment.features
            if state.feature.kind.taken and state.spec.new_mm is not None and not state.cabinet.pick
        ],
    )  # fmt: skip


def order(order: Order, catalogue: Catalogue) -> responses.OrderResponse | None:
    """What to order; ``None`` where the sheet has no catalogue."""
    if not catalogue.parts:
        return None
    cover = order.cover
    return responses.OrderResponse(
        lines=[
            responses.OrderLineResponse(
                line.number, line.name, line.count, money(line.price_cents * line.count, catalogue.currency),
                _lead(line.lead_days), line.is_kit, list(line.reasons),
            )
            for line in cover.lines
        ],
        total=money(cover.total_cents, catalogue.currency),
        lead=f"longest lead time {_lead(cover.lead_days)}" if cover.lead_days else "all in stock",
        spare=[f"{count} × {catalogue.part(number).name}" for number, count in cover.spare.items()],
        missing=[catalogue.part(number).name for number in cover.missing] + list(order.unlisted),
        working=order.working,
    )  # fmt: skip


def _lead(days: int) -> str:
    if days == 0:
        return "in stock"
    return f"{days} days" if days % 7 else f"{days // 7} week{'s' if days > 7 else ''}"


def _build(records: Records) -> list[responses.BuildResponse]:
    """The scope of the job, then how its pump is built; conventions are chosen by sheet and shop."""
    whole = records.job_record.whole
    build = whole.build or {}
    options = [option for option in whole.options if not option.is_convention]
    return [
        responses.BuildResponse(
            option.key,
            option.name,
            build.get(option.key, ""),
            [responses.NamedResponse(key, words) for key, words in option.choices.items()],
            # The means of adjustment is what the sheet's numbers are for.
            option.key == "means",
        )
        for option in sorted(options, key=lambda one: one.key != OF_THE_JOB)
    ]
