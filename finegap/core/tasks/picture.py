"""Which way round something goes, drawn right and wrong."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from typing import ClassVar, Self

from finegap.core.drawing.marks import Mark, Picture
from finegap.core.families.family import Family
from finegap.core.tasks.base import PlainTask, TaskNow, TaskView


@dataclass(frozen=True)
class Outline:
    """One outline of a drawing."""

    style: str
    path: str


@dataclass(frozen=True)
class PictureLabel:
    """A word in a picture."""

    x: float
    y: float
    text: str


@dataclass(frozen=True)
class PictureView(TaskView):
    """Right and wrong; the labels stand in both."""

    name: str
    right: list[Outline]
    right_words: str
    wrong: list[Outline]
    wrong_words: str
    labels: list[PictureLabel]


@dataclass(frozen=True)
class PictureTask(PlainTask):
    """A picture of the family."""

    kind: ClassVar[str] = "picture"
    view_type: ClassVar[type[TaskView]] = PictureView

    picture: Picture

    @classmethod
    def choices(cls, family: Family) -> Collection[str]:
        """The family's pictures."""
        return family.pictures

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """The picture."""
        picture = now.record.family.pictures.get(of)
        return cls(picture) if picture else None

    def show(self, key: str) -> PictureView:
        """Both."""
        return picture_view(key, self.picture)


def picture_view(key: str, picture: Picture) -> PictureView:
    """A picture to be drawn."""
    return PictureView(
        PictureTask.kind,
        key,
        name=picture.name,
        right=outlines(picture.right),
        right_words=picture.right_words,
        wrong=outlines(picture.wrong),
        wrong_words=picture.wrong_words,
        labels=[PictureLabel(*label) for label in picture.labels],
    )


def outlines(marks: tuple[Mark, ...]) -> list[Outline]:
    """Marks as they are drawn."""
    return [Outline(mark.style.value, mark.path) for mark in marks]


TASK = PictureTask
