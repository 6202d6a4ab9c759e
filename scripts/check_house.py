#!/usr/bin/python3
"""Checks the house: `scripts/check_house.py [FOLDER]`. Prints what is wrong; exit code 1 when something is.

- every source file on disk is named in a CMakeLists.txt of its folder or above;
- each room includes only rooms above it; the core includes no parser, printer or picture library;
- the library never prints, exits or aborts;
- every source file of a room has a test of its name (tests/ROOM/NAME_test.cpp), or is named at the head of the test that
  covers it: "// Also tests src/ROOM: NAME NAME";
- public headers are installed headers only: none includes src/;
- code that people are shown is compiled: each line of C++ in README.md, docs/ and the heads of public headers stands in an
  example or a test too.
"""

import re
import sys
from pathlib import Path

ROOMS = ["geometry", "model", "ground", "merge", "travel", "check", "play", "files", "draw", "work"]
CORE = {"geometry", "model", "ground", "merge", "travel", "check", "play"}
HEADER_ROOM = {"geometry": "geometry", "ids": "model", "cell": "model", "keys": "files", "report": "model", "result": "model", "world": "model", "map": "model", "tileset": "model",
               "vocabulary": "model", "builder": "model", "contacts": "model", "text": "model",
               "pack": "model", "ground": "ground", "merge": "merge", "raise": "merge", "check": "check", "play": "play", "touch": "play", "triggers": "play", "spawners": "play", "probe": "play", "files": "files", "art": "files", "changes": "files", "edit": "files", "pack_parts": "files", "draw": "draw", "work": "work", "compare": "work", "version": "geometry"}
# The keys that shape the ground are read by the room that works it out. Merged groups, parts and pieces of it have a
# direction that bears the name of the key, and so have links: those may be read.
SHAPES_GROUND = re.compile(r'(\.|->)(sink|offset|shape_offset|decor|carves|rim|rim_barrier|hollow)\b'
                           r'|(?<!\bgroup)(?<!\bkey)(?<!\bpart)(?<!\bpiece)(?<!\bmeaning)(?<!\blink)(?<!\b[ab])(?<!\bfrom_above)(\.|->)one_way\b')
FOREIGN = re.compile(r'#include <(toml\+\+|nlohmann|png|cairo|librsvg|CLI|iostream)')
LOUD = re.compile(r'\b(std::cout|std::cerr|printf|fprintf|puts|fmt::print|std::exit|std::abort|exit|abort)\s*\(|std::c(out|err)\b')


def faults(root):
    listed = "\n".join(p.read_text() for room in ("src", "app", "tests", "examples") for p in root.glob(f"{room}/**/CMakeLists.txt"))
    for source in sorted([*root.glob("src/**/*.cpp"), *root.glob("app/**/*.cpp"), *root.glob("tests/**/*.cpp"), *root.glob("examples/*.cpp")]):
        if not re.search(rf"(^|[\s/]){re.escape(source.name)}\b", listed):
            yield f"{source.relative_to(root)}: in no CMakeLists.txt"
    for source in sorted([*root.glob("src/*/**/*.cpp"), *root.glob("src/*/**/*.hpp")]):
        room = room_of(root, source)
        text = source.read_text()
        for header, beside in re.findall(r'#include "(?:dryground/(\w+)\.hpp|((?:\.\./)+\w+/))', text):
            other = HEADER_ROOM.get(header, header) if header else room_of(root, source.parent / beside / "any")
            if other not in ROOMS or ROOMS.index(other) > ROOMS.index(room):
                yield f"{source.relative_to(root)}: room '{room}' may not use '{other}'"
        if room in CORE and (found := FOREIGN.search(text)):
            yield f"{source.relative_to(root)}: the core may not use {found.group(1)}"
        for number, line in enumerate(text.splitlines(), 1):
            if room in ("merge", "travel", "check", "play", "draw") and SHAPES_GROUND.search(line):
                yield f"{source.relative_to(root)}:{number}: only ground/ reads the keys that shape the ground"
            if LOUD.search(line.split("//")[0]):
                yield f"{source.relative_to(root)}:{number}: the library never prints, exits or aborts"
    for header in sorted(root.glob("include/dryground/*.hpp")):
        if re.search(r'#include ".*(src/|internal)', header.read_text()):
            yield f"{header.relative_to(root)}: a public header may not include src/"
    yield from unmirrored(root)
    yield from uncompiled(root)


def room_of(root, source):
    """The folder of src/ that a file is in; a room may have folders of its own."""
    return source.resolve().relative_to(root / "src").parts[0]


def unmirrored(root):
    tested = {}
    for test in sorted(root.glob("tests/*/*_test.cpp")):
        tested[f"{test.parent.name}/{test.name.removesuffix('_test.cpp')}"] = test
        for room, names in re.findall(r"^// Also tests src/(\w+): (.+)$", test.read_text(), re.M):
            for name in names.split():
                if not any((root / "src" / room).glob(f"**/{name}.cpp")):
                    yield f"{test.relative_to(root)}: there is no {name}.cpp in src/{room}"
                tested[f"{room}/{name}"] = test
    for source in sorted(root.glob("src/*/**/*.cpp")):
        if f"{room_of(root, source)}/{source.stem}" not in tested:
            yield f"{source.relative_to(root)}: no test of its name, and no test says that it tests it"


def bare(line):
    """A line of code without its comment and white space."""
    return re.sub(r"\s+", "", re.sub(r"\s//.*|^\s*//.*|/\*.*?\*/", "", line))


def shown_code(root):
    """Lines of code in documents and in the heads of headers: (file, line number, text)."""
    for page in [root / "README.md", *sorted(root.glob("docs/*.md"))]:
        inside = False
        for number, line in enumerate(page.read_text().splitlines(), 1):
            if line.startswith("```"):
                inside = line == "```cpp"
            elif inside:
                yield page, number, line
    for header in sorted([*root.glob("include/dryground/*.hpp"), *root.glob("bridges/dryground/*.hpp")]):
        for number, line in enumerate(header.read_text().splitlines(), 1):
            if not line.startswith("//"):
                break
            if line.startswith("//     "):
                yield header, number, line[2:]


def uncompiled(root):
    # Without white space and line ends: formatting may break lines of code elsewhere than those of a page.
    compiled = ["".join(bare(line) for line in source.read_text().splitlines())
                for source in [*root.glob("examples/*.cpp"), *root.glob("tests/**/*.cpp")]]
    for file, number, line in shown_code(root):
        code = bare(line).removesuffix("…")   # what an example leaves out
        if code and not any(code in text for text in compiled):
            yield f"{file.relative_to(root)}:{number}: this code is in no example and no test: {line.strip()}"


def main():
    found = list(faults(Path(sys.argv[1] if len(sys.argv) > 1 else ".").resolve()))
    print("\n".join(found) or "the house is in order")
    return 1 if found else 0


if __name__ == "__main__":
    sys.exit(main())
