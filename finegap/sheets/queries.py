"""Reading spec sheets."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

from django.db.models import (
    BooleanField,
    Count,
    ExpressionWrapper,
    OuterRef,
    Prefetch,
    Q,
    QuerySet,
    Subquery,
    prefetch_related_objects,
)
from django.db.models.fields.json import KT

from finegap.api.shown import NamedResponse
from finegap.core.assembly.declared import Torque
from finegap.core.families import FAMILIES
from finegap.core.families.builds import UNSAID
from finegap.core.families.family import said_of, step_worded
from finegap.core.formatting import Units, between_edges, length, render
from finegap.core.procedure import ShopStep, in_force
from finegap.core.sheet import SpecSheet, read_partly, read_sheet
from finegap.core.sheet_parts import OPEN_HIGH, OPEN_LOW, FeatureSpec
from finegap.core.wear.parts import money
from finegap.sheets.draft_responses import PageResponse
from finegap.sheets.drafts import lines_of
from finegap.sheets.models import Sheet, SheetRevision, ShopProcedure
from finegap.sheets.reading import standing
from finegap.sheets.responses import (
    ConventionResponse,
    ProcedureLine,
    ProcedureResponse,
    ProcedureStep,
    RowLine,
    SheetDetail,
    SheetLine,
    SizeLine,
)

_PUMPS = 5
"""How many pumps of a sheet a list names."""


_SAID = {
    "maker": KT("content__maker"),
    "model": KT("content__model"),
    "family": KT("content__family"),
    "means": KT("content__adjustment__means"),
}
"""What a list says of a sheet by its latest revision, read out of its contents."""


def sheets() -> QuerySet[Sheet]:
    """Every sheet that has a revision, by title."""
    count = SheetRevision.objects.filter(sheet=OuterRef("pk")).order_by().values("sheet").annotate(n=Count("pk")).values("n")
    rows = Sheet.objects.annotate(revision_count=Subquery(count), used=Count("pumps"))
    return rows.exclude(revision_count=None).order_by("title", "pk")


def by_the_latest(rows: QuerySet[Any]) -> QuerySet[Any]:
    """Sheets with what their latest revision says, to be filtered by it: all contents are read for that."""
    latest = SheetRevision.objects.filter(sheet=OuterRef("pk"))
    said: QuerySet[Any] = rows.alias(**{name: Subquery(latest.values(said=of)[:1]) for name, of in _SAID.items()})
    return said


def sheet_lines(rows: Sequence[Any]) -> list[SheetLine]:
    """Sheets as a list says them, with some of the pumps that use each."""
    pumps = Sheet._meta.get_field("pumps").related_model  # the room of pumps lies above this one
    prefetch_related_objects(
        rows, Prefetch("pumps", pumps._default_manager.only("tag", "sheet").order_by("tag")[:_PUMPS], "first_pumps")
    )
    said: dict[int, dict[str, Any]] = {}
    revisions = SheetRevision.objects.filter(sheet__in=rows)
    unread = ExpressionWrapper(Q(read_at=None, before_reading=False), BooleanField())
    for one in revisions.annotate(**_SAID, unread=unread).values("sheet", "revision", "date", "unread", *_SAID):
        said.setdefault(one.pop("sheet"), one)  # the latest comes first
    return [
        SheetLine(
            slug=sheet.slug,
            title=sheet.title,
            revisions=sheet.revision_count,
            pumps=[pump.tag for pump in sheet.first_pumps],
            used=sheet.used,
            **said[sheet.pk],
        )
        for sheet in rows
    ]


def revision_of(slug: str, revision: str | None) -> SheetRevision | None:
    """A revision by name, or the latest."""
    found = SheetRevision.objects.filter(sheet__slug=slug).select_related("sheet", "added_by", "corrects")
    return (found.filter(revision=revision) if revision else found).first()


def sheet_detail(kept: SheetRevision, units: Units) -> SheetDetail:
    """A revision laid out as the manual prints it."""
    sheet = read_sheet(kept.content)
    check, lines = sheet.means.against_itself(), lines_of(kept)
    pumps = kept.sheet.pumps  # the room of pumps lies above this one
    return SheetDetail(
        slug=kept.sheet.slug,
        title=sheet.title,
        maker=sheet.maker,
        model=sheet.model,
        revision=sheet.revision,
        date=kept.date,
        source=sheet.source,
        family=sheet.family.name,
        school=sheet.school.value,
        revisions=list(kept.sheet.revisions.values_list("revision", flat=True)),
        added_by=kept.added_by.get_full_name() or kept.added_by.username,
        sizes=[
            _size(f.number, f.name, sheet.features[f.key], units) for f in sheet.family_of({}).features if f.key in sheet.features
        ],
        table_page=sheet.table_page,
        tolerance=f"−{length(sheet.minus_mm).bare(units)} +{length(sheet.plus_mm).text(units)}",
        rows=[_row(printed, mm, units) for printed, mm in _rows(kept.content, sheet)],
        adjustment=_adjustment(sheet, units) + _build(sheet),
        parts=_parts(sheet),
        torques=[[t.fastener, t.span.render(units), t.condition, _fastened(t)] for t in sheet.torques],
        building=_building(sheet, units),
        check=render(check[0], units) if check else None,
        check_agrees=check is None or check[1],
        unread=not kept.may_be_signed_on,
        read_at=kept.read_at,
        read_names=kept.read_names,
        read_alone=kept.read_alone,
        lines=len(lines),
        lines_read=0 if kept.may_be_signed_on else sum(row.agrees for row in standing(kept, lines).values()),
        corrects=kept.corrects.revision if kept.corrects else "",
        remarks=[f"{_place(path)}{render(text, units)}" for path, text in read_partly(kept.content)[0].remarks],
        cautions=[list(one) for one in sheet.cautions],
        pages=[PageResponse(str(one.pk), one.name, one.kind) for one in kept.pages.all()],
        pumps=list(pumps.values_list("tag", flat=True).order_by("tag")[:_PUMPS]),
        used=pumps.count(),
    )


def _place(path: str) -> str:
    """A row of the clearance table as it is counted on the page."""
    row = re.match(r"clearance_table\.rows\[(\d+)\]", path)
    return f"Clearance table, row {int(row[1]) + 1}: " if row else ""


def _rows(content: dict[str, Any], sheet: SpecSheet) -> list[tuple[dict[str, Any], float]]:
    return [(p, r.clearance_mm) for p, r in zip(content["clearance_table"]["rows"], sheet.rows, strict=True)]


def _row(printed: dict[str, Any], clearance_mm: float, units: Units) -> RowLine:
    return RowLine(
        setting=printed["setting"],
        material=printed["material"],
        viscosity=_printed(*printed["viscosity"]),
        temperature=_printed(*printed["temperature"]),
        printed=printed["end_clearance"],
        clearance=length(clearance_mm).text(units),
    )


def _printed(low: str, high: str) -> str:
    """A range as the manual prints it, with its open ends said."""
    if low == OPEN_LOW:
        return "any" if high == OPEN_HIGH else f"up to {high}"
    return f"{low} and up" if high == OPEN_HIGH else f"{low} to {high}"


def _size(number: int, name: str, spec: FeatureSpec, units: Units) -> SizeLine:
    new = between_edges(*spec.new_mm, spec.fine).render(units) if spec.new_mm else "—"
    limit = render(spec.limit.shown(fine=spec.fine), units) if spec.limit else "—"
    return SizeLine(number, name, new, limit, spec.page)


def _build(sheet: SpecSheet) -> list[list[str]]:
    """How pumps of this sheet are built, and the counts and weights it gives."""
    told = [
        [o.name, o.choices[sheet.build[o.key]]] for o in sheet.family_of({}).options if o.key in sheet.build and o.key != "means"
    ]
    return told + [[words.capitalize(), sheet.details[key]] for key, words in sheet.family.details.items() if key in sheet.details]


def _parts(sheet: SpecSheet) -> list[list[str]]:
    """Kits with what is in them, then single parts with what they renew."""
    catalogue, names = sheet.catalogue, sheet.family.by_key

    def price(cents: int | None) -> str:
        return "in kits only" if cents is None else money(cents, catalogue.currency)

    kits = [
        [
            k.number,
            k.name,
            ", ".join(f"{n} × {catalogue.part(p).name}" for p, n in k.contents.items()),
            price(k.price_cents),
            f"{k.lead_days} d",
        ]
        for k in catalogue.kits
    ]
    singles = [
        [
            p.number,
            p.name,
            "not used twice" if p.always else ", ".join(names[f].name for f in p.renews),
            price(p.price_cents),
            f"{p.lead_days} d",
        ]
        for p in catalogue.parts
    ]
    return kits + singles


def _fastened(torque: Torque) -> str:
    """How many, in how many passes, and what a lock nut has."""
    count = f"{torque.count} in {len(torque.passes)} passes" if torque.count > 1 else ""
    thread = torque.thread.name if torque.thread else ""
    tang = f"{torque.tang.slots} slots, {torque.tang.tangs} tangs" if torque.tang else ""
    return ", ".join(filter(None, (count, thread, tang)))


def _building(sheet: SpecSheet, units: Units) -> list[list[str]]:
    """Press fits, packing, bearings, and the stacks that take the place of the family's."""
    building, names = sheet.building, {p.key: p.name for p in sheet.family.presses}
    rows = [
        [
            names[key],
            f"{press.said}, {length(press.length_mm).text(units)} long, {press.bushing.name} in {press.seat.name}",
        ]
        for key, press in building.presses.items()
    ]
    if building.packing:
        packing = building.packing
        lantern = f", lantern ring after {packing.lantern_after}" if packing.lantern_after else ""
        section = length(packing.section_mm).text(units)
        rows.append(["Packing", f"{packing.rings} rings of {section}, joints {packing.joints.value}{lantern}"])
    for bearing in building.bearings:
        size = f"{length(bearing.outside_mm).bare(units)} × {length(bearing.width_mm).text(units)}"
        rows.append([bearing.name, f"{size}, {'oil' if bearing.oil else 'grease'}"])
    parts = {part.key: part.name for stack in sheet.family.stacks for part in stack.parts}
    for key, ring in building.rings.items():
        size = f"{length(ring.inside_mm).bare(units)} × {length(ring.section_mm).text(units)}"
        rows.append([parts[key], f"{size}, in a groove of Ø {length(ring.groove_mm).text(units)}"])
    rows += [[stack.name, ", ".join(part.name.lower() for part in stack.parts)] for stack in building.stacks]
    return rows


def _adjustment(sheet: SpecSheet, units: Units) -> list[list[str]]:
    lines = sheet.means.lines(sheet.family.gap) + (sheet.mesh.lines(sheet.family.gap) if sheet.mesh else [])
    return [[name, render(text, units)] for name, text in lines]


def procedure_lines() -> list[ProcedureLine]:
    """Every family with the version of its procedure in force."""
    kept = {p.family: p.version for p in ShopProcedure.objects.order_by("version")}
    return [ProcedureLine(f.key, f.name, kept.get(f.key, 0)) for f in FAMILIES.values()]


def procedure(family_key: str) -> ProcedureResponse | None:
    """A family's procedure as the shop follows it, for every build at once."""
    family = FAMILIES.get(family_key)
    if family is None:
        return None
    kept = ShopProcedure.objects.filter(family=family_key).select_related("by").first()
    chosen = kept.conventions if kept else {}
    said = said_of(family.options, chosen)
    declared = {s.key: step_worded(s, said) for s in family.steps}
    names: dict[str, dict[str, str]] = {}
    for option in family.options:
        names.setdefault(option.key, {}).update(option.choices)
    steps = in_force(family, tuple(ShopStep(**s) for s in kept.steps) if kept else ()).steps
    return ProcedureResponse(
        family=family.key,
        name=family.name,
        version=kept.version if kept else 0,
        by=(kept.by.get_full_name() or kept.by.username) if kept else "",
        at=kept.at if kept else None,
        conventions=[
            ConventionResponse(o.key, o.name, chosen.get(o.key, UNSAID), [NamedResponse(*one) for one in o.choices.items()])
            for o in family.options
            if o.is_convention
        ],
        steps=[
            ProcedureStep(
                key=step.key,
                stage=step.stage.value,
                text=step.text,
                why=step.why,
                declared=declared[step.key].text if step.key in declared else "",
                hold=step.hold,
                caution=step.caution,
                when=", ".join(names[option][choice] for option, choices in step.when.items() for choice in choices),
            )
            for step in (step_worded(one, said) for one in steps)
        ],
    )
