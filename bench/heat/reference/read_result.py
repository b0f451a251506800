"""Prints what the probes of a test body's deck show, as JSON rows: seconds, then one temperature per probe."""
import json
import re
import sys

body = json.load(open(sys.argv[1]))
rows, time, probe = {}, None, None
for line in open(sys.argv[2]):
    found = re.search(r"set PROBE(\d+) and time\s+([0-9.E+]+)", line)
    if found:
        probe, time = int(found.group(1)), float(found.group(2))
    elif re.match(r"\s+\d+\s+[-0-9.E+]+\s*$", line):
        rows.setdefault(round(time, 3), {})[probe] = float(line.split()[1])
columns, at = [], 0
for p in body["probes"]:
    count = 2 if p["on"] == "underBlock" else 1
    columns.append(list(range(at, at + count)))
    at += count
# Times go on through the steps of a deck.
for time, values in sorted(rows.items()):
    print(json.dumps([round(time)] + [round(sum(values[i] for i in c) / len(c), 2) for c in columns]))
