"""Who works here: the first lead of an empty works, people added and changed, one's own password."""

from __future__ import annotations

from django.contrib.auth.models import Group, User
from django.contrib.auth.password_validation import validate_password
from django.contrib.auth.validators import UnicodeUsernameValidator
from django.core.exceptions import ValidationError
from django.db import transaction
from django.utils import timezone

from finegap.api.errors import Refused
from finegap.api.roles import LEAD, ROLES, role_of
from finegap.core.errors import FieldError
from finegap.people.changes import AddPerson, ChangePassword, ChangePerson
from finegap.people.models import PersonEvent
from finegap.people.pins import try_secret

MOST_PEOPLE = 200
"""More than work with one installation."""


def is_empty() -> bool:
    """Nobody works here yet: the first visit makes the first lead."""
    return not User.objects.exists()


def first_lead(new: AddPerson) -> User:
    """The first lead of an empty works.

    Raises
    ------
    Refused
        There are people already.
    FieldError
        A name or a password that cannot be.
    """
    with transaction.atomic():
        if not is_empty():
            raise Refused("This works has people already.", ["Sign in, or ask a lead."])
        person = _made(new, LEAD)
        log_person(person, person, "first lead")
    return person


def add_person(lead: User, new: AddPerson) -> User:
    """Somebody new.

    Raises
    ------
    FieldError
        A name that is taken, a role there is not, a password that cannot be.
    Refused
        As many people as there can be.
    """
    with transaction.atomic():
        if User.objects.count() >= MOST_PEOPLE:
            raise Refused("There is no room for more people.", [f"Up to {MOST_PEOPLE} can be kept."])
        person = _made(new, _role(new.role))
        log_person(person, lead, f"added as {new.role}")
    return person


def change_person(lead: User, username: str, change: ChangePerson) -> User:
    """Another role, another password, or no longer here. The records keep the name.

    Raises
    ------
    FieldError
        No such person, no such role, a password that cannot be.
    Refused
        The works would be left without a lead.
    """
    with transaction.atomic():
        person = User.objects.filter(username=username).first()
        if person is None:
            raise FieldError("person", f"nobody here is called {username[:40]}.", "Expected somebody of the list.")
        if change.role is not None and _role(change.role) != role_of(person):
            person.groups.set([Group.objects.get_or_create(name=change.role)[0]])
            log_person(person, lead, f"made {change.role}")
        if change.works_here is not None and change.works_here != person.is_active:
            person.is_active = change.works_here
            person.save(update_fields=["is_active"])
            log_person(person, lead, "works here again" if change.works_here else "works here no more")
        if change.password is not None:
            _set_password(person, change.password)
            log_person(person, lead, "password set by a lead")
        if not User.objects.filter(groups__name=LEAD, is_active=True).exists():
            raise Refused("No lead would be left.", ["Make somebody else a lead first."])
    return person


def change_password(person: User, change: ChangePassword) -> None:
    """One's own password, with the old one.

    Raises
    ------
    FieldError
        The old one is wrong, or the new one cannot be.
    Refused
        Too many wrong tries.
    """
    try_secret(person, lambda: person.check_password(change.old), "password")
    with transaction.atomic():
        _set_password(person, change.new)
        log_person(person, person, "password changed")


def says_by(person: User) -> str:
    """How somebody says who it is at a browser that is in use: by “PIN”; a lead, and who has none, by “password”.

    A lead's sign-in opens people and settings: a few digits are too little for it.
    """
    pin = getattr(person, "pin", None)
    return "PIN" if role_of(person) != LEAD and pin and pin.hashed else "password"


def somebody(username: str) -> User:
    """Somebody who can go on at a browser that is in use.

    Raises
    ------
    FieldError
        Nobody who works here.
    """
    person = User.objects.filter(username=username, is_active=True, groups__name__in=ROLES).first()
    if person is None:
        raise FieldError("person", f"nobody here is called {username[:40]}.", "Expected somebody of the list.")
    return person


def _made(new: AddPerson, role: str) -> User:
    name = new.username.strip()
    try:
        UnicodeUsernameValidator()(name)
    except ValidationError:
        raise FieldError("name to sign in with", "that is no name.", "Expected letters, digits and @ . + - _ alone.") from None
    if User.objects.filter(username__iexact=name).exists():
        raise FieldError("name to sign in with", f"{name} is taken.", "Expected another.")
    if not new.first_name.strip():
        raise FieldError("first name", "none was entered.", "Expected what stands in the records.")
    person = User(username=name, first_name=new.first_name.strip(), last_name=new.last_name.strip())
    _set_password(person, new.password)
    person.groups.set([Group.objects.get_or_create(name=role)[0]])
    return person


def _role(role: str) -> str:
    if role not in ROLES:
        raise FieldError("role", f"“{role[:20]}” is none.", f"Expected {' or '.join(ROLES)}.")
    return role


def _set_password(person: User, password: str) -> None:
    try:
        validate_password(password, person)
    except ValidationError as wrong:
        raise FieldError("password", " ".join(wrong.messages), "Expected another.") from None
    person.set_password(password)
    person.save()


def log_person(person: User, by: User, what: str) -> None:
    """A line of the log of people."""
    PersonEvent.objects.create(person=person, by=by, at=timezone.now(), what=what)
