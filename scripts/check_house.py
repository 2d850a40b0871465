"""House rules no linter knows: sizes of files, functions and rooms, no registry addresses."""

from __future__ import annotations

import ast
import pathlib
import re
import subprocess
import sys

ROOT = pathlib.Path(__file__).resolve().parents[1]
LONGEST_FILE = 400
LONGEST_FUNCTION = 60
LARGEST_ROOM, MOST_MODULES = 1_750, 12
ROOMS = ("stillthread/core", "stillthread/documents", "stillthread/formats")
MOST_POSITIONAL = 4
SOURCE = {".py", ".ts", ".tsx", ".css"}
REGISTRY = re.compile(r"registry\.npm|npm" + r"js\.|py" + r"pi\.org|python" + r"hosted", re.I)


def tracked() -> list[pathlib.Path]:
    """Return the files git knows, without generated ones."""
    done = subprocess.run(["git", "ls-files"], cwd=ROOT, capture_output=True, text=True, check=True)
    paths = [ROOT / name for name in done.stdout.splitlines()]
    return [p for p in paths if p.is_file() and "generated" not in p.parts and "migrations" not in p.parts]


def functions(path: pathlib.Path) -> list[str]:
    """Say which Python functions are too long to read on one screen."""
    tree = ast.parse(path.read_text("utf-8"))
    found = []
    for node in ast.walk(tree):
        if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef) and node.end_lineno:
            length = node.end_lineno - node.lineno + 1
            if length > LONGEST_FUNCTION:
                found.append(f"{path.relative_to(ROOT)}:{node.lineno} {node.name} has {length} lines")
    return found


def _compiled(tree: ast.Module) -> bool:
    """Whether a module's functions are compiled: machine code is called by position."""
    return any(isinstance(n, ast.ImportFrom) and (n.module or "").endswith("core.compiled") for n in ast.walk(tree))


def own_names(trees: dict[pathlib.Path, ast.Module]) -> set[str]:
    """Return the names of our functions and dataclasses that can be called by keyword."""
    found: set[str] = set()
    not_so: set[str] = set()
    for tree in trees.values():
        for node in ast.walk(tree):
            if isinstance(node, ast.ClassDef) and any("dataclass" in ast.unparse(d) for d in node.decorator_list):
                found.add(node.name)
            elif isinstance(node, ast.FunctionDef):
                by_place = node.args.vararg or node.args.posonlyargs or _compiled(tree)
                (not_so if by_place else found).add(node.name)
    return found - not_so


def positional(path: pathlib.Path, tree: ast.Module, names: set[str]) -> list[str]:
    """Say which calls pass more than four values by position alone."""
    found = []
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and len(node.args) > MOST_POSITIONAL:
            name = getattr(node.func, "id", None) or getattr(node.func, "attr", "")
            if name in names:
                found.append(f"{path.relative_to(ROOT)}:{node.lineno} {name} is given {len(node.args)} values unnamed")
    return found


def rooms(paths: list[pathlib.Path]) -> list[str]:
    """Say which rooms of the core and of the documents hold too much to be known by heart."""
    held: dict[str, list[pathlib.Path]] = {}
    for path in paths:
        room = path.relative_to(ROOT).parent.as_posix()
        if room.startswith(ROOMS) and path.suffix == ".py" and path.name != "__init__.py":
            held.setdefault(room, []).append(path)
    found = []
    for room, modules in held.items():
        lines = sum(len(path.read_text("utf-8").splitlines()) for path in modules)
        if lines > LARGEST_ROOM or len(modules) > MOST_MODULES:
            found.append(f"{room} has {lines} lines in {len(modules)} modules")
    return found


def main() -> int:
    """Print what breaks a rule; returns the exit status."""
    faults = []
    trees = {path: ast.parse(path.read_text("utf-8")) for path in tracked() if path.suffix == ".py"}
    names = own_names({path: tree for path, tree in trees.items() if "tests" not in path.parts})
    for path, tree in trees.items():
        if "stillthread" in path.relative_to(ROOT).parts[:1]:
            faults += positional(path, tree, names)
    for path in tracked():
        if path.suffix in SOURCE:
            count = len(path.read_text("utf-8").splitlines())
            if count > LONGEST_FILE:
                faults.append(f"{path.relative_to(ROOT)} has {count} lines")
        if path.suffix == ".py":
            faults += functions(path)
        listed = path.suffix in {".json", ".txt", ".toml", ".in"} or path.name == ".npmrc"
        if listed and REGISTRY.search(path.read_text("utf-8")):
            faults.append(f"{path.relative_to(ROOT)} names a package registry")
    faults += rooms(tracked())
    sys.stdout.write("".join(f"{fault}\n" for fault in faults))
    return 1 if faults else 0


if __name__ == "__main__":
    sys.exit(main())
