"""Django's command line, for development."""

import os
import pathlib
import sys

from django.core.management import execute_from_command_line

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "stillthread.site.settings")
    # Where the script keeps the compiled kernels too: by hand nothing is compiled twice.
    var = os.environ.get("STILL_VAR", str(pathlib.Path(__file__).resolve().parent / "var"))
    os.environ.setdefault("NUMBA_CACHE_DIR", str(pathlib.Path(var) / "numba"))
    execute_from_command_line(sys.argv)
