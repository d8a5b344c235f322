#!/usr/bin/env python3
"""Lists the sentences of the core and of the command line, for lupdate: neither knows Qt, and their literals are the keys."""
import re
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
LITERAL = r'"((?:[^"\\\n]|\\.)*)"'
# Words with a space in them that nobody reads as a sentence: names of what is kept, parts of files, endings.
INTERNAL = re.compile(r'^[.<>,]|^ |^\\"| $|^(small picture|wide tones|mended from|hot pixels|moving lights, by brightness|'
                      r'noise of a frame|scaled frame|parts of|four pairs .*|pile\.json of .*|Fields that are not .*|'
                      r'shift [xy]|shift px|turn deg|residual px|exposure s|gap s|could not be aligned to the reference|'
                      r'Linear sRGB|Display P3|Rec\. 2020)$')


def sentences(room, accepts):
    seen = []
    where = ROOT / room
    for file in [where] if where.is_file() else sorted(where.rglob("*")):
        if file.suffix not in (".cpp", ".h"):
            continue
        text = re.sub(r"//[^\n]*|#include[^\n]*", "", file.read_text())
        for found in re.finditer(LITERAL + r"(?:\s*" + LITERAL + ")*", text):
            words = "".join(re.findall(LITERAL, found[0]))
            if accepts(words) and words not in seen:
                seen.append(words)
    return seen


def is_sentence(words):
    return " " in words.strip() and re.search("[a-z]{2}", words) and not INTERNAL.search(words)


# What is printed in columns is data, and for programs.
def is_told(words):
    return is_sentence(words) and not re.search(r"%-?\d*[sd]|%\.\df|\\n", words) and not OF_LIBRARY.search(words) or words in SHORT


# What the library for options says of wrong calls: it is told apart, not said.
OF_LIBRARY = re.compile(r"\*|^A subcommand is required$")
# Words that stand alone in a help.
SHORT = ("Usage", "OPTIONS", "Options", "REQUIRED", "SUBCOMMAND", "Subcommands", "Positionals", "TEXT", "INT", "UINT", "FLOAT")
print("// The sentences of the core and of the command line, made by scripts/words; not compiled.\n// clang-format off")
# What is painted on signs in the practice scenes stays as it is.
PRACTICE = [("core", f"src/practice/{file}", is_sentence) for file in ("practice.cpp", "truth.cpp", "scenes/table.cpp")]
for context, room, accepts in [("core", "src/core", is_sentence), *PRACTICE, ("cli", "src/cli", is_told)]:
    for words in sentences(room, accepts):
        print(f'QT_TRANSLATE_NOOP("{context}", "{words}");')
# What the library for options explains itself.
for words in ("Print this help message and exit", "Display program version information and exit"):
    print(f'QT_TRANSLATE_NOOP("cli", "{words}");')
