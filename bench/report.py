#!/usr/bin/env python3
"""Runs the benchmarks and writes docs/bench.md. Every figure is a ratio of times taken in one run, each beside its
neighbour, because machines differ and other work comes and goes. Named groups (merge, short, many, median, kernels, window,
large, rail, measure, align, lights, parts, finish) run alone; the lines of the others stay as they were."""
import json
import os
import signal
import statistics
import subprocess
import sys
import tempfile
import time
import zipfile
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
BIN = ROOT / "build/release/bin"
FRAMES = ROOT / "demo/bench/frames"
LINKS = ROOT / "demo/bench/links"
SOFT = ROOT / "demo/bench/soft"
LARGE = ROOT / "demo/bench/large"
STARS = ROOT / "demo/bench/stars"
BURST = ROOT / "demo/bench/burst"
OUT = ROOT / "demo/bench/out"


def files(count):
    """`count` different names; beyond those that exist, links to the same bytes."""
    real = sorted(FRAMES.glob("*.jpg"))
    if count <= len(real):
        return real[:count]
    LINKS.mkdir(parents=True, exist_ok=True)
    out = []
    for i in range(count):
        link = LINKS / f"frame-{i + 1:04d}.jpg"
        if not link.exists():
            os.link(real[i % len(real)], link)
        out.append(link)
    return out


def decode_files(names, shrink=1, cores=None):
    done = subprocess.run([BIN / "bright-pile-decode-bench", str(shrink), *names], check=True, capture_output=True,
                          text=True, preexec_fn=cores and (lambda: os.sched_setaffinity(0, cores)))
    return float(done.stdout)


def decode(count, shrink=1, cores=None):
    return decode_files(files(count), shrink, cores)


def merge(count, mode, name="out.tif", *more):
    return merge_files(files(count), mode, name, *more)


def merge_files(names, mode, name="out.tif", *more):
    """Wall seconds and peak bytes of a merge as a person runs it, into a file that is not there before."""
    (OUT / name).unlink(missing_ok=True)
    begin = time.perf_counter()
    run = subprocess.Popen([BIN / "bright-pile-cli", "merge", "--quiet", "--mode", mode, *more, "-o", OUT / name, *names])
    _, status, usage = os.wait4(run.pid, 0)
    seconds = time.perf_counter() - begin
    run.returncode = os.waitstatus_to_exitcode(status)
    if run.returncode != 0:
        raise subprocess.CalledProcessError(run.returncode, run.args)
    return seconds, usage.ru_maxrss * 1024


def merge_facts(count, mode, name="out.tif", *more):
    """The report of a merge."""
    report = OUT / "report.json"
    (OUT / name).unlink(missing_ok=True)
    subprocess.run([BIN / "bright-pile-cli", "merge", "--quiet", "--mode", mode, *more, "--report", report, "-o",
                    OUT / name, *files(count)], check=True)
    return json.loads(report.read_text())


def between(rounds, work, measure):
    """The ratios of work() to measure(), which runs before and after every work, so that a slow minute of the machine
    weighs on both."""
    ratios = []
    before = measure()
    for _ in range(rounds):
        seconds = work()
        after = measure()
        ratios.append(seconds / ((before + after) / 2))
        before = after
    return ratios


def spread(ratios):
    """The middle ratio with the least and the greatest."""
    return f"{statistics.median(ratios):.2f} x ({min(ratios):.2f} to {max(ratios):.2f} in {len(ratios)} rounds)"


def against_decoding(count, mode, rounds=3, more=()):
    """The median ratio, the highest peak, and in what the threads spent their time."""
    runs = []

    def work():
        runs.append(merge(count, mode, "out.tif", *more))
        return runs[-1][0]

    ratios = between(rounds, work, lambda: decode(count))
    spent = merge_facts(count, mode, "out.tif", *more)["thread_s"]
    shares = ", ".join(f"{name} {100 * s / sum(spent.values()):.0f} %" for name, s in spent.items())
    return statistics.median(ratios), max(peak for _, peak in runs), shares


def stopping():
    """Milliseconds from an interrupt in the middle of a merge to the end of the program, and whether it left a file."""
    waits = []
    out = OUT / "stopped.tif"
    for mode in ("lighten", "median", "clipped-mean"):
        running = subprocess.Popen([BIN / "bright-pile-cli", "merge", "--quiet", "--mode", mode, "-o", out, *files(90)],
                                   stderr=subprocess.DEVNULL)
        time.sleep(4)
        begin = time.perf_counter()
        running.send_signal(signal.SIGINT)
        running.wait()
        waits.append(1000 * (time.perf_counter() - begin))
    left = [f.name for f in OUT.iterdir() if f.name.startswith("stopped")]
    return max(waits), left


def window():
    """The waits of a person in the real window, and the seconds of decoding the files at 1/8."""
    with tempfile.TemporaryDirectory(dir=OUT) as cache:
        before = decode(90, 8)
        waits = in_window(FRAMES, cache=cache)
        decoding = (before + decode(90, 8)) / 2
        again = statistics.median(in_window(FRAMES, "open", cache=cache)["first_sight"] for _ in range(3))
    return waits, decoding, again


def in_window(*args, cache=None, scale="1"):
    """With a cache folder of its own, or one that was empty before."""
    with tempfile.TemporaryDirectory(dir=OUT) as empty:
        done = subprocess.run([BIN / "bright-pile-window-bench", *args], check=True, capture_output=True, text=True,
                              env={**os.environ, "QT_QPA_PLATFORM": "offscreen", "XDG_CACHE_HOME": cache or empty,
                                   "QT_SCALE_FACTOR": scale})
    return json.loads(done.stdout)


def seconds_of(*command):
    begin = time.perf_counter()
    subprocess.run(command, check=True, stdout=subprocess.DEVNULL)
    return time.perf_counter() - begin


def median_of_16():
    """Times of vips bandrank and of NumPy's median, with decoding on one core (as its script would) and on all, over
    ours, and whether the answers are the same."""
    import numpy
    ours = statistics.median(merge(16, "median", "ours.tif")[0] for _ in range(3))
    begin = time.perf_counter()
    subprocess.run(["vips", "bandrank", " ".join(map(str, files(16))), OUT / "vips.tif"], check=True)
    vips = time.perf_counter() - begin
    subprocess.run([BIN / "bright-pile-cli", "merge", "--quiet", "--mode", "median", "-o", OUT / "ours15.tif",
                    *files(15)], check=True)
    subprocess.run(["vips", "bandrank", " ".join(map(str, files(15))), OUT / "vips15.tif"], check=True)

    def raw(source, kind):
        subprocess.run(["vips", "rawsave", source, OUT / "raw"], check=True)
        return numpy.fromfile(OUT / "raw", dtype=kind).reshape(4000, 6000, 3)

    same_vips = bool((raw(OUT / "ours15.tif", numpy.uint16) == 257 * raw(OUT / "vips15.tif", numpy.uint8)
                      .astype(numpy.uint16)).all())
    stack = numpy.stack([raw(f, numpy.uint8) for f in files(16)])
    answer = raw(OUT / "ours.tif", numpy.uint16)
    same_numpy = True
    spent = 0.0
    for y in range(0, 4000, 100):
        begin = time.perf_counter()
        rows = numpy.median(stack[:, y:y + 100], axis=0)
        spent += time.perf_counter() - begin
        same_numpy &= bool((numpy.floor(rows * 257 + 0.5) == answer[y:y + 100]).all())
    one_core = {min(os.sched_getaffinity(0))}
    return (vips / ours, (spent + decode(16, cores=one_core)) / ours, (spent + decode(16)) / ours, same_vips,
            same_numpy)


def kernels():
    done = subprocess.run([BIN / "bright-pile-bench", "--benchmark_format=json", "--benchmark_repetitions=5",
                           "--benchmark_enable_random_interleaving=true",
                           "--benchmark_report_aggregates_only=true"], check=True, capture_output=True, text=True)
    return {b["run_name"]: b for b in json.loads(done.stdout)["benchmarks"] if b["aggregate_name"] == "median"}


def mb(count):
    return f"{count / 1e6:.0f} MB"


def merge_rows(row):
    for mode, limit, peak_limit in [("lighten", 1.2, 700), ("maximum", 1.2, 700), ("mean", 1.2, 700),
                                    ("median", 1.5, 1200), ("clipped-mean", 1.5, 1200)]:
        ratio, peak, shares = against_decoding(90, mode)
        row(f"{mode} of 90 frames to 16-bit TIFF, over libjpeg-turbo decoding them",
            f"{limit} x, {peak_limit} MB", f"{ratio:.2f} x, {mb(peak)} ({shares} of the threads' time)")
    ratio, peak, shares = against_decoding(90, "lighten", more=("--taper", "50"))
    row("lighten of 90 frames, trails fading over half of the run, over libjpeg-turbo decoding them", "1.25 x",
        f"{ratio:.2f} x, {mb(peak)} ({shares} of the threads' time)")
    ratio, peak, shares = against_decoding(90, "lighten", more=("--taper", "50", "--head", "3", "--head-apart", "4",
                                                                "--head-radius", "4"))
    row("the same with a head of 3 frames, grown and softened by 4 px, over libjpeg-turbo decoding them", "1.4 x",
        f"{ratio:.2f} x, {mb(peak)} ({shares} of the threads' time)")
    wait, left = stopping()
    row("interrupt in the middle of a merge of 90 frames, until the program has ended", "200 ms, no file left",
        f"{wait:.0f} ms, {'no file' if not left else left} left")


def short_rows(row):
    """Runs so short that beginning and ending count."""
    soft = sorted(SOFT.glob("*.jpg"))
    for mode, limit in [("lighten", 1.2), ("maximum", 1.2), ("median", 1.2), ("mean", 1.4), ("clipped-mean", 1.4)]:
        ratios = between(21, lambda: merge_files(soft, mode)[0], lambda: decode_files(soft))
        row(f"{mode} of {len(soft)} soft frames to 16-bit TIFF, over libjpeg-turbo decoding them", f"{limit} x",
            spread(ratios))
    row("bright-pile-cli --version, over vips --version", "1.5 x",
        spread(between(21, lambda: seconds_of(BIN / "bright-pile-cli", "--version"),
                       lambda: seconds_of("vips", "--version"))))


def many_rows(row):
    for mode in ("maximum", "median"):
        peaks = {}

        def seconds(count):
            taken, peaks[count] = merge(count, mode)
            return taken

        ratios = between(5, lambda: seconds(400), lambda: seconds(100))
        row(f"{mode}: 400 frames over 100", "time x 4.2, memory x 1.1",
            f"time {spread(ratios)}, memory x {peaks[400] / peaks[100]:.2f} ({mb(peaks[400])})")


def median_rows(row):
    vips, numpy, numpy_all, same_vips, same_numpy = median_of_16()
    row("vips bandrank of 16 frames over our median", "5 x, same answer",
        f"{vips:.1f} x, {'same' if same_vips else 'ANOTHER'} answer (of 15, where bandrank has a middle)")
    row("NumPy's median of 16 frames, decoded one after another, over our median", "10 x, same answer",
        f"{numpy:.1f} x, {'same' if same_numpy else 'ANOTHER'} answer ({numpy_all:.1f} x with decoding on all cores)")


def kernel_rows(row):
    found = kernels()

    def ratio(a, b):
        return f"{found[a]['real_time'] / found[b]['real_time']:.2f} x"

    row("median kernel over maximum kernel, 16 rows in memory, as in a merge", "2 x",
        ratio("median_from_memory/min_time:2.000", "maximum_from_memory/min_time:2.000"))
    row("the same when all rows lie in the nearest caches", "-", ratio("median/16", "maximum/16"))
    for mode in ("maximum", "median", "mean", "clipped_mean"):
        row(f"a row of 16 frames of which each leaves out a twentieth, over one without votes: {mode}", "1.25 x",
            ratio(f"merged_row/{mode}_voted/min_time:1.000", f"merged_row/{mode}/min_time:1.000"))
    row("a merged row without votes over its kernel: maximum", "-",
        ratio("merged_row/maximum/min_time:1.000", "maximum_from_memory/min_time:2.000"))
    copy = found["copy"]["bytes_per_second"]
    for name, b in found.items():
        row(f"kernel {name}: bytes read per second, of the machine's own copy speed", "-",
            f"{b['bytes_per_second'] / 1e9:.1f} GB/s, {b['bytes_per_second'] / copy:.2f}")


def waits_in_words(waits, name):
    w = waits[name]
    return f"{w['median']:.0f} ms, worst {w['worst']:.0f} (of {w['of']})"


EDITS = [("mode change at fit zoom, 90 frames", "100 ms median, 200 ms worst", "mode"),
         ("strength slider at fit zoom", "100 ms median, 200 ms worst", "slider"),
         ("taper pulled at fit zoom", "100 ms median, 200 ms worst", "taper"),
         ("head of 5 frames grown at fit zoom", "100 ms median, 200 ms worst", "head"),
         ("a point through all frames, at fit zoom", "100 ms", "plumb"),
         ("set aside, take back at fit zoom", "100 ms median, 200 ms worst", "set_aside"),
         ("a frame nudged by hand, in the difference at fit zoom", "50 ms", "nudge"),
         ("brush segment to screen, in the result", "16 ms median", "brush_result"),
         ("brush segment to screen, on the frame", "16 ms median", "brush_frame"),
         ("frame flip at fit zoom", "30 ms", "flip"),
         ("frame flip at 1:1, frames seen before", "-", "full_size_flip"),
         ("move at 1:1, with the pause that ends a move", "-", "full_size_pan"),
         ("mode change until the picture has the screen's own resolution", "-", "mode_screen_resolution")]


def first_look(waits, whole):
    return (f"{waits['full_size'] / 1000 / whole:.2f} x; something to see after "
            f"{waits['full_size_few'] / 1000 / whole:.2f} x; "
            f"all frames at hand after {waits['full_size_near'] / 1000 / whole:.2f} x")


def window_rows(row):
    waits, decoding, again = window()
    whole = decode(90)
    row("window: first merged sight of 90 frames, over decoding them all at 1/8", "1.3 x",
        f"{waits['first_sight'] / 1000 / decoding:.2f} x")
    row("window: the same of a pile that was open before, in a new run of the program", "0.3 x",
        f"{again / 1000 / decoding:.2f} x")
    for words, limit, name in EDITS:
        row(f"window: {words}", limit, waits_in_words(waits, name))
    row("window: 90 frames listed; first frame seen; growing picture seen", "-",
        f"{waits['listed']:.0f} ms; {waits['first_frame']:.0f} ms; {waits['growing']:.0f} ms")
    row("window: 1:1 of all 90 frames for the first time, over decoding them all", "0.6 x", first_look(waits, whole))


def large_rows(row):
    """The same waits where there are more pixels of everything."""
    names = sorted(LARGE.glob("*.jpg"))
    for frames, of, words, size, scale in [
            (FRAMES, files(90), "24 MP, 3840 x 2160 at 200 %", ("1920", "1080"), "2"),
            (LARGE, names, "60 MP, 1280 x 800", ("1280", "800"), "1"),
            (LARGE, names, "60 MP, 3840 x 2160 at 200 %", ("1920", "1080"), "2")]:
        waits = in_window(frames, "all", *size, scale=scale)
        row(f"{words}: first merged sight of 90 frames, over decoding them all at 1/8", "1.3 x",
            f"{waits['first_sight'] / 1000 / decode_files(of, 8):.2f} x")
        for edit, limit, name in EDITS:
            row(f"{words}: {edit}", limit, waits_in_words(waits, name))
        row(f"{words}: 1:1 of all 90 frames for the first time, over decoding them all", "0.6 x",
            first_look(waits, decode_files(of)))


def measure_rows(row):
    def work():
        done = subprocess.run([BIN / "bright-pile-measure-bench", *files(90)], check=True, capture_output=True, text=True)
        return float(done.stdout)

    row("measuring 90 frames and marking the odd ones, their decoding at 1/8 included, over libjpeg-turbo decoding them "
        "at 1/8", "-", spread(between(3, work, lambda: decode(90, 8))))


def align_rows(row):
    """Times of aligning over those of decoding, and of merging what was aligned over merging what was not."""

    def rigid():
        return merge_facts(16, "one", "aligned.tif", "--align", "rigid")["time_s"]["align"]

    row("aligning 16 frames (rigid), over libjpeg-turbo decoding them", "0.7 x",
        spread(between(21, rigid, lambda: decode(16))))
    peaks = []

    def turned():
        facts = merge_facts(90, "median", "aligned.tif", "--align", "rigid")
        peaks.append(facts["peak_memory_bytes"])
        return facts["time_s"]["merge"]

    ratios = between(5, turned, lambda: merge_facts(90, "median")["time_s"]["merge"])
    row("median of 90 aligned frames, over that of the same frames not aligned", "1.3 x",
        f"{spread(ratios)}, {mb(max(peaks))}")
    stars = sorted(STARS.glob("*.jpg"))

    def sky():
        report = OUT / "report.json"
        subprocess.run([BIN / "bright-pile-cli", "merge", "--quiet", "--mode", "one", "--align", "stars", "--report", report,
                        "-o", OUT / "stars.tif", *stars], check=True)
        return json.loads(report.read_text())["time_s"]["align"]

    row(f"aligning {len(stars)} frames by their stars, over libjpeg-turbo decoding them", "1.0 x",
        spread(between(5, sky, lambda: decode_files(stars))))


def lights_rows(row):
    """Closing breaks and finding streaks, with nothing known of the frames before, over decoding them."""
    stars = sorted(STARS.glob("*.jpg"))

    def afresh(*arguments):
        with tempfile.TemporaryDirectory() as cache:
            begin = time.perf_counter()
            subprocess.run([BIN / "bright-pile-cli", *arguments, "--quiet", *stars], check=True,
                           stdout=subprocess.DEVNULL, env={**os.environ, "XDG_CACHE_HOME": cache})
            return time.perf_counter() - begin

    known = []

    def knit():
        report = OUT / "report.json"
        (OUT / "knit.tif").unlink(missing_ok=True)
        seconds = afresh("merge", "--mode", "maximum", "--knit", "auto", "--report", report, "-o", OUT / "knit.tif")
        known.append(seconds - json.loads(report.read_text())["time_s"]["lights"])
        return seconds

    decodings = []

    def decoding():
        decodings.append(decode_files(stars))
        return decodings[-1]

    row(f"maximum of {len(stars)} frames, knitted, the lights' ways found in it, over decoding them", "-",
        spread(between(5, knit, decoding)))
    row("the same without the time of finding them", "2.0 x",
        spread([seconds / ((before + after) / 2) for seconds, before, after in zip(known, decodings, decodings[1:])]))
    row(f"streaks of {len(stars)} frames found, over decoding them", "1.0 x",
        spread(between(5, lambda: afresh("streaks"), lambda: decode_files(stars))))


def parts_rows(row):
    burst = sorted(BURST.glob("*.jpg"))

    def sequence():
        begin = time.perf_counter()
        subprocess.run([BIN / "bright-pile-cli", "sequence", "--quiet", "-o", OUT / "sequence.tif", *burst], check=True,
                       stdout=subprocess.DEVNULL)
        return time.perf_counter() - begin

    row(f"sequence of {len(burst)} burst frames, aligned, from nothing to picture, over libjpeg-turbo decoding them",
        "3 x", spread(between(5, sequence, lambda: decode_files(burst))))
    waits = in_window(BURST, "parts")

    row(f"least seam of 2000 x 2000 px after a stroke, {len(burst)} frames of 24 MP, until the screen shows it",
        "500 ms", waits_in_words(waits, "seam"))
    row("the same, blended", "500 ms", waits_in_words(waits, "blend"))
    row("what every frame has under the pointer, until the rail shows it", "50 ms", waits_in_words(waits, "places"))
    row("a stroke on one of 100 parts, until the result shows it", "16 ms", waits_in_words(waits, "brush_hundred_parts"))


ALL_TOOLS = {
    "look": {"exposure_ev": 0.3, "deep": 20, "warmth": 15, "colour_strength": 20, "contrast": 10},
    "curves": {"brightness": {"points": [[0.25, 0.22], [0.7, 0.75]]}},
    "colours": [{"hue_at": 210, "strength": 20, "brightness": -20}, {"hue_at": 30, "strength": 10}],
    "tints": {"dark_hue": 230, "dark_strength": 20, "bright_hue": 40, "bright_strength": 20},
    "places": [{"id": 1, "shape": {"kind": "ramp", "from": [3000, 100], "to": [3000, 2000]}, "look": {"exposure_ev": -0.5}},
               {"id": 2, "shape": {"kind": "ellipse", "from": [1000, 1000], "to": [4000, 3000]},
                "look": {"exposure_ev": 0.4, "warmth": 10}}],
    "detail": {"sharpen": 80, "local": 30, "wide": 30, "smooth": 40, "smooth_colour": 60, "stars": -30},
    "glow": 60,
    "edges": {"stops": -1},
    "mended": [{"id": 1, "way": [[1500, 1500]], "width_px": 20, "from": [30, 0]}],
}


def finish_rows(row):
    """What finishing with all of its tools adds to a merge, over decoding 90 frames."""
    finish = OUT / "all.finish"
    with zipfile.ZipFile(finish, "w") as archive:
        archive.writestr("finish.json", json.dumps({"format": "bright-pile-finish", "version": 2, "size": [6000, 4000],
                                                    "finish": ALL_TOOLS}))
    # With as many frames as some tools look at: more do not cost more.
    few = 6
    shares, peaks = [], []
    for _ in range(5):
        plain, _ = merge(few, "maximum")
        finished, peak = merge(few, "maximum", "out.tif", "--finish", finish)
        shares.append((finished - plain) / (decode(few) * 90 / few))
        peaks.append(peak)
    row(f"finish of 24 MP with all of its tools, on top of the same merge without (of {few} frames), over decoding 90", "0.3 x",
        f"{spread(shares)}, peak {mb(max(peaks))}")

    def growth():
        clip = OUT / "grown.mp4"
        clip.unlink(missing_ok=True)
        begin = time.perf_counter()
        subprocess.run([BIN / "bright-pile-cli", "growth", "--quiet", "--lines", "1080", *files(90), "-o", clip], check=True)
        return time.perf_counter() - begin

    row("growth of 90 frames of 24 MP at 1080 lines to MP4, over decoding them", "1.3 x", spread(between(3, growth, lambda: decode(90))))
    waits = in_window(FRAMES, "finish")

    row("a value of the tone control of Finish at fit zoom, 90 frames, until the screen shows it", "50 ms", waits_in_words(waits, "finish_tone"))
    row("the same with all tools but mending at work", "-", waits_in_words(waits, "finish_tone_busy"))
    row("a value of sharpening at 1:1, until the screen shows it", "100 ms", waits_in_words(waits, "finish_detail"))
    row("a spot that is mended at 1:1, from the click until the screen shows it", "200 ms", waits_in_words(waits, "finish_mended"))


def rail_rows(row):
    files(400)
    waits = in_window(LINKS, "rail")

    row(f"time rail with {waits['frames']} frames: zoom and scroll by the wheel", "30 ms", waits_in_words(waits, "rail_scroll"))
    row(f"time rail with {waits['frames']} frames: flip by key, until the rail shows it", "30 ms", waits_in_words(waits, "rail_flip"))


GROUPS = {"merge": merge_rows, "short": short_rows, "many": many_rows, "median": median_rows, "kernels": kernel_rows, "window": window_rows, "large": large_rows,
          "rail": rail_rows, "measure": measure_rows, "align": align_rows,
          "lights": lights_rows, "parts": parts_rows, "finish": finish_rows}


def known_rows():
    """Lines of docs/bench.md by group, as they stand."""
    out, group = {}, None
    for line in (ROOT / "docs/bench.md").read_text().splitlines():
        if line.startswith("## "):
            group = line[3:]
        elif group and line.startswith("| ") and not line.startswith("| what"):
            out.setdefault(group, []).append(line)
    return out


def main(names):
    OUT.mkdir(parents=True, exist_ok=True)
    lines = known_rows()
    for group in names or GROUPS:
        lines[group] = []

        def row(what, limit, found):
            lines[group].append(f"| {what} | {limit} | {found} |")
            print(f"{what}: {found} (limit {limit})", flush=True)

        GROUPS[group](row)
    tables = "\n\n".join(f"## {group}\n\n| what | limit | measured |\n|---|---|---|\n" + "\n".join(lines.get(group, []))
                         for group in GROUPS)
    (ROOT / "docs/bench.md").write_text(f"""# Figures

Printed by `scripts/bench`. Every figure is a ratio of times taken in one run, one beside the other; the machine here had
{os.cpu_count()} cores, shared with other work. Files: JPEG of 24 megapixels, quality 92, a scene of the practice camera
enlarged, with noise of its own in every frame ({mb(statistics.mean(f.stat().st_size for f in files(90)))} each). Beyond 90
frames the same files repeat under links. A merge is the whole run of `bright-pile-cli merge`: start, opening,
decoding, merging, writing a new 16-bit TIFF and waiting for the disk. Waits in the window are from the input event to the
end of the paint event that shows what came of it, in the real window at 1280 x 800 with 90 of these frames. At fit zoom
the picture that answers is that of level 3 (750 x 500); the screen's own resolution follows in a line of its own. The
group "large" has frames of 60 megapixels and a window that fills a screen of 3840 x 2160 at 200 %.

From the start screen to the exported file, opening the frames and naming the file included, it takes 7 clicks and keys for Trails, Clear
and Quiet, 9 for Sequence and for Shower (`tests/outcomes_test.cpp` holds them), and 14 for Best of with four places taken.

Groups run on their own (`bench/report.py GROUP`) or all together; kernels are measured by Google Benchmark.

{tables}
""")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
