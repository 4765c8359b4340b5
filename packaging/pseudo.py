#!/usr/bin/env python3
"""A catalogue in a language nobody speaks, for tests: each sentence in brackets, its letters changed, two fifths longer.

pseudo.py po/deepstop.pot > pseudo.po     What is filled in, marks of paragraphs and keys of menus stay as they are.
"""
import re
import sys

LETTERS = str.maketrans("aceinosuyACEINOSUY", "àçéîñöšüýÀÇÉÎÑÖŠÜÝ")
KEPT = re.compile(r"\{[^}]*\}|%n|%\d|<[^>]*>|\\.|&(?=\w)|;;|\(\*[^)]*\)")


def pseudo(text):
    """`text` and the result as they stand in a .po file, escaped."""
    around = re.match(r"((?:\\n|\s)*)(.*?)((?:\\n|\s)*)$", text)
    before, inside, behind = around.groups()
    out, at = [], 0
    for kept in KEPT.finditer(inside):
        out += [inside[at : kept.start()].translate(LETTERS), kept.group()]
        at = kept.end()
    out.append(inside[at:].translate(LETTERS))
    longer = "~" * max(1, round(0.4 * len(KEPT.sub("", inside))) - 2)
    body = "".join(out)
    # Kinds of files keep their shape: brackets go round each name.
    if ";;" in body or "(*" in body:
        return before + body + behind
    return f"{before}«{body}{longer}»{behind}"


def main():
    entries = re.split(r"\n\n+", open(sys.argv[1], encoding="utf-8").read())
    print('msgid ""\nmsgstr ""\n"Language: xx\\n"\n"Content-Type: text/plain; charset=UTF-8\\n"\n')
    for entry in entries:
        found = re.search(r'^msgid ((?:"(?:[^"\\]|\\.)*"\n?)+)msgstr', entry, re.MULTILINE)
        text = "".join(re.findall(r'"((?:[^"\\]|\\.)*)"', found.group(1))) if found else ""
        if text and re.search(r"[A-Za-z]{2}", KEPT.sub("", text)):
            print(f'msgid "{text}"\nmsgstr "{pseudo(text)}"\n')


main()
