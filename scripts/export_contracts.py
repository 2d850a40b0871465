"""Write the contracts from the code that keeps them, or with --check say where they have drifted apart."""

import json
import os
import pathlib
import sys

ROOT = pathlib.Path(__file__).resolve().parents[1]
sys.path[:0] = [str(ROOT), str(ROOT / "scripts")]
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "stillthread.site.settings")

import django  # noqa: E402

django.setup()

from client_limits import limits_ts  # noqa: E402

from stillthread.archive.rows import Archive  # noqa: E402
from stillthread.documents.advise import AdviseAnswer, AdviseRequest  # noqa: E402
from stillthread.documents.plan import PlanRequest  # noqa: E402
from stillthread.documents.plan_answer import PlanAnswer  # noqa: E402
from stillthread.documents.read import ReadRequest  # noqa: E402
from stillthread.documents.read_answer import ReadAnswer  # noqa: E402
from stillthread.documents.thread.simulate_contract import SimulateAnswer, SimulateRequest  # noqa: E402
from stillthread.formats.picture import LARGEST_BYTES, LONGEST_SIDE  # noqa: E402
from stillthread.outings.photos import MOST_PHOTOS  # noqa: E402
from stillthread.site.api import api  # noqa: E402
from stillthread.web.errors import ErrorsOut  # noqa: E402

FOLDER = ROOT / "docs" / "contracts"
CLIENT = ROOT / "frontend" / "src" / "api" / "generated"
PHOTOS = {"MOST_PHOTOS": MOST_PHOTOS, "LONGEST_PHOTO_SIDE": LONGEST_SIDE, "LARGEST_PHOTO_BYTES": LARGEST_BYTES}


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


def files() -> dict[pathlib.Path, str]:
    """Return what every file made from the code holds."""
    made = documents()
    texts = {
        FOLDER / name: json.dumps(document, indent=1, sort_keys=True, default=str) + "\n"
        for name, document in made.items()
    }
    return {**texts, CLIENT / "limits.ts": limits_ts(made["openapi.json"], PHOTOS)}


def main() -> int:
    """Write or check; returns the exit status."""
    check = "--check" in sys.argv
    drifted = []
    for path, text in files().items():
        if path.exists() and path.read_text("utf-8") == text:
            continue
        drifted.append(path.name)
        if not check:
            path.write_text(text, "utf-8")
    verb = "differ from the code" if check else "written"
    sys.stdout.write(f"Contracts {verb}: {', '.join(drifted)}\n" if drifted else "Contracts match the code\n")
    return 1 if check and drifted else 0


if __name__ == "__main__":
    sys.exit(main())
