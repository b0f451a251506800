"""Puts what CalculiX found into a case file: probes at whole seconds, extrapolated to step nought from two runs.

    python3 read_result.py CASE.json COARSE.dat FINE.dat    runs with steps of 0.5 and 0.25 s: backward Euler, so 2·fine − coarse
"""
import json
import re
import sys

KEPT_S = [1, 2, 3, 5, 8, 12, 16, 20, 21, 23, 26, 30, 35, 40, 41, 43, 46, 50, 55, 60, 70, 80, 90]
case = json.load(open(sys.argv[1]))


def read(path):
    rows, time, probe = {}, None, None
    for line in open(path):
        found = re.search(r"set PROBE(\d+) and time\s+([0-9.E+]+)", line)
        if found:
            probe, time = int(found.group(1)), float(found.group(2))
        elif re.match(r"\s+\d+\s+[-0-9.E+]+\s*$", line):
            rows.setdefault(round(time), {})[probe] = float(line.split()[1])
    return rows


def columns(values):
    """A joint is the mean of the two faces of its layer."""
    at = 0
    for p in case["body"]["probes"]:
        count = 2 if p["on"] == "underBlock" else 1
        yield sum(values[at + i] for i in range(count)) / count
        at += count


coarse, fine = read(sys.argv[2]), read(sys.argv[3])
case["secondsAndTempsC"] = [
    [s] + [round(2 * f - c, 2) for c, f in zip(columns(coarse[s]), columns(fine[s]))] for s in KEPT_S if s in fine
]
json.dump(case, open(sys.argv[1], "w"), indent=1)
