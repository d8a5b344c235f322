#!/usr/bin/env python3
"""Lists the sentences of the core, for lupdate: the core knows no translator, and its literals are the keys."""
import re
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
LITERAL = r'"((?:[^"\\\n]|\\.)*)"'
# Words with a space in them that nobody reads as a sentence: names of what is kept, parts of files, endings.
INTERNAL = re.compile(r'^[.<>,]|^ |^\\"| $|^(small picture|wide tones|mended from|hot pixels|moving lights, by brightness|'
                      r'noise of a frame|scaled frame|parts of|four pairs .*|pile\.json of .*|Fields that are not .*|'
                      r'Linear sRGB|Display P3|Rec\. 2020)$')
seen = []
for file in sorted((ROOT / "src/core").rglob("*")):
    if file.suffix not in (".cpp", ".h"):
        continue
    text = re.sub(r"//[^\n]*|#include[^\n]*", "", file.read_text())
    for found in re.finditer(LITERAL + r"(?:\s*" + LITERAL + ")*", text):
        words = "".join(re.findall(LITERAL, found[0]))
        if " " in words.strip() and re.search("[a-z]{2}", words) and not INTERNAL.search(words) and words not in seen:
            seen.append(words)
print("// The sentences of the core, made by scripts/words; not compiled.\n// clang-format off")
for words in seen:
    print(f'QT_TRANSLATE_NOOP("core", "{words}");')
