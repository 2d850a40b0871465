"""Names of the product that nothing in the product uses: functions, methods, classes and constants. Tests do not count."""

from __future__ import annotations

import sys

from vulture import Vulture

ROOTS = ["stillthread", "scripts", "manage.py"]
# Found and called by name: by Django, its sign-in guard, and Python's own HTTP server.
CALLED_BY_NAME = [
    *(
        "Command",
        "add_arguments",
        "handle",
        "AnglerBackend",
        "Meta",
        "locked_out",
        "not_locked",
        "render",
        "SiteConfig",
        "JsonLines",
        "log_file",
        "mail_settings",
        "unhashed",
    ),
    *("do_GET", "log_message"),
]
# Kept for the tests alone: formulas held to published values, the way back of a unit, the paths of the test run.
FOR_TESTS = [
    *("window_radius_m", "seen_by_fish", "apparent_depth_m", "clear_view_m", "destination", "steepest_depth_m"),
    *(
        "volume_m3",
        "timed_speed_m_s",
        "m_to_feet",
        "c_to_fahrenheit",
        "beaufort_to_m_s",
        "beaufort_from_knots",
        "lean_on",
    ),
]
BY_DECORATOR = ["@router.*", "@api.*", "@model_validator", "@field_validator", "@receiver*", "@model_serializer*"]
KINDS = {"function", "method", "class", "property", "import", "unreachable_code"}


def dead() -> list[str]:
    """Return a line for each name nothing uses; fields of documents and settings are read elsewhere and left out."""
    found = Vulture(ignore_names=CALLED_BY_NAME + FOR_TESTS, ignore_decorators=BY_DECORATOR)
    found.scavenge(ROOTS, exclude=["*/migrations/*", "*/site/settings.py"])
    return [
        one.get_report()
        for one in found.get_unused_code()
        if one.typ in KINDS or (one.typ == "variable" and one.name.isupper())
    ]


if __name__ == "__main__":
    lines = dead()
    sys.stdout.write("".join(f"{line}\n" for line in lines))
    sys.exit(bool(lines))
