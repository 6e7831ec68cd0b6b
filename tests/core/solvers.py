"""A general-purpose exact solver (OR-tools CP-SAT) and brute force, for the shims of two shafts and a pair of gaskets."""

import itertools

from ortools.sat.python import cp_model

from finegap.core.gap.gasket_pair import MOST_AN_END


def shims_by_solver(stock, rotors, wanted):
    """Fewest shims, then least error of both rotors together: (pieces, error), or ``None``."""
    model = cp_model.CpModel()
    counts = [{t: model.new_int_var(0, n, f"{i}-{t}") for t, n in stock.items()} for i in range(2)]
    for t, n in stock.items():
        model.add(counts[0][t] + counts[1][t] <= n)
    after, errors = [], []
    for i, (rotor, own) in enumerate(zip(rotors, counts, strict=True)):
        forward = sum(t * v for t, v in own.items()) - sum(rotor.stack)
        pair = (rotor.front_um - forward, rotor.back_um + forward)
        after.append(pair)
        for side, (value, (low, target, high)) in enumerate(zip(pair, (wanted.front_um, wanted.back_um), strict=True)):
            model.add(value >= low)
            model.add(value <= high)
            error = model.new_int_var(0, high - low, f"e{i}{side}")
            model.add(error >= value - target)
            model.add(error >= target - value)
            errors.append(error)
    for one, other in zip(*after, strict=True):
        model.add(one - other <= wanted.difference_um)
        model.add(other - one <= wanted.difference_um)
    pieces = sum(v for own in counts for v in own.values())
    most = 1 + sum(2 * (high - low) for low, _, high in (wanted.front_um, wanted.back_um))
    model.minimize(pieces * most + sum(errors))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    if solver.solve(model) not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    return solver.value(pieces), sum(solver.value(e) for e in errors)


def shims_by_trying(stock, rotors, wanted):
    """The same by trying every way to deal the stock."""
    best = None
    ways = [[(a, b) for a in range(n + 1) for b in range(n + 1 - a)] for n in stock.values()]
    for dealt in itertools.product(*ways):
        totals = [sum(t * way[i] for t, way in zip(stock, dealt, strict=True)) for i in range(2)]
        after = [rotor.moved(total) for rotor, total in zip(rotors, totals, strict=True)]
        inside = all(
            low <= value <= high
            for pair in after
            for value, (low, _, high) in zip(pair, (wanted.front_um, wanted.back_um), strict=True)
        )
        if inside and all(abs(a - b) <= wanted.difference_um for a, b in zip(*after, strict=True)):
            error = sum(abs(f - wanted.front_um[1]) + abs(b - wanted.back_um[1]) for f, b in after)
            found = (sum(a + b for a, b in dealt), error)
            best = found if best is None else min(best, found)
    return best


def pair_by_solver(stock, gears, wanted):
    """A gasket pair: (unevenness, pieces, error), in this order the least, or ``None``."""
    model = cp_model.CpModel()
    counts = [{t: model.new_int_var(0, min(n, MOST_AN_END), f"{i}-{t}") for t, n in stock.items()} for i in range(2)]
    for t, n in stock.items():
        model.add(counts[0][t] + counts[1][t] <= n)
    for own in counts:
        model.add(sum(own.values()) >= 1)
        model.add(sum(own.values()) <= MOST_AN_END)
    front, back = (sum(t * v for t, v in own.items()) for own in counts)
    most = 4 * sum(t * n for t, n in stock.items()) + 10_000
    uneven, error = (model.new_int_var(0, most, name) for name in ("uneven", "error"))
    for gear in gears:
        model.add(gear.bare_um + front + back >= wanted.low_um)
        model.add(gear.bare_um + front + back <= wanted.high_um)
        for sign in (1, -1):
            model.add(uneven >= sign * (gear.ahead_um + front - back))
            model.add(error >= sign * (gear.bare_um + front + back - wanted.target_um))
    pieces = sum(v for own in counts for v in own.values())
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    found = []
    for aim in (uneven, pieces, error):
        model.minimize(aim)
        if solver.solve(model) != cp_model.OPTIMAL:
            return None
        found.append(solver.value(aim))
        model.add(aim == found[-1])
    return tuple(found)


def pair_by_trying(stock, gears, wanted):
    """The same by trying every way to deal the stock."""
    best = None
    ways = [[(a, b) for a in range(n + 1) for b in range(n + 1 - a)] for n in stock.values()]
    for dealt in itertools.product(*ways):
        pieces = [sum(way[i] for way in dealt) for i in range(2)]
        front, back = (sum(t * way[i] for t, way in zip(stock, dealt, strict=True)) for i in range(2))
        gaps = [gear.bare_um + front + back for gear in gears]
        if not all(1 <= n <= MOST_AN_END for n in pieces) or not all(wanted.low_um <= gap <= wanted.high_um for gap in gaps):
            continue
        uneven = max(abs(gear.ahead_um + front - back) for gear in gears)
        found = (uneven, sum(pieces), max(abs(gap - wanted.target_um) for gap in gaps))
        best = found if best is None else min(best, found)
    return best
