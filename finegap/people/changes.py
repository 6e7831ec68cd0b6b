"""What can be changed of people."""

from __future__ import annotations

from dataclasses import dataclass

from finegap.api import fields as sent


@dataclass(frozen=True)
class AddPerson:
    """Somebody new: the name to sign in with, first and last name, role, and a password to begin with."""

    username: str = sent.text(150)
    first_name: str = sent.text(60)
    last_name: str = sent.text(60)
    role: str = sent.text(20)
    password: str = sent.secret(200, as_written=True)


@dataclass(frozen=True)
class ChangePerson:
    """What is changed of a person; what is left out stays. ``works_here`` is false for who cannot sign in any more."""

    role: str | None = sent.left_out(20)
    password: str | None = sent.left_out(200, secret=True)
    works_here: bool | None = None


@dataclass(frozen=True)
class SwitchPerson:
    """Somebody else at this browser: a technician by PIN, a lead by password, and by code where a second factor is set up."""

    username: str = sent.text(150)
    secret: str = sent.secret(200, as_written=True)
    code: str = sent.secret(20, "")


@dataclass(frozen=True)
class BeginSecond:
    """A second factor begun, with one's password."""

    password: str = sent.secret(200, as_written=True)


@dataclass(frozen=True)
class ConfirmSecond:
    """The first code of it."""

    code: str = sent.secret(20)


@dataclass(frozen=True)
class TakeOffSecond:
    """One's own second factor, taken off."""

    password: str = sent.secret(200, as_written=True)
    code: str = sent.secret(20)


@dataclass(frozen=True)
class ChangePassword:
    """One's own password."""

    old: str = sent.secret(200, as_written=True)
    new: str = sent.secret(200, as_written=True)
