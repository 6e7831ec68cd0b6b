"""The cheapest cover of all that must change, by kits and singles. Exact: every way of buying is weighed or shown to be dearer."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache

from finegap.core.errors import FieldError
from finegap.core.showing import Sentence
from finegap.core.working import Given, Working


@dataclass(frozen=True)
class Part:
    """A part as the maker sells it. ``renews`` are the features it makes new; ``always`` when it is never used twice."""

    number: str
    name: str
    price_cents: int | None
    lead_days: int
    count: int = 1
    renews: tuple[str, ...] = ()
    always: bool = False


@dataclass(frozen=True)
class Kit:
    """Parts sold together: how many of each number."""

    number: str
    name: str
    price_cents: int
    lead_days: int
    contents: Mapping[str, int]


@dataclass(frozen=True)
class Catalogue:
    """Everything the sheet says can be bought for this pump."""

    currency: str
    parts: tuple[Part, ...] = ()
    kits: tuple[Kit, ...] = ()

    def part(self, number: str) -> Part:
        """A part by number."""
        return next(p for p in self.parts if p.number == number)

    def check(self, field: str) -> None:
        """Refuse a catalogue that contradicts itself.

        Raises
        ------
        FieldError
            A number twice, or a kit with a part that is not in the list.
        """
        numbers = [p.number for p in self.parts] + [k.number for k in self.kits]
        repeated = next((n for n in numbers if numbers.count(n) > 1), None)
        if repeated:
            raise FieldError(field, f"the number {repeated} is given twice.", "Expected each once.")
        for i, kit in enumerate(self.kits):
            unknown = next((n for n in kit.contents if n not in numbers[: len(self.parts)]), None)
            if unknown:
                raise FieldError(f"{field}.kits[{i}]", f"{unknown} is not in the list of parts.", "Expected numbers of parts.")


@dataclass(frozen=True)
class Line:
    """A line of the order."""

    number: str
    name: str
    count: int
    price_cents: int
    lead_days: int
    is_kit: bool
    reasons: tuple[str, ...]


@dataclass(frozen=True)
class Cover:
    """What to order. ``spare`` is what the kits bring beyond the need, ``missing`` what nobody sells by this catalogue."""

    lines: tuple[Line, ...]
    total_cents: int
    lead_days: int
    spare: Mapping[str, int]
    missing: tuple[str, ...]


def cover(needs: Mapping[str, int], catalogue: Catalogue, reasons: Mapping[str, str] | None = None) -> Cover:
    """The cheapest way to have at least ``needs`` (part number to count), with the fewest lines among the cheapest.

    Parameters
    ----------
    needs : mapping
        Part number to how many.
    catalogue : Catalogue
        What can be bought; a part without a price comes in kits only.
    reasons : mapping, optional
        Why each part is needed, for the order.
    """
    sold = {p.number for p in catalogue.parts if p.price_cents is not None}
    kits = [k for k in catalogue.kits if any(n in needs for n in k.contents)]
    in_kits = {n for k in kits for n in k.contents}
    missing = tuple(n for n in needs if n not in sold and n not in in_kits)
    wanted = {n: c for n, c in needs.items() if c > 0 and n not in missing}
    chosen = _cheapest(tuple(sorted(wanted.items())), kits, catalogue)
    lines = [
        Line(k.number, k.name, count, k.price_cents, k.lead_days, True, _why(k.contents, wanted, reasons))
        for k, count in zip(kits, chosen, strict=True)
        if count
    ]
    had = {n: sum(k.contents.get(n, 0) * c for k, c in zip(kits, chosen, strict=True)) for n in {*wanted, *in_kits}}
    for number, count in wanted.items():
        short = count - had.get(number, 0)
        if short > 0:
            part = catalogue.part(number)
            lines.append(
                Line(number, part.name, short, part.price_cents or 0, part.lead_days, False, _why([number], wanted, reasons))
            )
    spare = {n: h - wanted.get(n, 0) for n, h in sorted(had.items()) if h > wanted.get(n, 0)}
    total = sum(line.price_cents * line.count for line in lines)
    return Cover(tuple(lines), total, max((line.lead_days for line in lines), default=0), spare, missing)


def _why(
    numbers: Mapping[str, int] | Sequence[str], wanted: Mapping[str, int], reasons: Mapping[str, str] | None
) -> tuple[str, ...]:
    return tuple(dict.fromkeys((reasons or {}).get(n, "") for n in numbers if n in wanted and (reasons or {}).get(n)))


def _cheapest(wanted: tuple[tuple[str, int], ...], kits: Sequence[Kit], catalogue: Catalogue) -> tuple[int, ...]:
    """How many of each kit; the rest is bought singly. What is still needed decides the rest, whichever kits it came from."""
    numbers = [n for n, _ in wanted]
    single = {p.number: p.price_cents for p in catalogue.parts}
    contents = [tuple(k.contents.get(n, 0) for n in numbers) for k in kits]

    def singles(rest: tuple[int, ...]) -> tuple[int, int] | None:
        cost = lines = 0
        for number, count in zip(numbers, rest, strict=True):
            price = single[number]
            if count and price is None:
                return None
            cost, lines = cost + count * (price or 0), lines + (1 if count else 0)
        return cost, lines

    @cache
    def best(index: int, rest: tuple[int, ...]) -> tuple[int, int, tuple[int, ...]] | None:
        if index == len(kits):
            bought = singles(rest)
            return (*bought, ()) if bought else None
        found = None
        left, count = rest, 0
        while True:
            later = best(index + 1, left)
            if later is not None:
                cost = later[0] + count * kits[index].price_cents
                candidate = (cost, later[1] + (1 if count else 0), (count, *later[2]))
                found = min(found, candidate) if found else candidate
            after = tuple(max(need - has, 0) for need, has in zip(left, contents[index], strict=True))
            if after == left:
                return found
            left, count = after, count + 1

    answer = best(0, tuple(count for _, count in wanted))
    assert answer is not None, "what nobody sells was left out before"
    return answer[2]


def cover_working(needs: Mapping[str, int], bought: Cover, catalogue: Catalogue) -> Working:
    """How the order was reached."""
    singly = sum((catalogue.part(n).price_cents or 0) * c for n, c in needs.items() if n not in bought.missing)
    only_kits = [n for n in needs if n not in bought.missing and catalogue.part(n).price_cents is None]
    given = [
        Given("n", "parts needed", str(sum(needs.values()))),
        Given("A", "all singly" + (", but some come in kits only" if only_kits else ""), money(singly, catalogue.currency)),
        Given("C", "the cheapest cover", money(bought.total_cents, catalogue.currency)),
    ]
    return Working(
        title="What to order",
        formula="C = min Σ price · count, so that every part needed is there",
        given=tuple(given),
        result=money(bought.total_cents, catalogue.currency),
        source="exact search over every useful number of each kit, the rest bought singly; prices from the sheet",
        notes=(Sentence("Among covers of one price, the one with the fewest lines."),),
    )


def money(cents: int, currency: str) -> str:
    """An amount of money as it is shown."""
    return f"{cents / 100:,.2f}".replace(",", " ") + f" {currency}"
