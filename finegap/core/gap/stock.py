"""Pieces of known thickness from stock: which sums they can make, exactly, and how a pile of them is said.

Reachable sums are kept as bit sets, one for each number of pieces, so that the work grows with the number of pieces and not with
their combinations.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Sentence, length

Stack = tuple[int, ...]
"""Thicknesses as compressed, in micrometres, thickest first."""

Layers = list[list[int]]
"""``layers[i][k]``: bit set of the sums that k pieces of the first i thicknesses can make."""


def describe(stack: Stack) -> Sentence:
    """A stack in words: ``2 × 0.25 mm + 0.10 mm``."""
    amounts: dict[str, Amount | Sentence | str] = {}
    parts = []
    for i, (thickness, count) in enumerate(sorted(Counter(stack).items(), reverse=True)):
        amounts[f"t{i}"] = piece(thickness)
        parts.append(f"{count} × {{t{i}}}" if count > 1 else f"{{t{i}}}")
    return Sentence(" + ".join(parts) or "nothing", amounts)


def piece(thickness_um: int) -> Amount:
    """A gasket's thickness as it is shown: finer where it is no whole number of hundredths."""
    return length(thickness_um / 1000, fine=thickness_um % 10 != 0)


def stock_text(available: Mapping[int, int]) -> Sentence:
    """All that is in stock, in words."""
    return describe(ordered(Counter(available).elements()))


def check_stock(stock: Mapping[int, int]) -> None:
    """Refuse a stock that cannot be."""
    for thickness, count in stock.items():
        if thickness <= 0:
            raise FieldError("stock", f"a thickness of {thickness} µm cannot be.", "Expected a thickness above zero.")
        if count < 0:
            raise FieldError("stock", f"a count of {count} cannot be.", "Expected zero or more.")


_THICKEST_UM, _MOST_PIECES = 50_000, 2_000
"""No stack of gaskets or shims is thicker, and none is tried of more pieces: the work grows with their square."""


def reachable(pieces: Mapping[int, int], most: int) -> Layers:
    """layers[i][k]: bit set of sums that k pieces of the first i thicknesses can make, none above ``most``."""
    if most > _THICKEST_UM:
        raise FieldError("stack", f"{most / 1000:g} mm of it cannot be.", f"Expected up to {_THICKEST_UM / 1000:g} mm.")
    tried = sum(min(count, most // thickness) for thickness, count in pieces.items())
    if tried > _MOST_PIECES:
        raise FieldError("stock", f"{tried} pieces are too many to try.", f"Expected up to {_MOST_PIECES} that could be in it.")
    mask = (1 << (most + 1)) - 1
    layers = [[1]]
    for thickness, count in pieces.items():
        count = min(count, most // thickness)
        before = layers[-1]
        after = before + [0] * count
        for used in range(1, count + 1):
            shift = used * thickness
            for k, sums in enumerate(before):
                after[k + used] |= (sums << shift) & mask
        layers.append(after)
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
