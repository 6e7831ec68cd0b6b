"""Typing a sheet: begun, saved as it is typed, filled from tables, and kept as a revision."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from functools import partial
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone
from django.utils.text import slugify

from finegap.api.errors import Conflict, Refused
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.sheet import SpecSheet, read_sheet
from finegap.core.typed_sheet.asks import SIZE, Grid
from finegap.core.typed_sheet.cells import LONGEST
from finegap.core.typed_sheet.draft import Content, Row, Typed, content_of, sizes_of
from finegap.core.typed_sheet.pasted import Pasted, read_lines, read_pasted
from finegap.formats.sheet_file import FORMAT, VERSION, Problem, problems_of
from finegap.formats.tables import read_cells
from finegap.sheets import drafts
from finegap.sheets.changes import PURPOSES, BeginDraft, DraftSeen, SaveDraft
from finegap.sheets.models import LineRead, ManualPage, Sheet, SheetDraft, SheetRevision
from finegap.sheets.reading import finish_if_read
from finegap.sheets.services import check_counts, usual_now

_MOST_DRAFTS = 200
_MOST_FIELDS = 3000
_OTHER_SIZE = ("model", "title", "revision", "date")
_OTHER_REVISION = ("revision", "date")
_IN_PLACE = ("unread", "correction")


def begin(actor: User, new: BeginDraft, entry: Entry) -> SheetDraft:
    """Begin to type a sheet: from nothing, or from a revision that is there.

    Raises
    ------
    FieldError
        No such family, revision or purpose; a revision that is read cannot be put right in place; too many drafts.
    """
    if new.purpose not in PURPOSES:
        raise FieldError("purpose", f"“{new.purpose}” is none.", f"Expected one of: {', '.join(PURPOSES)}.")
    with transaction.atomic():
        if SheetDraft.objects.count() >= _MOST_DRAFTS:
            raise FieldError("draft", f"{_MOST_DRAFTS} sheets are being typed.", "Expected some of them kept or dropped first.")
        if new.purpose == "new":
            family = drafts.family_named(new.family)
            typed = Typed(family.key, entry.units.system, entry.mark)
            typed.rest = {"format": FORMAT, "version": VERSION, "family": family.key}
            return _begun(actor, typed, new.purpose)
        base = SheetRevision.objects.filter(sheet__slug=new.sheet, revision=new.revision).select_related("sheet").first()
        if base is None:
            raise FieldError("revision", "there is no such revision.", "Expected one from Sheets.")
        if (new.purpose == "unread") == base.may_be_signed_on:
            problem = "it was read against the manual." if base.may_be_signed_on else "nobody has read it yet."
            raise FieldError("purpose", problem, "Expected a correction of what was read, and a change of what was not.")
        # The same change is gone on with; a next size, or a later revision, is another sheet each time.
        again = SheetDraft.objects.filter(base=base, purpose=new.purpose).first() if new.purpose in _IN_PLACE else None
        return again or _begun(actor, _from(base, new.purpose), new.purpose, base)


def _begun(actor: User, typed: Typed, purpose: str, base: SheetRevision | None = None) -> SheetDraft:
    now = timezone.now()
    continued = base.sheet if base and purpose != "size" else None
    made = SheetDraft(
        sheet=continued, base=base, purpose=purpose, content=drafts.held_of(typed), by=actor, begun_at=now, saved_at=now
    )
    made.title = _title(typed)
    if base and purpose in _IN_PLACE:
        made.typed = base.typed  # who typed what is not changed goes on having typed it
    made.save()
    return made


def _from(base: SheetRevision, purpose: str) -> Typed:
    typed = drafts.typed_again(base)
    emptied = {"size": _OTHER_SIZE, "revision": _OTHER_REVISION}.get(purpose, ())
    for name in emptied:
        typed.fields.pop(name, None)
    if purpose == "size":
        typed.rest.pop("slug", None)
    if purpose == "correction":
        typed.fields["revision"] = f"{base.revision}.1"[:20]
    return typed


def _title(typed: Typed) -> str:
    said = typed.fields.get("title", "").strip()
    return (said or f"{typed.fields.get('maker', '').strip()} {typed.fields.get('model', '').strip()}".strip())[:120]


def save(actor: User, pk: int, new: SaveDraft) -> SheetDraft:
    """Keep what was typed. Nothing of it is refused for what it says: that is told beside it.

    Raises
    ------
    FieldError
        No such draft, no such table, more than fits.
    Conflict
        Somebody else typed in it since ``version``.
    """
    with transaction.atomic():
        draft = _draft_seen(pk, new)
        typed = drafts.typed_in(draft)
        _check_size(new, typed)
        stamp = {"by": [actor.pk], "at": timezone.now().isoformat()}
        for path, text in new.fields.items():
            if typed.fields.get(path, "") != text:
                draft.typed[path] = stamp
                typed.fields[path] = text
                if not text:
                    del typed.fields[path]
        for table in new.grids:
            rows = [{name: text for name, text in row.cells.items() if text} for row in table.rows]
            _stamp_rows(draft, table.table, typed.grids.get(table.table, []), rows, stamp)
            typed.grids[table.table] = rows
        for column, unit in new.units.items():
            if typed.units.get(column, "") != unit:
                # The numbers stay those of who typed them; what they say is now of both.
                for place in _column(typed, column):
                    draft.typed[place] = _with(_typed_at(draft, place), stamp)
                typed.units[column] = unit
                if not unit:
                    del typed.units[column]
        draft.content, draft.title = drafts.held_of(typed), _title(typed)
        draft.version += 1
        draft.saved_at = timezone.now()
        draft.save()
        return draft


def _check_size(new: SaveDraft, typed: Typed) -> None:
    if len(typed.fields.keys() | new.fields.keys()) > _MOST_FIELDS:
        raise FieldError("fields", "there are more than a sheet has.", f"Expected up to {_MOST_FIELDS}.")
    for path, text in (*new.fields.items(), *((column, unit) for column, unit in new.units.items())):
        if len(path) > 120 or len(text) > LONGEST:
            raise FieldError(path[:120], "it is too long.", f"Expected up to {LONGEST} letters.")
    tables = {grid.path: grid for section in drafts.form_of_draft(typed) for grid in section.grids if not grid.names}
    for table in new.grids:
        grid = tables.get(table.table)
        if grid is None:
            raise FieldError("table", f"this sheet has no table {table.table[:60]}.", "Expected one of the page.")
        if len(table.rows) > grid.most:
            raise FieldError(grid.path, f"{len(table.rows)} rows are more than it can have.", f"Expected up to {grid.most}.")
        known = {column.path for column in grid.columns}
        for row in table.rows:
            if row.cells.keys() - known:
                raise FieldError(grid.path, "a row has a column the table has not.", f"Expected: {', '.join(sorted(known))}.")


def _stamp_rows(draft: SheetDraft, table: str, before: list[Row], after: list[Row], stamp: dict[str, Any]) -> None:
    """Who typed a row goes with it when others are put in before it; of one that changed, both who did."""
    was = [(row, _typed_at(draft, f"{table}[{i}]")) for i, row in enumerate(before)]
    for path in [path for path in draft.typed if path.startswith(f"{table}[")]:
        del draft.typed[path]
    for i, row in enumerate(after):
        same = next((typed for old, typed in was if old == row), None)
        draft.typed[f"{table}[{i}]"] = same or _with(was[i][1] if i < len(was) else stamp, stamp)


def _typed_at(draft: SheetDraft, place: str) -> dict[str, Any]:
    """Who typed what stands at a place, and when: whoever began it, where nobody did since."""
    begun = {"by": [draft.by_id], "at": draft.begun_at.isoformat()}
    return dict(draft.typed.get(place) or draft.typed.get("") or begun)


def _with(typed: dict[str, Any], stamp: dict[str, Any]) -> dict[str, Any]:
    return {"by": sorted({*typed["by"], *stamp["by"]}), "at": stamp["at"]}


def _column(typed: Typed, column: str) -> list[str]:
    """The places a unit over a column bears on."""
    table, _, name = column.rpartition(".")
    rows = [f"{path}[{i}]" for path, those in typed.grids.items() if path == table for i in range(len(those))]
    return rows + [path for path in typed.fields if path.startswith(f"{table}.") and path.endswith(f".{name}")]


def paste(pk: int, table: str, text: str, column: str) -> Pasted:
    """Where each cell of a pasted table goes; nothing is kept by it.

    Raises
    ------
    FieldError
        No such draft or table, or what the table refuses.
    """
    return read_pasted(text, _grid(pk, table), column)


def from_file(pk: int, table: str, data: bytes) -> Pasted:
    """The same of a table in a CSV or XLSX file."""
    draft, grid = _draft(pk), _grid(pk, table)
    return read_lines(read_cells(data, grid.most + 1, drafts.typed_in(draft).mark), grid)


def _grid(pk: int, table: str) -> Grid:
    return drafts.grid_of(drafts.form_of_draft(drafts.typed_in(_draft(pk))), table)


def read_draft(typed: Typed) -> tuple[Content, list[Problem], Any]:
    """The file a draft makes so far, everything that is wrong with it, and the sheet as far as it can be read."""
    content, wrong = content_of(typed, drafts.form_of_draft(typed))
    if content.get("maker") and content.get("model"):
        content.setdefault("title", f"{content['maker']} {content['model']}"[:120])
        content.setdefault("slug", slugify(f"{content['maker']} {content['model']}")[:80])
    content.setdefault("torques", [])  # a manual may print none: the steps say so
    partly, found = problems_of(content, usual_now())
    told = {error.field for error in wrong}
    problems = [Problem(error.field, error.problem, error.hint) for error in wrong]
    problems += [one for one in found if one.path not in told and not (one.missing and _lies_in(one.path, told))]
    # The slug is made from maker and model, and is nobody's field.
    return content, [one for one in problems if one.path != "slug"], partly


def _lies_in(path: str, told: Iterable[str]) -> bool:
    """Whether what is missing is missing because something in its place could not be read."""
    return any(one.startswith(f"{path}.") or one.startswith(f"{path}[") for one in told)


def finish(actor: User, pk: int, seen: DraftSeen) -> SheetRevision:
    """Keep a draft as a revision. It may be measured with; nothing is signed on it until it is read against the manual.

    Raises
    ------
    Refused
        Something of it is wrong or missing; the reasons are all of it.
    Conflict
        Somebody else typed in it since.
    FieldError
        A revision or a sheet of that name is there already.
    """
    with transaction.atomic():
        draft = _draft_seen(pk, seen)
        typed = drafts.typed_in(draft)
        others = sizes_of(typed)
        if others:
            raise Refused("Its tables have rows for other sizes.", [f"Make drafts of {', '.join(others)[:200]} first."])
        content, problems, _ = read_draft(typed)
        if problems:
            raise Refused("The sheet is not whole yet.", [f"{one.path}: {one.problem} {one.hint}" for one in problems[:50]])
        sheet = read_sheet(content)
        check_counts(sheet)
        kept = _kept(actor, draft, content, sheet)
        draft.pages.update(draft=None, revision=kept)
        SheetDraft.objects.filter(base=kept, purpose="unread").exclude(pk=draft.pk).delete()
        draft.delete()
        return kept


def _kept(actor: User, draft: SheetDraft, content: Content, sheet: SpecSheet) -> SheetRevision:
    base, day = draft.base, dt.date.fromisoformat(sheet.date)
    if draft.purpose == "unread" and base is not None:
        if base.may_be_signed_on:
            raise FieldError("revision", "it was read meanwhile.", "Expected a correction of it.")
        _check_free(base.sheet, sheet.revision, but=base)
        content["slug"] = base.sheet.slug
        base.typed = draft.typed
        base.content, base.revision, base.date = content, sheet.revision, day
        base.edition += 1
        base.save()
        _rename(base.sheet, sheet.title)
        finish_if_read(base, drafts.lines_of(base))
        return base
    line = draft.sheet
    if line is None:
        if Sheet.objects.filter(slug=content["slug"]).exists():
            raise FieldError("model", f"there is a sheet for {sheet.maker} {sheet.model}.", "Expected a revision of that one.")
        line = Sheet.objects.create(slug=content["slug"], title=sheet.title)
    _check_free(line, sheet.revision)
    content["slug"] = line.slug
    _rename(line, sheet.title)
    kept = SheetRevision.objects.create(
        sheet=line,
        revision=sheet.revision,
        date=day,
        content=content,
        added_by=actor,
        added_at=timezone.now(),
        typed={"": {"by": [draft.by_id], "at": draft.begun_at.isoformat()}} | draft.typed,
        corrects=base if draft.purpose == "correction" else None,
    )
    if kept.corrects:
        _carry_over(kept.corrects, kept)
    return kept


def _carry_over(base: SheetRevision, kept: SheetRevision) -> None:
    """A correction of what was read: lines that say the same were read against the same manual."""
    same = {line.path: drafts.said_of(line) for line in drafts.lines_of(kept)}
    before = base.lines_read.filter(agrees=True)
    LineRead.objects.bulk_create(
        LineRead(revision=kept, path=one.path, said=one.said, agrees=True, by_id=one.by_id, at=one.at)
        for one in before
        if same.get(one.path) == one.said
    )


def _check_free(line: Sheet, revision: str, but: SheetRevision | None = None) -> None:
    there = line.revisions.filter(revision=revision)
    if (there.exclude(pk=but.pk) if but else there).exists():
        raise FieldError("revision", f"revision {revision} is there already.", "Expected a new revision for a changed sheet.")


def _rename(line: Sheet, title: str) -> None:
    if line.title != title:
        line.title = title
        line.save(update_fields=["title"])


def apart(actor: User, pk: int, seen: DraftSeen) -> list[SheetDraft]:
    """A draft of its own for every other size a table has rows for: what holds for all of them, and those rows. No sizes of parts.

    Raises
    ------
    Conflict
        Somebody else typed in it since.
    FieldError
        No such draft, no row of another size, or more sizes than drafts there can be.
    """
    with transaction.atomic():
        draft = _draft_seen(pk, seen)
        typed = drafts.typed_in(draft)
        sizes = sizes_of(typed)
        if not sizes:
            raise FieldError("size", "its tables have no row of another size.", "Expected the size in its column.")
        if SheetDraft.objects.count() + len(sizes) > _MOST_DRAFTS:
            problem = f"{len(sizes)} more would be {SheetDraft.objects.count() + len(sizes)} sheets that are being typed."
            raise FieldError("size", problem, f"Expected up to {_MOST_DRAFTS}: keep or drop some first.")
        made = [_begun(actor, _of_size(typed, size), "new") for size in sizes]
        everybody = {"by": sorted({by for one in draft.typed.values() for by in one["by"]} | {draft.by_id})}
        stamp = everybody | {"at": timezone.now().isoformat()}
        for one in made:
            one.typed = {"": stamp}
            one.save(update_fields=["typed"])
        mine = typed.fields.get("model", "").strip().casefold()
        for path, rows in typed.grids.items():
            typed.grids[path] = [row for row in rows if row.get(SIZE, "").strip().casefold() in ("", mine)]
            _stamp_rows(draft, path, rows, typed.grids[path], stamp)
        draft.content = drafts.held_of(typed)
        draft.version += 1
        draft.save(update_fields=["content", "typed", "version"])
        return made


def _of_size(typed: Typed, size: str) -> Typed:
    kept = ("maker", "source", "revision", "date", "adjustment.means", "clearance_table.page")
    fields = {path: text for path, text in typed.fields.items() if path in kept or path.startswith("build.")}
    grids = {
        path: mine
        for path, rows in typed.grids.items()
        if (mine := [row for row in rows if row.get(SIZE, "").strip().casefold() in ("", size.casefold())])
        and any(row.get(SIZE) for row in rows)
    }
    units = {column: unit for column, unit in typed.units.items() if column.rpartition(".")[0] in grids}
    rest = {name: typed.rest[name] for name in ("format", "version", "family")}
    return Typed(typed.family, typed.system, typed.mark, {**fields, "model": size}, grids, units, rest)


def drop(pk: int) -> None:
    """Throw a draft away.

    Raises
    ------
    FieldError
        There is none.
    """
    with transaction.atomic():
        draft = _draft(pk)
        files = [page.file for page in draft.pages.all()]
        draft.delete()
        for file in files:
            transaction.on_commit(partial(file.delete, save=False))


def _draft(pk: int) -> SheetDraft:
    draft = SheetDraft.objects.filter(pk=pk).select_related("sheet", "base").first()
    if draft is None:
        raise FieldError("draft", "it is not there any more.", "Expected one from Sheets.")
    return draft


def _draft_seen(pk: int, seen: SaveDraft | DraftSeen) -> SheetDraft:
    draft = _draft(pk)
    if draft.version != seen.version:
        raise Conflict([f"{draft.title or 'This sheet'} was typed in by somebody else."])
    return draft


def pages_of(draft: SheetDraft | None, revision: SheetRevision | None) -> list[ManualPage]:
    """The pages beside a draft, or with a revision."""
    of = draft or revision
    return list(of.pages.all()) if of else []
