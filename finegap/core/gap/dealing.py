"""One stock dealt to two stacks at once."""

from __future__ import annotations

from finegap.core.gap.stock import Layers, Stack, ordered


class Deal:
    """Divides one stock between two stacks, thickness by thickness. What was found impossible is remembered."""

    def __init__(self, layers: Layers, pieces: list[tuple[int, int]]) -> None:
        self._layers, self._pieces = layers, pieces
        self._impossible: set[tuple[int, int, int, int, int]] = set()

    def out(self, one: tuple[int, int], other: tuple[int, int]) -> tuple[Stack, Stack] | None:
        """Two stacks with so many pieces and so much thickness each (count, total), or ``None`` where the stock has none such."""
        dealt = self._from(len(self._pieces), *one, *other)
        return None if dealt is None else (ordered(dealt[0]), ordered(dealt[1]))

    def _can(self, i: int, count: int, total: int) -> bool:
        layer = self._layers[i]
        return 0 <= count < len(layer) and total >= 0 and bool(layer[count] >> total & 1)

    def _from(self, i: int, n1: int, s1: int, n2: int, s2: int) -> tuple[list[int], list[int]] | None:
        state = (i, n1, s1, n2, s2)
        if state in self._impossible:
            return None
        if not (self._can(i, n1, s1) and self._can(i, n2, s2) and self._can(i, n1 + n2, s1 + s2)):
            return None
        if i == 0:
            return [], []
        thickness, count = self._pieces[i - 1]
        for a in range(min(count, n1) + 1):
            for b in range(min(count - a, n2) + 1):
                rest = self._from(i - 1, n1 - a, s1 - a * thickness, n2 - b, s2 - b * thickness)
                if rest is not None:
                    return rest[0] + [thickness] * a, rest[1] + [thickness] * b
        self._impossible.add(state)
        return None
