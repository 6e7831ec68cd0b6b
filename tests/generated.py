"""Requests made up from the published OpenAPI schema: of the right form and the wrong one, half aimed at what is there."""

from __future__ import annotations

import json
import random
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import schemathesis
from hypothesis import HealthCheck, Phase, given, seed, settings
from schemathesis import GenerationMode

SCHEMA = Path(__file__).parents[1] / "docs/formats/openapi.yaml"
MODES = (GenerationMode.POSITIVE, GenerationMode.NEGATIVE)
SHAPE = {"code", "problem", "field", "hint", "suggestions", "reasons", "reason_wanted"}
TYPED = (
    "30.05",
    "30.05 mm",
    "1.18 in",
    "1,750",
    "1-23/32",
    "-5",
    "0",
    "1e9",
    "9" * 30,
    "0.1 thou",
    "85 N.m",
    "",
    " ",
    "\u0000",
    "½",
)


@dataclass(frozen=True)
class Request:
    """What is sent: ``query`` and ``headers`` as they are, ``body`` as bytes of a media type, or nothing."""

    operation: str
    method: str
    path: str
    query: dict[str, Any]
    headers: dict[str, str]
    body: bytes | None
    kind: str


def operations(skip: Callable[[str], bool] = lambda label: False) -> list[Any]:
    """Every operation of the schema, but for those to ``skip`` by their label, such as “POST /api/jobs”."""
    found = (result.ok() for result in schemathesis.openapi.from_path(str(SCHEMA)).get_all_operations())
    return [one for one in found if not skip(one.label)]


def requests(operation: Any, count: int, number: int, known: dict[str, Any]) -> Iterator[Request]:
    """So many requests of each mode for one operation; another ``number`` makes others.

    Parameters
    ----------
    known : dict
        What is there, by the name of a parameter or a field: a job's number, a pump's tag, who is signed in.
    """
    rng = random.Random(f"{operation.label} {number}")
    for mode in MODES:
        yield from [_request(case, rng, known) for case in _made(operation.as_strategy(generation_mode=mode), count, number)]


def _made(strategy: Any, count: int, number: int) -> list[Any]:
    made: list[Any] = []

    @seed(number)
    @settings(max_examples=count, database=None, deadline=None, phases=[Phase.generate], suppress_health_check=list(HealthCheck))
    @given(case=strategy)
    def take(case: Any) -> None:
        made.append(case)

    take()
    return made[:count]


def _request(case: Any, rng: random.Random, known: dict[str, Any]) -> Request:
    query, headers, body = dict(case.query or {}), {str(k): str(v) for k, v in (case.headers or {}).items()}, case.body
    if rng.random() < 0.5:
        case.path_parameters = {name: known.get(name, value) for name, value in (case.path_parameters or {}).items()}
        body = _aimed(body, rng, known)
    kind = case.media_type or "application/json"
    return Request(case.operation.label, case.method, case.formatted_path, query, headers, _bytes(body, kind), kind)


def _aimed(body: Any, rng: random.Random, known: dict[str, Any]) -> Any:
    if not isinstance(body, dict):
        return body
    aimed = {name: known.get(name, value) for name, value in body.items()}
    return aimed | ({"typed": rng.choice(TYPED)} if "typed" in aimed else {})


def _bytes(body: Any, kind: str) -> bytes | None:
    if isinstance(body, bytes):
        return body
    if isinstance(body, str | int | float | list | dict) and kind == "application/json":
        return json.dumps(body).encode()
    if isinstance(body, dict):  # a form, with whatever was made up for its fields
        parts = (f'--x\r\nContent-Disposition: form-data; name="{i}"\r\n\r\n{value}\r\n' for i, value in enumerate(body.values()))
        return "".join([*parts, "--x--\r\n"]).encode(errors="replace")
    return None


def wrong(request: Request, status: int, content: bytes) -> str:
    """What is wrong with an answer: a fault of the server, or an error that has not the one shape. Empty where nothing is."""
    if status >= 500:
        return f"{status} for {request}"
    if status >= 400:
        try:
            told = json.loads(content)
        except ValueError:
            return f"{status}, and no JSON, for {request}"
        if set(told) != SHAPE or not told["problem"]:
            return f"{status} as {told} for {request}"
    return ""
