"""Write the contracts from the code that keeps them, or with --check say where they have drifted apart."""

import json
import os
import pathlib
import sys

ROOT = pathlib.Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "stillthread.site.settings")

import django  # noqa: E402

django.setup()

from stillthread.archive.rows import Archive  # noqa: E402
from stillthread.documents.advise import AdviseAnswer, AdviseRequest  # noqa: E402
from stillthread.documents.plan import PlanRequest  # noqa: E402
from stillthread.documents.plan_answer import PlanAnswer  # noqa: E402
from stillthread.documents.read import ReadRequest  # noqa: E402
from stillthread.documents.read_answer import ReadAnswer  # noqa: E402
from stillthread.documents.thread.simulate_contract import SimulateAnswer, SimulateRequest  # noqa: E402
from stillthread.site.api import api  # noqa: E402
from stillthread.web.errors import ErrorsOut  # noqa: E402

FOLDER = ROOT / "docs" / "contracts"


def documents() -> dict[str, dict]:
    """Return every contract by file name."""
    schemas = {
        "plan.schema.json": PlanRequest.model_json_schema(),
        "plan-answer.schema.json": PlanAnswer.model_json_schema(mode="serialization"),
        "read.schema.json": ReadRequest.model_json_schema(),
        "read-answer.schema.json": ReadAnswer.model_json_schema(mode="serialization"),
        "simulate.schema.json": SimulateRequest.model_json_schema(),
        "simulate-answer.schema.json": SimulateAnswer.model_json_schema(mode="serialization"),
        "advise.schema.json": AdviseRequest.model_json_schema(),
        "advise-answer.schema.json": AdviseAnswer.model_json_schema(mode="serialization"),
        "archive.schema.json": Archive.model_json_schema(mode="serialization"),
        "errors.schema.json": ErrorsOut.model_json_schema(),
    }
    for schema in schemas.values():
        schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    return {**schemas, "openapi.json": dict(api.get_openapi_schema())}


def main() -> int:
    """Write or check; returns the exit status."""
    check = "--check" in sys.argv
    drifted = []
    for name, document in documents().items():
        path = FOLDER / name
        text = json.dumps(document, indent=1, sort_keys=True, default=str) + "\n"
        if path.exists() and path.read_text("utf-8") == text:
            continue
        drifted.append(name)
        if not check:
            path.write_text(text, "utf-8")
    verb = "differ from the code" if check else "written"
    sys.stdout.write(f"Contracts {verb}: {', '.join(drifted)}\n" if drifted else "Contracts match the code\n")
    return 1 if check and drifted else 0


if __name__ == "__main__":
    sys.exit(main())
