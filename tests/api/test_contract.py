"""Whatever the contract lets one ask is answered as the contract says: generated requests at every address (schemathesis)."""

import copy

import schemathesis
from django.core.handlers.wsgi import WSGIHandler
from django.core.signals import request_finished, request_started
from django.db import close_old_connections
from hypothesis import HealthCheck, Phase, given, settings
from schemathesis.core.failures import Failure
from schemathesis.specs.openapi import checks

from tests.api.base import ApiCase, contract

CHECKS = [
    schemathesis.checks.not_a_server_error,
    checks.status_code_conformance,
    checks.content_type_conformance,
    checks.response_schema_conformance,
]
APPLICATION = WSGIHandler()  # not the served one, which fetches the kernels in a thread of its own
EACH = 8  # requests an address and method; what takes a plan is asked less
SLOW = ("/plans", "/next", "/belief", "/read", "/thread", "/turn", "/rigs")


class Contract(ApiCase):
    def hold_connection(self):
        for signal in (request_started, request_finished):  # else each answer would close the test's own
            signal.disconnect(close_old_connections)
            self.addCleanup(signal.connect, close_old_connections)

    def test_no_answer_outside_the_contract(self):
        self.make_kit()
        self.make_water()
        self.hold_connection()
        schema = schemathesis.openapi.from_dict(contract())
        cookies = {name: one.value for name, one in self.client.cookies.items()}
        told = []
        for result in schema.get_all_operations():
            operation = result.ok()
            if operation.path in ("/api/account/delete", "/api/account/sign-out-everywhere", "/api/session/sign-out"):
                continue  # they would end the session for those after them
            few = any(part in operation.path for part in SLOW)
            told += self.asked(operation, 3 if few else EACH, cookies)
        self.assertEqual(told, [])

    def test_an_answer_outside_it_is_noticed(self):
        narrow = copy.deepcopy(contract())
        narrow["paths"] = {"/api/session": {"get": narrow["paths"]["/api/session"]["get"]}}
        session = narrow["components"]["schemas"]["SessionOut"]
        session["required"] = [*session.get("required", ()), "no_such_field"]
        (result,) = schemathesis.openapi.from_dict(narrow).get_all_operations()
        self.hold_connection()
        cookies = {name: one.value for name, one in self.client.cookies.items()}
        self.assertIn("no_such_field", self.asked(result.ok(), 1, cookies)[0])

    def asked(self, operation, most, cookies):
        found = []

        @given(case=operation.as_strategy())
        @settings(
            max_examples=most, deadline=None, database=None, derandomize=True, phases=[Phase.generate],
            suppress_health_check=list(HealthCheck),
        )  # fmt: skip
        def ask(case):
            headers = {"X-CSRFToken": cookies["csrftoken"]}
            answer = case.call(app=APPLICATION, headers=headers, cookies=cookies)
            try:
                case.validate_response(answer, checks=CHECKS)
            except* Failure as failed:
                found.append(f"{case.method} {operation.path} {answer.status_code}: {failed.exceptions[0]}"[:400])

        ask()
        return found[:1]
