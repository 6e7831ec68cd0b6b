"""Settings of a means for tests: one call a means, with nothing of a job beside it."""

from dataclasses import dataclass

from finegap.core.families.family import DEFAULT_WORDS
from finegap.core.gap.tries import Setting
from finegap.core.means.base import FittedSize, SetNow
from finegap.core.means.coupling import CouplingMeans
from finegap.core.means.fixed import FixedMeans
from finegap.core.means.gaskets import GasketMeans
from finegap.core.means.housing import HousingMeans
from finegap.core.means.ring import RingMeans
from finegap.core.means.shims import ShimMeans
from finegap.core.means.timing import TimingMeans

__all__ = [
    "CouplingMeans", "FixedMeans", "GasketMeans", "HousingMeans", "RingMeans", "ShimMeans", "TimingMeans",
    "set_by_gaskets", "set_by_housing", "set_by_nothing", "set_by_ring", "set_by_shims", "set_by_timing",
]  # fmt: skip


@dataclass(frozen=True)
class Told:
    """A setting, and what its means keeps of it, under one name each."""

    setting: Setting

    def __getattr__(self, name):
        for of in (self.setting, self.setting.state):
            if hasattr(of, name):
                return getattr(of, name)
        raise AttributeError(name)


def set_by_housing(means, window, tries, school, zero, lash_mm, words=DEFAULT_WORDS):
    return Told(means.set(SetNow(window, tuple(tries), school, words, zero=zero, lash_mm=lash_mm)))


def set_by_gaskets(means, window, tries, school, box, words=DEFAULT_WORDS, known=None):
    sizes = None
    if known is not None:
        means = GasketMeans(means.sold_um, means.start_um, "outer", "inner")
        sizes = {"outer": FittedSize(known.outer_mm, known.outer), "inner": FittedSize(known.inner_mm, known.inner)}
    return Told(means.set(SetNow(window, tuple(tries), school, words, box=box, sizes=sizes)))


def set_by_ring(means, window, tries, school, words=DEFAULT_WORDS):
    return Told(means.set(SetNow(window, tuple(tries), school, words)))


def set_by_nothing(window, tries, school, words=DEFAULT_WORDS):
    return Told(FixedMeans().set(SetNow(window, tuple(tries), school, words)))


def set_by_shims(means, front, back, tries, school, box):
    return Told(means.set(SetNow(front, tuple(tries), school, DEFAULT_WORDS, back=back, box=box)))


def set_by_timing(means, tries, school):
    return Told(means.set(SetNow(means.window, tuple(tries), school, DEFAULT_WORDS)))
