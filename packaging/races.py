#!/usr/bin/env python3
"""Reads what the thread sanitizer reported and tells the races in which this program's own code is on both sides.

Qt is not built with the sanitizer: it does not see Qt's own locks, so that what two threads of Qt do with one another looks like a race.
Usage: races.py FOLDER   with the reports. Exit 1 where a race is left; a folder without reports has none.
"""
import pathlib
import re
import sys


def sides(report):
    """The stacks of the two accesses."""
    stacks, current = [], None
    for line in report.splitlines():
        if " of size " in line and " by " in line:
            current = []
            stacks.append(current)
        elif re.match(r"\s+#\d+ ", line):
            if current is not None:
                current.append(line)
        else:
            current = None
    return stacks


def ours(stack):
    """The first frame that is neither the sanitizer's nor the language's library is of this program."""
    for frame in stack:
        if "libsanitizer" in frame or "/usr/include/c++" in frame or "libstdc++" in frame:
            continue
        return "/src/" in frame or "/tests/" in frame
    return False


def main():
    left = []
    for path in pathlib.Path(sys.argv[1]).iterdir():
        with path.open(errors="replace") as file:
            for report in file.read().split("=================="):
                if "WARNING: ThreadSanitizer" not in report:
                    continue
                if "data race" not in report or all(ours(stack) for stack in sides(report)[:2]):
                    left.append(report)
    for report in left:
        print(report)
    print(f"{len(left)} races of this program's own")
    return 1 if left else 0


sys.exit(main())
