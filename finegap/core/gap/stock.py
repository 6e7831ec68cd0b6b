"""Pieces of known thickness from stock: which sums they can make, exactly, and how a pile of them is said.

Reachable sums are kept as bit sets, one for each number of pieces, so that the work grows with the number of pieces and not with
their combinations. Few pieces are tried first: a stack of many is rare.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Kind, Sentence, length

Stack = tuple[int, ...]
"""Thicknesses as compressed, in micrometres, thickest first."""

Layers = list[list[int]]
"""``layers[i][k]``: bit set of the sums that k pieces of the first i thicknesses can make."""


_THIN_UM = 100


def describe(stack: Stack) -> Sentence:
    """A stack in words: ``2 × 0.25 mm + 0.10 mm``."""
    return stock_text(Counter(stack))


def stock_text(available: Mapping[int, int]) -> Sentence:
    """Thicknesses with their counts, in words."""
    amounts: dict[str, Amount | Sentence | str] = {}
    parts = []
    for i, (thickness, count) in enumerate(sorted(((t, n) for t, n in available.items() if n), reverse=True)):
        amounts[f"t{i}"] = piece(thickness)
        parts.append(f"{count} × {{t{i}}}" if count > 1 else f"{{t{i}}}")
    return Sentence(" + ".join(parts) or "nothing", amounts)


def piece(thickness_um: int) -> Amount:
    """A gasket's thickness as it is shown: finer where it is no whole number of hundredths, and in inches where it is thin, so that
    0.04 and 0.06 mm are told apart."""
    thin = thickness_um < _THIN_UM and thickness_um % 10 == 0
    return Amount(thickness_um / 1000, Kind.THIN) if thin else length(thickness_um / 1000, fine=thickness_um % 10 != 0)


def check_stock(stock: Mapping[int, int]) -> None:
    """Refuse a stock that cannot be."""
    for thickness, count in stock.items():
        if thickness <= 0:
            raise FieldError("stock", f"a thickness of {thickness} µm cannot be.", "Expected a thickness above zero.")
        if count < 0:
            raise FieldError("stock", f"a count of {count} cannot be.", "Expected zero or more.")


THICKEST_UM, MOST_IN_STACK, _MOST_THICKNESSES = 50_000, 60, 60
"""No stack of gaskets or shims is thicker, or of more pieces, and none is chosen from more thicknesses: these bound the work."""


def refuse_too_much(pieces: Mapping[int, int], *wanted_um: int) -> None:
    """Refuse what no pump has before any work is done; for what was typed.

    Raises
    ------
    FieldError
        A stack thicker than any, or more thicknesses than any maker sells.
    """
    for wanted in wanted_um:
        if wanted > THICKEST_UM:
            raise FieldError("stack", f"{wanted / 1000:g} mm of it cannot be.", f"Expected up to {THICKEST_UM / 1000:g} mm.")
    if len(pieces) > _MOST_THICKNESSES:
        raise FieldError("stock", f"{len(pieces)} thicknesses are too many.", f"Expected up to {_MOST_THICKNESSES}.")


def any_number(pieces: Mapping[int, int], most_um: int) -> int:
    """Bit set of the sums the pieces can make, whatever their number, up to ``most_um``: one pass, to see early what cannot be."""
    most_um = min(max(most_um, 0), THICKEST_UM)
    mask, sums = (1 << most_um + 1) - 1, 1
    for thickness, count in pieces.items():
        left, bundle = min(count, most_um // thickness), 1
        while left:
            bundle = min(bundle, left)
            sums |= sums << bundle * thickness & mask
            left, bundle = left - bundle, 2 * bundle
    return sums


def growing(pieces: Mapping[int, int], most_um: int, stacks: int = 1) -> Iterator[tuple[range, Layers]]:
    """Reachable sums of ever more pieces, each with the numbers of pieces that are new in it: few pieces most often do.

    The last is whole: as many pieces as ``stacks`` stacks together can have.
    """
    most_um = min(most_um, THICKEST_UM, sum(t * n for t, n in pieces.items()))
    fit = sum(min(n, most_um // t) for t, n in pieces.items())
    whole, done, limit = min(stacks * MOST_IN_STACK, fit), 0, 4
    while done <= whole:
        limit = min(limit, whole)
        yield range(done, limit + 1), reachable(pieces, most_um, limit)
        done, limit = limit + 1, 2 * limit + 1


def reachable(pieces: Mapping[int, int], most_um: int, limit: int) -> Layers:
    """``layers[i][k]`` for k up to ``limit``, no sum above ``most_um``.

    Pieces of a thickness are added in bundles of 1, 2, 4 and so on, so that their number costs its logarithm.
    """
    mask = (1 << (most_um + 1)) - 1
    layers = [[1] + [0] * limit]
    for thickness, count in pieces.items():
        left = min(count, most_um // thickness, limit)
        sums = list(layers[-1])
        bundle = 1
        while left:
            bundle = min(bundle, left)
            shift = bundle * thickness
            for k in range(limit, bundle - 1, -1):
                if sums[k - bundle]:
                    sums[k] |= (sums[k - bundle] << shift) & mask
            left, bundle = left - bundle, 2 * bundle
        layers.append(sums)
    return layers


def trace(layers: Layers, pieces: Mapping[int, int], count: int, total: int) -> Stack:
    """Walk back through the layers to the pieces that make ``total`` with ``count`` of them."""
    out: list[int] = []
    for i, thickness in reversed(list(enumerate(pieces))):
        before = layers[i]
        used = next(
            u
            for u in range(pieces[thickness] + 1)
            if 0 <= count - u < len(before) and total >= u * thickness and before[count - u] >> (total - u * thickness) & 1
        )
        out += [thickness] * used
        count, total = count - used, total - used * thickness
    return ordered(out)


def bits(number: int, start: int = 0) -> list[int]:
    """Places of the ones of a bit set, counted from ``start``."""
    out = []
    while number:
        lowest = number & -number
        out.append(start + lowest.bit_length() - 1)
        number ^= lowest
    return out


def lowest_bit(number: int) -> int:
    """Place of the lowest one."""
    return (number & -number).bit_length() - 1


def ordered(pieces: Iterable[int]) -> Stack:
    """A stack, thickest first."""
    return tuple(sorted(pieces, reverse=True))
