"""The cheapest cover of all that must change, by kits and singles. Exact, not greedy."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

from finegap.core.errors import FieldError
from finegap.core.formatting import Sentence, grouped
from finegap.core.working import Given, Working


@dataclass(frozen=True)
class CataloguePart:
    """A part as the maker sells it. ``renews`` are the features it makes new; ``always`` when it is never used twice."""

    number: str
    name: str
    price_cents: int | None
    lead_days: int
    count: int = 1
    renews: tuple[str, ...] = ()
    always: bool = False


@dataclass(frozen=True, eq=False)
class Kit:
    """Parts sold together: how many of each number. A kit is itself and no other."""

    number: str
    name: str
    price_cents: int
    lead_days: int
    contents: Mapping[str, int]


@dataclass(frozen=True)
class Catalogue:
    """Everything the sheet says can be bought for this pump."""

    currency: str
    parts: tuple[CataloguePart, ...] = ()
    kits: tuple[Kit, ...] = ()

    def part(self, number: str) -> CataloguePart:
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
class OrderLine:
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

    lines: tuple[OrderLine, ...]
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
    ordered = tuple(sorted(wanted.items()))
    chosen = _cheapest(ordered, tuple(kits), tuple(catalogue.part(n).price_cents for n, _ in ordered))
    lines = [
        OrderLine(k.number, k.name, count, k.price_cents, k.lead_days, True, _why(k.contents, wanted, reasons))
        for k, count in zip(kits, chosen, strict=True)
        if count
    ]
    had = {n: sum(k.contents.get(n, 0) * c for k, c in zip(kits, chosen, strict=True)) for n in {*wanted, *in_kits}}
    for number, count in wanted.items():
        short = count - had.get(number, 0)
        if short > 0:
            part = catalogue.part(number)
            lines.append(
                OrderLine(number, part.name, short, part.price_cents or 0, part.lead_days, False, _why([number], wanted, reasons))
            )
    spare = {n: h - wanted.get(n, 0) for n, h in sorted(had.items()) if h > wanted.get(n, 0)}
    total = sum(line.price_cents * line.count for line in lines)
    return Cover(tuple(lines), total, max((line.lead_days for line in lines), default=0), spare, missing)


def _why(
    numbers: Mapping[str, int] | Sequence[str], wanted: Mapping[str, int], reasons: Mapping[str, str] | None
) -> tuple[str, ...]:
    return tuple(dict.fromkeys((reasons or {}).get(n, "") for n in numbers if n in wanted and (reasons or {}).get(n)))


@lru_cache(maxsize=256)
def _cheapest(wanted: tuple[tuple[str, int], ...], kits: tuple[Kit, ...], singles: tuple[int | None, ...]) -> tuple[int, ...]:
    """How many of each kit to buy. The rest is bought singly at ``singles``; ``None`` where a part comes in kits only.

    A whole-number programme, solved to the end (HiGHS through scipy): least money, and among those the fewest lines.
    """
    if not kits or not wanted:
        return (0,) * len(kits)
    import numpy as np
    from scipy.optimize import Bounds, LinearConstraint, milp

    parts = len(wanted)
    needs = np.array([count for _, count in wanted])
    inside = np.array([[k.contents.get(n, 0) for k in kits] for n, _ in wanted])
    most = np.array([max(-(-c // has) if has else 0 for c, has in zip(needs, column, strict=True)) for column in inside.T])
    most_singly = np.array([0 if price is None else count for (_, count), price in zip(wanted, singles, strict=True)])
    top = np.concatenate([most, most_singly])
    # a line costs less than a cent, all of them together too
    prices = [k.price_cents for k in kits] + [price or 0 for price in singles]
    costs = np.concatenate([prices, np.full(len(top), 1 / (len(top) + 1))])
    enough = np.hstack([inside, np.eye(parts), np.zeros((parts, len(top)))])
    counted = np.hstack([np.eye(len(top)), -np.diag(np.maximum(top, 1))])
    solved = milp(
        costs,
        integrality=np.ones(len(costs)),
        bounds=Bounds(0, np.concatenate([top, np.ones(len(top))])),
        constraints=[LinearConstraint(enough, needs, np.inf), LinearConstraint(counted, -np.inf, 0)],
        options={"mip_rel_gap": 0},
    )
    assert solved.success, "what nobody sells was left out before"
    return tuple(round(count) for count in solved.x[: len(kits)])


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
        source="whole-number programme solved to the end (HiGHS); prices from the sheet",
        notes=(Sentence("Among covers of one price, the one with the fewest lines."),),
    )


def money(cents: int, currency: str) -> str:
    """An amount of money as it is shown."""
    return f"{grouped(cents / 100, 2)} {currency}"
