"""Reading what is typed, and what has been read against the manual."""

from __future__ import annotations

import zlib
from collections.abc import Sequence

from django.contrib.auth.models import User

from finegap.api.shown import NamedResponse
from finegap.core.drawing.labels import Screen
from finegap.core.drawn import drawn
from finegap.core.entry import bare_unit
from finegap.core.errors import FieldError
from finegap.core.families import FAMILIES
from finegap.core.families.family import Family
from finegap.core.gap.map import map_of_rows
from finegap.core.gap.table import overlaps
from finegap.core.quantities import unit_names
from finegap.core.sheet import PartlySheet
from finegap.core.typed_sheet.asks import Ask, Grid, Section
from finegap.core.typed_sheet.draft import Typed, sizes_of
from finegap.core.typed_sheet.pasted import Pasted
from finegap.core.typed_sheet.printed import changes_between
from finegap.core.units import Dimension
from finegap.formats.sheet_file import Problem
from finegap.sheets import draft_responses as responses
from finegap.sheets import drafts, reading
from finegap.sheets.drafting import read_draft
from finegap.sheets.drawn import DrawingResponse
from finegap.sheets.models import ManualPage, SheetDraft, SheetRevision
from finegap.sheets.presenters import drawing_response, map_response, nothing_drawn

_MOST_PROBLEMS = 300
_SAYBOLT = ("SSU", "SSF")


def families() -> list[responses.FamilyResponse]:
    """The families there are."""
    return [responses.FamilyResponse(family.key, family.name) for family in FAMILIES.values()]


def draft_of(pk: int) -> SheetDraft | None:
    """A draft; ``None`` where it was kept or dropped."""
    return SheetDraft.objects.filter(pk=pk).select_related("base__sheet", "by").first()


def draft_lines(rows: Sequence[SheetDraft]) -> list[responses.DraftLine]:
    """Drafts as a list says them."""
    return [
        responses.DraftLine(
            row.pk,
            row.title,
            FAMILIES[row.content["family"]].name if row.content["family"] in FAMILIES else row.content["family"],
            row.purpose,
            str(row.base or ""),
            _name(row.by),
            row.saved_at,
        )
        for row in rows
    ]


def draft_page(draft: SheetDraft) -> responses.DraftPage:
    """A draft whole."""
    typed = drafts.typed_in(draft)
    sections = drafts.form_of_draft(typed)
    return responses.DraftPage(
        state=_state(draft, typed, sections),
        purpose=draft.purpose,
        family=drafts.family_named(typed.family).name,
        system=typed.system.value,
        mark=typed.mark.value,
        base=draft.base.revision if draft.base else "",
        base_slug=draft.base.sheet.slug if draft.base else "",
        begun_by=_name(draft.by),
        sections=[_section(one, typed) for one in sections],
        fields=typed.fields,
        grids=[responses.TableTyped(path, rows) for path, rows in typed.grids.items()],
        units=typed.units,
        kept=[name for name in typed.rest if name not in ("format", "version", "family", "slug")],
        pages=[_page(one) for one in draft.pages.all()],
    )


def draft_state(draft: SheetDraft) -> responses.DraftState:
    """Where a draft stands."""
    typed = drafts.typed_in(draft)
    return _state(draft, typed, drafts.form_of_draft(typed))


def _state(draft: SheetDraft, typed: Typed, sections: Sequence[Section]) -> responses.DraftState:
    _, problems, partly = read_draft(typed)
    return responses.DraftState(
        id=draft.pk,
        version=draft.version,
        title=draft.title,
        saved_at=draft.saved_at,
        form=f"{zlib.crc32(repr(sections).encode()):08x}",
        problems=[_problem(one) for one in problems[:_MOST_PROBLEMS]],
        remarks=[responses.RemarkResponse(path, text) for path, text in partly.remarks],
        overlaps=list(overlaps(partly.rows)),
        map=map_response(map_of_rows(partly.readable)) if partly.readable else None,
        sizes=list(sizes_of(typed)),
    )


def _problem(one: Problem) -> responses.ProblemResponse:
    return responses.ProblemResponse(one.path, one.problem, one.hint, one.missing)


def _section(one: Section, typed: Typed) -> responses.SectionResponse:
    return responses.SectionResponse(
        one.key,
        one.title,
        one.hint,
        one.required,
        [_ask(ask, typed) for ask in one.asks],
        [_grid(grid, typed) for grid in one.grids],
    )


def _grid(grid: Grid, typed: Typed) -> responses.GridResponse:
    return responses.GridResponse(
        grid.path,
        grid.label,
        grid.hint,
        grid.required,
        grid.most,
        [_ask(column, typed) for column in grid.columns],
        [responses.RowNameResponse(row.key, row.number, row.name) for row in grid.names],
    )


def _ask(ask: Ask, typed: Typed) -> responses.AskResponse:
    units = list(unit_names(ask.dimension)) if ask.dimension else []
    if ask.dimension is Dimension.VISCOSITY:
        units += _SAYBOLT
    return responses.AskResponse(
        ask.path,
        ask.label,
        ask.kind.value,
        ask.many.value,
        ask.hint,
        ask.required,
        bare_unit(ask.dimension, typed.system) if ask.dimension else "",
        units,
        [NamedResponse(key, name) for key, name in ask.choices.items()],
    )


def _page(one: ManualPage) -> responses.PageResponse:
    return responses.PageResponse(str(one.pk), one.name, one.kind)


def draft_drawing(draft: SheetDraft, screen: Screen) -> DrawingResponse:
    """The pump as far as its sheet is typed; nothing where it cannot be drawn."""
    typed = drafts.typed_in(draft)
    _, _, partly = read_draft(typed)
    try:
        return drawing_response(drawn(_built(partly, typed), partly, typed.system, screen), screen)
    except FieldError:
        return nothing_drawn(screen)


def _built(partly: PartlySheet, typed: Typed) -> Family:
    means = typed.fields.get("adjustment.means", "")
    build = {**partly.build, **({"means": means} if means else {})}
    return partly.family.built(partly.family.complete({key: choice for key, choice in build.items() if choice}))


def pasted_rows(pasted: Pasted) -> responses.PastedResponse:
    """Where the cells of a pasted table go."""
    return responses.PastedResponse(
        [responses.PastedRowResponse(str(one.row), one.cells) for one in pasted.rows], dict(pasted.units)
    )


def reading_page(kept: SheetRevision, person: User) -> responses.ReadingPage:
    """A revision line by line, with who read what."""
    lines = drafts.lines_of(kept)
    rows = reading.standing(kept, lines)
    alone = reading.is_alone(person)
    return responses.ReadingPage(
        slug=kept.sheet.slug,
        title=kept.sheet.title,
        revision=kept.revision,
        read_at=kept.read_at,
        read_names=kept.read_names,
        read_alone=kept.read_alone,
        lines=[
            responses.LineResponse(
                line.path,
                line.section,
                line.label,
                line.number,
                line.page,
                [responses.CellResponse(name, text) for name, text in line.cells],
                drafts.said_of(line),
                "" if kept.may_be_signed_on else reading.why_not(kept, line, person, alone),
                rows[line.path].agrees if line.path in rows else None,
                rows[line.path].note if line.path in rows else "",
                _name(rows[line.path].by) if line.path in rows else "",
                rows[line.path].at if line.path in rows else None,
            )
            for line in lines
        ],
        pages=[_page(one) for one in kept.pages.all()],
    )


def comparison(before: SheetRevision, after: SheetRevision) -> responses.ComparisonResponse:
    """What two revisions print otherwise."""
    old, new = drafts.lines_of(before), drafts.lines_of(after)
    changes = changes_between(old, new)
    return responses.ComparisonResponse(
        after.sheet.title,
        before.revision,
        after.revision,
        len(new) - sum(bool(one.after) for one in changes),
        [
            responses.ChangeResponse(one.line.path, one.line.section, one.line.label, one.line.number, one.before, one.after)
            for one in changes
        ],
    )


def page_of_manual(pk: str) -> ManualPage | None:
    """A page of a manual."""
    return ManualPage.objects.filter(pk=pk).first()


def _name(person: User) -> str:
    return person.get_full_name() or person.username
