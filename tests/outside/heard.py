"""The window as assistive technology hears it: starts the program given, does what is asked, and prints the tree as JSON after each.

    heard.py [--do ROLE NAME ACTION]... PROGRAM ARGUMENTS...      on a session bus of its own, with a display

The first list is of the window as it starts. --do takes the first thing shown of that role whose name NAME, a regular expression, matches
whole. Of each thing: its role, name, description, whether it can be focused, is shown and ticked, the labels it belongs to,
its actions and its text.
"""

import json
import os
import re
import subprocess
import sys
import time

import gi

gi.require_version("Atspi", "2.0")
from gi.repository import Atspi  # noqa: E402


def program_of(pid, until):
    while time.monotonic() < until:
        desktop = Atspi.get_desktop(0)
        for i in range(desktop.get_child_count()):
            child = desktop.get_child_at_index(i)
            if child and child.get_process_id() == pid and child.get_child_count() > 0:
                return child
        time.sleep(0.1)
    sys.exit("the program was not heard of")


def actions_of(thing):
    try:
        action = thing.get_action_iface()
        return [action.get_action_name(i) for i in range(action.get_n_actions())] if action else []
    except Exception:
        return []


def labels_of(thing):
    return [
        relation.get_target(i).get_name()
        for relation in thing.get_relation_set() or []
        if relation.get_relation_type() == Atspi.RelationType.LABELLED_BY
        for i in range(relation.get_n_targets())
    ]


def said_of(thing):
    states = thing.get_state_set()
    has = lambda state: states.contains(state)  # noqa: E731
    text = thing.get_text_iface()
    return {
        "role": thing.get_role_name(),
        "name": thing.get_name(),
        "description": thing.get_description(),
        "focusable": has(Atspi.StateType.FOCUSABLE),
        "showing": has(Atspi.StateType.SHOWING),
        "checked": has(Atspi.StateType.CHECKED),
        "invalid": has(Atspi.StateType.INVALID_ENTRY),
        "labels": labels_of(thing),
        "actions": actions_of(thing),
        "text": text.get_text(0, -1) if text else "",
    }


def walk(thing):
    yield thing
    for i in range(thing.get_child_count()):
        child = thing.get_child_at_index(i)
        if child:
            yield from walk(child)


def settled(program, until):
    """The tree, once it holds what a study says and stays the same."""
    was = None
    while time.monotonic() < until:
        now = [said_of(thing) for thing in walk(program)]
        if now == was:
            return now
        was = now
        time.sleep(0.3)
    sys.exit("the window did not come to rest")


tasks = []
arguments = sys.argv[1:]
while arguments[0] == "--do":
    tasks.append(arguments[1:4])
    arguments = arguments[4:]
process = subprocess.Popen(arguments, env={**os.environ, "QT_LINUX_ACCESSIBILITY_ALWAYS_ON": "1"}, stdout=subprocess.DEVNULL)
try:
    until = time.monotonic() + 120
    program = program_of(process.pid, until)
    trees = [settled(program, until)]
    for role, name, action in tasks:
        shown = lambda t: t.get_state_set().contains(Atspi.StateType.SHOWING)  # noqa: E731
        thing = next((t for t in walk(program) if t.get_role_name() == role and re.fullmatch(name, t.get_name()) and shown(t)), None)
        if thing is None:
            sys.exit(f"no {role} is named {name}")
        if action not in actions_of(thing):
            sys.exit(f"{name} has no action {action}, but {actions_of(thing)}")
        thing.get_action_iface().do_action(actions_of(thing).index(action))
        time.sleep(0.3)
        trees.append(settled(program, until))
    print(json.dumps(trees))
finally:
    process.kill()
    process.wait()
