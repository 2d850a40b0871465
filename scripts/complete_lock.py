"""Add the optional entries that a partial package mirror leaves out of package-lock.json.

A mirror that lacks some foreign-platform binaries makes `npm install` write a lock without them, and `npm ci`
then refuses the lock. Run this after each install that changes the lock; it adds one stub per missing optional
package, restricted to the platform its name tells, so `npm ci` skips it everywhere else.
"""

import json
import pathlib
import re
import sys

SYSTEMS = ("android", "darwin", "freebsd", "linux", "openbsd", "netbsd", "sunos", "aix", "openharmony")
CPUS = ("arm64", "x64", "ia32", "riscv64", "ppc64", "s390x", "loong64", "arm", "wasm32", "mips64el")


def platform_of(name: str) -> dict[str, list[str]]:
    """Read `os`, `cpu` and `libc` out of a binary package's name."""
    words = re.split(r"[-/]", name)
    found: dict[str, list[str]] = {}
    systems = [s for s in SYSTEMS if s in words] or (["win32"] if "win32" in words else [])
    cpus = [c for c in CPUS if c in words]
    if systems:
        found["os"] = systems
    if cpus:
        found["cpu"] = cpus[:1]
    if "musl" in words:
        found["libc"] = ["musl"]
    return found or {"os": ["none"]}


def complete(lock: dict) -> list[str]:
    """Add the stubs to `lock` in place; returns the names added."""
    packages = lock["packages"]
    present = {path.rpartition("node_modules/")[2] for path in packages}
    added = []
    for entry in list(packages.values()):
        for name, version in entry.get("optionalDependencies", {}).items():
            if name in present:
                continue
            present.add(name)
            stub = {"version": version.lstrip("^~"), "dev": True, "optional": True, **platform_of(name)}
            packages[f"node_modules/{name}"] = stub
            added.append(name)
    lock["packages"] = dict(sorted(packages.items()))
    return added


def main() -> None:
    """Complete frontend/package-lock.json beside this script and say what was added."""
    path = pathlib.Path(__file__).resolve().parents[1] / "frontend" / "package-lock.json"
    lock = json.loads(path.read_text("utf-8"))
    added = complete(lock)
    path.write_text(json.dumps(lock, indent=2) + "\n", "utf-8")
    sys.stdout.write(f"{len(added)} optional entries added to {path.name}\n")


if __name__ == "__main__":
    main()
