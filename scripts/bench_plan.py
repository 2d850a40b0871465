"""Speed of a plan: `./still bench plan`. Ratios in one run; machines differ."""

from __future__ import annotations

import pathlib
import sys
import tempfile
from dataclasses import replace

from bench import EXAMPLE, command_bench, milliseconds, plan_bench, row

ROOT = pathlib.Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))

from stillthread.core.day.given import Before, HandMade, PlanInput  # noqa: E402
from stillthread.core.day.paths import Paths  # noqa: E402
from stillthread.core.day.schools import Schools  # noqa: E402
from stillthread.core.plan.make import make_plan  # noqa: E402
from stillthread.documents.plan import PlanRequest, plan_input_from  # noqa: E402
from stillthread.documents.strict import parse_document  # noqa: E402


def example() -> PlanInput:
    """Return the example day."""
    return plan_input_from(parse_document(PlanRequest, EXAMPLE.read_text("utf-8")))


def cold_and_changed(given: PlanInput) -> bool:
    """A plan with every path computed anew; then only readings changed, a set-up swapped, a school switched."""
    paths = Paths()

    def anew() -> None:
        paths.clear()
        make_plan(given, paths)

    cold, cold_95 = milliseconds(anew, 10)
    kept = row(
        "a plan, every path computed (median, p95)", f"{cold:.0f} ms, {cold_95:.0f} ms", "1500 ms", cold_95 <= 1500
    )
    make_plan(given, paths)
    looked = len(paths) / cold * 1000
    kept &= row("  casts looked at a second in it, both cores", f"{looked:.0f}", "150", looked >= 150)
    reading = given.reading
    sky = replace(given, reading=replace(reading, cloud_oktas=8 - (reading.cloud_oktas or 0), wind_from_deg=90.0))
    hand = (HandMade(line=given.lines[-1].key, flies=(given.flies[0].key,), count_s=20),)
    cases = {
        "only the sky and the wind's direction changed": sky,
        "a set-up made by hand beside it": replace(given, by_hand=hand),
        "a school switched and compared": replace(given, schools=Schools(tippet="stout"), compared_with=Before()),
        "a factor switched off": replace(given, without=frozenset({"light"})),
    }
    for what, one in cases.items():
        make_plan(one, paths)
        warm, warm_95 = milliseconds(lambda one=one: make_plan(one, paths), 20)
        ratio = f"{warm:.0f} ms, {warm_95:.0f} ms, {cold / warm:.1f}x"
        kept &= row(f"  {what}", ratio, "300 ms", warm_95 <= 300)
    return kept


def warmth_shifted(given: PlanInput) -> bool:
    """New temperatures within the bins: the paths are kept, the belief is not."""
    paths = Paths()
    make_plan(given, paths)
    points = tuple(replace(p, temperature_c=p.temperature_c + 0.2) for p in given.reading.profile)
    one = replace(given, reading=replace(given.reading, profile=points))
    make_plan(one, paths)
    warm, warm_95 = milliseconds(lambda: make_plan(one, paths), 20)
    return row("  temperatures read again, 0.2 °C warmer", f"{warm:.0f} ms, {warm_95:.0f} ms", "300 ms", warm_95 <= 300)


def from_the_file(given: PlanInput) -> bool:
    """A new process with the paths on disk, against one without."""
    import os

    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "stillthread.site.settings")
    from stillthread.plans.exposures import FileShelf

    with tempfile.TemporaryDirectory() as folder:
        file = pathlib.Path(folder) / "exposures.sqlite3"
        make_plan(given, Paths(FileShelf(file)))
        shelved, shelved_95 = milliseconds(lambda: make_plan(given, Paths(FileShelf(file))), 10)
        size = sum(part.stat().st_size for part in file.parent.iterdir()) / 1e6
    cold, _ = milliseconds(lambda: make_plan(given, Paths()), 5)
    value = f"{shelved:.0f} ms, {shelved_95:.0f} ms, {cold / shelved:.1f}x"
    return row(f"  memory empty, paths from the file ({size:.1f} MB)", value, "600 ms", shelved_95 <= 600)


def main() -> int:
    """Run all; the exit status says whether every budget was kept."""
    given = example()
    kept = [plan_bench(), cold_and_changed(given), warmth_shifted(given), from_the_file(given), command_bench()]
    return 0 if all(kept) else 1


if __name__ == "__main__":
    sys.exit(main())
