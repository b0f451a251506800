"""Prints what the probes of plate.inp show: block underside, then 8 mm out top and bottom, then 15 mm out top and bottom."""
import re
import sys

time = None
rows = {}
for line in open(sys.argv[1]):
    found = re.search(r"time\s+([0-9.E+]+)", line)
    if found:
        time = float(found.group(1))
    elif re.match(r"\s+\d+\s+[-0-9.E+]+\s*$", line):
        number, value = line.split()
        rows.setdefault(time, []).append((int(number), float(value)))
for time, values in sorted(rows.items()):
    if round(time) in (10, 30, 60, 120):
        print(round(time), *(f"{value:.2f}" for _, value in values))
