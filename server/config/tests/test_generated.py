"""Requests generated from the API's own document, as both kinds of people: none is answered as if the server had failed, and
none otherwise than the document says. `TWIN_LONG=1` makes some 20,000 of them.
"""

import json
from collections import Counter
from random import Random
from typing import Any
from unittest.mock import patch

import schemathesis
from django.db import connection, transaction
from django.test import Client
from hypothesis import HealthCheck, Phase, given, seed, settings
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import (
    content_type_conformance,
    response_schema_conformance,
    status_code_conformance,
)

from config.api import api
from config.wsgi import application
from jobs.models import Job
from jobs.tests.world import WorldTestCase
from people.models import Person
from tests.cost import rounds

CHECKS = [not_a_server_error, status_code_conformance, content_type_conformance, response_schema_conformance]
ENDLESS = ("/api/jobs/{job_id}/port/stream",)
"""A stream from a board: it ends when whoever reads it goes."""
KNOWN = 0.7
"""How many of the generated requests name what is there; the others whatever the document allows."""


def unpacked(environ: dict[str, Any], start_response: Any) -> Any:
    """The application as somebody sees it who takes no packed answers."""
    return application({**environ, "HTTP_ACCEPT_ENCODING": "identity"}, start_response)


class Generated(WorldTestCase):
    def setUp(self) -> None:
        # the test's own connection, in its transaction, is not closed between requests
        self.enterContext(patch.object(connection, "close_if_unusable_or_obsolete"))

    def operations(self) -> list[Any]:
        schema = schemathesis.openapi.from_dict(json.loads(json.dumps(api.get_openapi_schema())))
        schema.app = unpacked
        found = [result.ok() for result in schema.get_all_operations()]
        return [each for each in found if each.path not in ENDLESS]

    def signed_in(self, username: str) -> tuple[dict[str, str], dict[str, str]]:
        """What a browser sends with every request once somebody has signed in: cookies and headers."""
        client = Client()
        client.force_login(Person.objects.get(username=username))
        token = client.get("/api/token").json()["token"]
        return {name: each.value for name, each in client.cookies.items()}, {
            "X-CSRFToken": token,
            "Origin": "http://localhost",
        }

    def known(self) -> dict[str, list[str]]:
        jobs = [str(pk) for pk in Job.objects.filter(depot__code="SQ").values_list("pk", flat=True)]
        return {
            "job_id": jobs, "code": ["OFN-U5", "TVH-2205", "deck-oven"], "part_number": ["OFN-U5", "TVH-2205", "UMC 40-118"],
            "original": ["TVH-2205"], "username": ["wennick", "corm"], "side": ["original", "replacement"], "name": ["S1", "1", "C1"],
            "kind": ["boards", "families", "deck-oven"],
        }  # fmt: skip

    def test_no_answer_is_a_failure_or_another_than_the_document_says(self) -> None:
        sent, self.answers = 0, Counter[int]()
        for username in ("wennick", "corm"):
            for operation in self.operations():
                sent += self.tried(operation, username)
        self.assertGreater(sent, rounds(500, 20_000))
        # many get as far as what they ask for
        self.assertGreater(self.answers[200], sent / 5, self.answers)

    def tried(self, operation: Any, username: str) -> int:
        known, rng, sent = self.known(), Random(1), 0
        cookies: dict[str, str] = {}
        headers: dict[str, str] = {}

        @seed(1)
        @settings(
            max_examples=rounds(3, 76), deadline=None, database=None, phases=[Phase.generate], suppress_health_check=list(HealthCheck)
        )  # fmt: skip
        @given(case=operation.as_strategy())
        def send(case: Any) -> None:
            nonlocal sent, cookies, headers
            for name in case.path_parameters or {}:
                if rng.random() < KNOWN and name in known:
                    case.path_parameters[name] = rng.choice(known[name])
            case.cookies, case.headers = dict(cookies), {**(case.headers or {}), **headers}
            response = case.call(base_url="http://localhost")
            sent += 1
            self.assertNotEqual(response.status_code, 500, (operation.label, case.as_curl_command()[:1500]))
            case.validate_response(response, checks=CHECKS)
            self.answers[response.status_code] += 1
            if response.status_code in (401, 403):
                cookies, headers = self.signed_in(username)

        # what one operation does to the world, such as sending everybody home, is undone before the next
        with transaction.atomic():
            cookies, headers = self.signed_in(username)
            send()
            transaction.set_rollback(True)
        return sent
