"""The house itself: what is promised in words holds in code."""

import ast
import importlib
import inspect
import json
import pathlib
import pkgutil
import re
import subprocess
import tempfile
import unittest

import stillthread.core
import stillthread.formats

ROOT = pathlib.Path(__file__).resolve().parents[2]


def modules(package):
    for found in pkgutil.walk_packages(package.__path__, f"{package.__name__}."):
        yield importlib.import_module(found.name)


def public_functions():
    for package in (stillthread.core, stillthread.formats):
        for module in modules(package):
            for name, thing in vars(module).items():
                if inspect.isfunction(thing) and thing.__module__ == module.__name__ and not name.startswith("_"):
                    yield f"{module.__name__}.{name}", thing


class Docstrings(unittest.TestCase):
    def test_every_public_function_says_more_than_its_name(self):
        found = list(public_functions())
        self.assertGreater(len(found), 300)  # the walk sees the whole house
        for name, function in found:
            first = (inspect.getdoc(function) or "").partition("\n")[0]
            new = set(re.findall(r"[a-z]+", first.lower())) - set(name.rpartition(".")[2].lower().split("_"))
            with self.subTest(name):
                self.assertGreaterEqual(len(new), 3, first)

    def test_names_in_back_quotes_are_parameters_or_known_names(self):
        """A docstring that quotes a parameter must not outlive it."""
        for name, function in public_functions():
            quoted = set(re.findall(r"`([a-z_]+)`", inspect.getdoc(function) or ""))
            known = set(inspect.signature(function).parameters) | set(function.__globals__) | {"guessed", "astral"}
            known |= {"below", "path", "still", "version"}
            with self.subTest(name):
                self.assertLessEqual(quoted, known)

    def test_functions_that_raise_say_so(self):
        for name, function in public_functions():
            source = ast.parse(inspect.getsource(function).lstrip())
            raises = {
                node.exc.func.id
                for node in ast.walk(source)
                if isinstance(node, ast.Raise)
                and isinstance(node.exc, ast.Call)
                and isinstance(node.exc.func, ast.Name)
            }
            with self.subTest(name):
                for error in raises & {"ValueError", "InputError", "NotComputedError"}:
                    self.assertIn(error, inspect.getdoc(function) or "")

    def test_quantities_in_signatures_carry_their_unit(self):
        """A float named for a depth, speed or temperature ends in its unit (docs/nomenclature.md)."""
        bare = re.compile(r"^(depth|speed|wind|temperature|length|leader|rate|bed|hang|time|seconds)$")
        for name, function in public_functions():
            for parameter in inspect.signature(function).parameters.values():
                if parameter.annotation in ("float", float):
                    with self.subTest(f"{name}({parameter.name})"):
                        self.assertIsNone(bare.match(parameter.name))


class Core(unittest.TestCase):
    def test_no_clock_and_no_hidden_randomness(self):
        """`now`, `today` and unseeded generators have no place in the core."""
        for path in (ROOT / "stillthread" / "core").rglob("*.py"):
            text = path.read_text("utf-8")
            for word in ("datetime.now", "date.today", "time.time", "np.random", "default_rng", "open("):
                with self.subTest(f"{path.name}: {word}"):
                    self.assertNotIn(word, text)

    def test_values_are_frozen(self):
        for module in modules(stillthread.core):
            for thing in vars(module).values():
                if (
                    inspect.isclass(thing)
                    and thing.__module__ == module.__name__
                    and hasattr(thing, "__dataclass_fields__")
                ):
                    with self.subTest(thing.__name__):
                        self.assertTrue(thing.__dataclass_params__.frozen)


class Words(unittest.TestCase):
    def test_strings_of_a_page_sit_in_its_module(self):
        for page in (ROOT / "frontend" / "src" / "pages").iterdir():
            with self.subTest(page.name):
                self.assertTrue((page / "strings.ts").exists())

    def test_no_any_and_no_hand_written_fetch(self):
        for path in (ROOT / "frontend" / "src").rglob("*.ts*"):
            if "generated" in path.parts:
                continue
            text = path.read_text("utf-8")
            with self.subTest(path.name):
                self.assertNotRegex(text, r"\bas any\b|: any\b|<any>")
                if path.name != "sw.ts":  # it fetches the page's own parts, and asks the API nothing
                    self.assertNotRegex(text, r"(?<![\w.])fetch\(")

    def test_pictures_named_in_the_readme_are_there(self):
        text = (ROOT / "README.md").read_text("utf-8")
        for name in re.findall(r"\((docs/[^)]+)\)", text):
            with self.subTest(name):
                self.assertTrue((ROOT / name).exists())


class Script(unittest.TestCase):
    def still(self, *arguments, **kwargs):
        return subprocess.run([str(ROOT / "still"), *arguments], capture_output=True, text=True, **kwargs)

    def test_help_lists_every_command(self):
        text = self.still("help").stdout
        commands = set(re.findall(r"^cmd_(\w+)\(\)", (ROOT / "still").read_text("utf-8"), re.M))
        self.assertEqual(
            commands,
            {
                "demo",
                "serve",
                "backup",
                "restore",
                "tidy",
                "test",
                "check",
                "bench",
                "shots",
                "plan",
                "advise",
                "read",
                "simulate",
                "standins",
                "warm",
                "user",
                "help",
            },  # fmt: skip
        )
        for command in commands:
            self.assertIn(f"./still {command}", text)

    def test_an_unknown_command_fails_with_the_help(self):
        done = self.still("fly")
        self.assertEqual(done.returncode, 1)
        self.assertIn("no command 'fly'", done.stderr)

    def test_plan_reads_standard_input(self):
        day = (ROOT / "docs" / "examples" / "day.json").read_text("utf-8")
        done = self.still("plan", "-", input=day)
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertEqual(json.loads(done.stdout)["version"], 1)

    def test_plan_refuses_on_standard_error_with_status_two(self):
        done = self.still("plan", "-", input="{}")
        self.assertEqual((done.returncode, done.stdout), (2, ""))
        self.assertIn("errors", json.loads(done.stderr))

    def test_a_missing_python_is_named_with_its_remedy(self):
        with tempfile.TemporaryDirectory() as folder:
            tools = pathlib.Path(folder) / "bin"
            tools.mkdir()
            for tool in (
                "bash",
                "readlink",
                "dirname",
                "mkdir",
                "cat",
                "find",
                "sort",
                "xargs",
                "sha256sum",
                "cut",
                "env",
            ):
                where = subprocess.run(
                    ["bash", "-c", f"command -v {tool}"], capture_output=True, text=True
                ).stdout.strip()
                (tools / tool).symlink_to(where)
            copy = pathlib.Path(folder) / "copy"
            copy.mkdir()
            for name in ("still", "requirements.txt", "requirements-dev.txt"):
                (copy / name).write_bytes((ROOT / name).read_bytes())
            (copy / "still").chmod(0o755)
            done = subprocess.run(
                [str(tools / "bash"), str(copy / "still"), "plan", "x.json"],
                capture_output=True,
                text=True,
                env={"PATH": str(tools), "HOME": folder},
            )
        self.assertEqual(done.returncode, 1)
        self.assertIn("Remedy: apt-get install python3", done.stderr)


class Lock(unittest.TestCase):
    def test_missing_optional_entries_are_completed_for_their_platform(self):
        complete = importlib.import_module("scripts.complete_lock")
        lock = {
            "packages": {
                "": {},
                "node_modules/tool": {
                    "optionalDependencies": {
                        "@tool/linux-x64": "1.0",
                        "@tool/win32-arm64": "1.0",
                        "@tool/linux-x64-musl": "1.0",
                    }
                },
                "node_modules/@tool/linux-x64": {"version": "1.0"},
            }
        }
        self.assertEqual(set(complete.complete(lock)), {"@tool/win32-arm64", "@tool/linux-x64-musl"})
        entry = lock["packages"]["node_modules/@tool/win32-arm64"]
        self.assertEqual((entry["os"], entry["cpu"], entry["optional"]), (["win32"], ["arm64"], True))
        self.assertEqual(lock["packages"]["node_modules/@tool/linux-x64-musl"]["libc"], ["musl"])
        self.assertEqual(complete.complete(lock), [])

    def test_the_lock_is_complete_and_carries_no_address(self):
        text = (ROOT / "frontend" / "package-lock.json").read_text("utf-8")
        self.assertNotIn('"resolved"', text)
        complete = importlib.import_module("scripts.complete_lock")
        self.assertEqual(complete.complete(json.loads(text)), [])
