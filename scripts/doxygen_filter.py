#!/usr/bin/env python3
"""Turns the plain comments of a header into those that Doxygen reads, line for line: what stands at its head is about
the file, what stands above a declaration is about that, what stands behind one is about it too. Of a page in Markdown:
links to its own headings into such that Doxygen leaves alone."""
import re
import sys

SECTION = re.compile(r"^\s*// ---- (.*?)[ -]*$")
ALONE = re.compile(r"^(\s*)//(?!/)( ?)(.*)$")
BEHIND = re.compile(r"^(.*\S)(\s+)//(?!/) ?(.*)$")
END_OF_GROUP = re.compile(r"^(private:|\};)")


def is_code(text):
    """Whether a // behind it begins a comment: not one inside of a text."""
    return text.count('"') % 2 == 0


class Filter:
    """Line for line, so that Doxygen's numbers of lines are the header's."""

    def __init__(self):
        self.in_head = True
        self.column = None       # where the comment behind the line before began
        self.in_group = False    # of members, named by a section's line

    def section(self, line):
        self.column = None
        if not line.startswith(" "):   # between the parts of a file
            return ""
        close = "/** @} */ " if self.in_group else ""
        self.in_group = True
        return f"{close}/** @name {SECTION.match(line).group(1)} *//** @{{ */"

    def alone(self, match, number):
        space, gap, text = match.groups()
        if self.in_head:
            return ("/// @file\n///" if number == 0 else "///") + gap + text
        if self.column == len(space):
            return f"{space}///< {text}"
        self.column = None
        return f"{space}///{gap}{text}"

    def behind(self, match):
        code, space, text = match.groups()
        self.column = len(code) + len(space)
        return code if code.strip() == "}" else f"{code}{space}///< {text}"

    def line(self, number, line):
        if SECTION.match(line):
            return self.section(line)
        alone = ALONE.match(line)
        if alone:
            return self.alone(alone, number)
        if line.strip():
            self.in_head = False
        if self.in_group and END_OF_GROUP.match(line):
            self.in_group = False
            line = "/** @} */ " + line
        behind = BEHIND.match(line)
        if behind and is_code(behind.group(1)):
            return self.behind(behind)
        self.column = None
        return line


def header(text):
    each = Filter()
    return "\n".join(each.line(number, line) for number, line in enumerate(text.split("\n")))


def page(text):
    """Links to headings of the same page, which Doxygen takes for names of its own; scripts/docs names the headings."""
    return re.sub(r"\[([^\]]*)\]\(#([\w-]+)\)", r'<a href="#\2">\1</a>', text)


if __name__ == "__main__":
    with open(sys.argv[1], encoding="utf-8") as file:
        print((page if sys.argv[1].endswith(".md") else header)(file.read()), end="")
