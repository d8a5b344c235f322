#!/usr/bin/env python3
"""Writes the manual page of the command line from what it says of itself: manual.py PROGRAM > bright-pile-cli.1"""
import re
import subprocess
import sys

PROGRAM = sys.argv[1]


def help_of(*command):
    return subprocess.run([PROGRAM, *command, "--help"], check=True, capture_output=True, text=True).stdout.splitlines()


def plain(text):
    return text.replace("\\", "\\e").replace("-", "\\-").replace("'", "\\(aq")


def entries(lines, heading):
    """(name, words) of a section of the help: both may go on over lines."""
    out, inside = [], False
    for line in lines:
        if not line.startswith(" "):
            inside = line == heading
        elif inside and re.match(r"  \S", line):
            name, _, words = line[2:].partition("  ")
            out.append([name, words.strip()])
        elif inside and out:
            out[-1][1] = f"{out[-1][1]} {line.strip()}".strip()
    return out


def values(name):
    """The ways in which the help names types, as a manual does."""
    name = name.replace(" REQUIRED", "").replace(" ...", "")
    name = re.sub(r"(?:TEXT|INT|FLOAT|UINT):\{([^}]*)\}", lambda m: m[1].replace(",", "|"), name)
    name = re.sub(r"(?:INT|FLOAT|UINT|TEXT):\S+ in \[(\S+) - (\S+)\]", r"\1..\2", name)
    return re.sub(r"\b(TEXT|INT|FLOAT|UINT)\b(:\S+)?", "VALUE", name)


def section(title, pairs):
    if not pairs:
        return
    print(f".SS {plain(title)}" if title.startswith("bright") else f".SH {title}")
    for name, words in pairs:
        print(f".TP\n.B {plain(values(name))}\n{plain(words)}")


version = subprocess.run([PROGRAM, "--version"], check=True, capture_output=True, text=True).stdout.split()[-1]
top = help_of()
commands = entries(top, "Subcommands:")
print(f'''.TH BRIGHT\\-PILE\\-CLI 1 "" "Bright Pile {version}" "User commands"
.SH NAME
bright\\-pile\\-cli \\- {plain("merge a run of frames of one scene into one picture")}
.SH SYNOPSIS
.B bright\\-pile\\-cli
.I COMMAND
.RI [ OPTIONS ]
.SH DESCRIPTION
{plain(top[0])}
Progress goes to standard error, results to standard output. Frames are files, folders or globs, ordered by the time they
were taken and then by name.''')
section("COMMANDS", commands)
print(".SH OPTIONS OF COMMANDS")
for name, words in commands:
    lines = help_of(name)
    usage = next(line for line in lines if line.startswith("Usage:")).split(f" {name} ", 1)[-1]
    section(f"bright-pile-cli {name} {usage}", entries(lines, "Positionals:") + entries(lines, "Options:"))
print('''.SH EXIT STATUS
.TP
.B 0
The work is done.
.TP
.B 1
Some frames could not be used, and the result was written without them.
.TP
.B 2
The call was wrong.
.TP
.B 3
The input cannot be used.
.TP
.B 4
The result cannot be written.
.TP
.B 130
The work was stopped.
.SH EXAMPLES
.TP
The trails of a night:
bright\\-pile\\-cli merge nights/2026\\-09\\-12 \\-\\-mode lighten \\-\\-knit auto \\-o trails.tif
.TP
The same view with far less noise:
bright\\-pile\\-cli merge burst/*.jpg \\-\\-align rigid \\-\\-mode clipped\\-mean \\-o quiet.tif
.SH SEE ALSO
.BR bright\\-pile (1)''')
