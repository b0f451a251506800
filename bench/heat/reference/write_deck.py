"""Writes the CalculiX deck of a test body, the same JSON that `heat body` takes, from a case file of the solver's tests.

    python3 write_deck.py CASE.json 0.9 0.25 > fine.inp     finest cell and step, mm and s; again with 0.5 as coarse.inp
    ccx fine                                                CalculiX 2.20 (Debian package calculix-ccx); minutes
    python3 read_result.py CASE.json coarse.dat fine.dat    puts the probes into the case file

Linear bricks whose edges follow the blocks and the probes; eight layers through the plate, thin ones on top, six through every block height, and a thin layer of
its own where a block has a contact conductance. Units in the deck: mm, s, K, mJ, mW; so k in mW/mmK, heat capacity in
mJ/mm3K, film in mW/mm2K.
"""
import json
import sys

body = json.load(open(sys.argv[1]))["body"]
cell, step = float(sys.argv[2]), float(sys.argv[3])
plate, blocks = body["plate"], body["blocks"]
PLATE_LAYERS, BLOCK_LAYERS, NEAR, FAR, CONTACT_MM = 8, 6, 3.0, 4.0, 0.05


def edges(size, spans, probes):
    """Cell edges along one axis: fine on blocks and near them, coarser outside; blocks and probes lie on edges."""
    stops = sorted({0.0, size} | set(probes) | {round(min(size, max(0.0, e)), 6) for a, b in spans for e in (a, b, a - NEAR, b + NEAR)})
    out = [0.0]
    for a, b in zip(stops, stops[1:]):
        near = any(lo - NEAR - 1e-6 <= a and b <= hi + NEAR + 1e-6 for lo, hi in spans)
        n = max(1, round((b - a) / (cell if near else FAR * cell) + 0.49))
        out += [a + (b - a) * (i + 1) / n for i in range(n)]
    return out


def span(block, axis):
    centre = block["xMm" if axis == 0 else "yMm"]
    return centre - block["sizeMm"][axis] / 2, centre + block["sizeMm"][axis] / 2


xs, ys = (edges(plate["sizeMm"][k], [span(b, k) for b in blocks], [p["xMm" if k == 0 else "yMm"] for p in body["probes"]]) for k in (0, 1))
nx, ny = len(xs) - 1, len(ys) - 1


def block_at(i, j):
    x, y = (xs[i] + xs[i + 1]) / 2, (ys[j] + ys[j + 1]) / 2
    for number, b in enumerate(blocks):
        (x0, x1), (y0, y1) = span(b, 0), span(b, 1)
        if x0 < x < x1 and y0 < y < y1:
            return number
    return None


where = {(i, j): block_at(i, j) for i in range(nx) for j in range(ny)}
LAYERS = PLATE_LAYERS + 1 + BLOCK_LAYERS


def exists(i, j, k):
    return 0 <= i < nx and 0 <= j < ny and 0 <= k < LAYERS and (k < PLATE_LAYERS or where[i, j] is not None)


def height(k, number):
    """Upper edge of so many layers, mm; above the plate it depends on the block."""
    if k <= PLATE_LAYERS:
        return plate["thicknessMm"] * (1 - (1 - k / PLATE_LAYERS) ** 1.5)  # thin ones under the blocks
    gap = CONTACT_MM if blocks[number].get("contactWm2K") else 1e-3
    if k == PLATE_LAYERS + 1:
        return plate["thicknessMm"] + gap
    return plate["thicknessMm"] + gap + blocks[number]["heightMm"] * (k - PLATE_LAYERS - 1) / BLOCK_LAYERS


def node(i, j, k):
    return 1 + i + (nx + 1) * (j + (ny + 1) * k)


nodes, elements, faces = {}, [], []
SIDES = {1: (0, 0, -1), 2: (0, 0, 1), 3: (0, -1, 0), 4: (1, 0, 0), 5: (0, 1, 0), 6: (-1, 0, 0)}
for k in range(LAYERS):
    for j in range(ny):
        for i in range(nx):
            if not exists(i, j, k):
                continue
            corners = [(i, j, k), (i + 1, j, k), (i + 1, j + 1, k), (i, j + 1, k)]
            corners += [(a, b, c + 1) for a, b, c in corners]
            for a, b, c in corners:
                nodes[node(a, b, c)] = (xs[a], ys[b], height(c, where[i, j]))
            number = len(elements) + 1
            kind = "PLATE" if k < PLATE_LAYERS else ("GAP" if k == PLATE_LAYERS else "BLOCK") + str(where[i, j])
            elements.append((number, kind, [node(*c) for c in corners]))
            for face, (a, b, c) in SIDES.items():
                if not exists(i + a, j + b, k + c):
                    what = "sides" if face > 2 else "bottom" if face == 1 else "top" if k < PLATE_LAYERS else where[i, j]
                    faces.append((number, face, what))

print("*NODE")
for number, (x, y, z) in sorted(nodes.items()):
    print(f"{number},{x:.6f},{y:.6f},{z:.6f}")
for name in sorted({kind for _, kind, _ in elements}):
    print(f"*ELEMENT,TYPE=C3D8,ELSET={name}")
    for number, kind, corners in elements:
        if kind == name:
            print(f"{number}," + ",".join(map(str, corners)))


def material(name, conduct, capacity):
    print(f"*MATERIAL,NAME={name}\n*CONDUCTIVITY,TYPE=ORTHO\n{conduct[0]},{conduct[0]},{conduct[1]}")
    print(f"*DENSITY\n1\n*SPECIFIC HEAT\n{capacity}\n*SOLID SECTION,ELSET={name},MATERIAL={name}")


material("PLATE", (plate["kInPlane"], plate["kThrough"]), plate["heatCapacity"] / 1e6)
for number, b in enumerate(blocks):
    material(f"BLOCK{number}", (b["k"], b["k"]), b["heatCapacity"] / 1e6)
    contact = b.get("contactWm2K")
    # Nothing flows sideways in the layer between; where the block touches, a hair of its own material.
    material(f"GAP{number}", (1e-6, contact * CONTACT_MM / 1000) if contact else (b["k"], b["k"]), 1e-6)
print("*NSET,NSET=ALL,GENERATE\n1," + str(max(nodes)))


def nearest(edge, at):
    return min(range(len(edge)), key=lambda i: abs(edge[i] - at))


LEVELS = {"plateTop": [PLATE_LAYERS], "plateBottom": [0], "underBlock": [PLATE_LAYERS, PLATE_LAYERS + 1], "blockTop": [LAYERS]}
probes = [(p, k) for p in body["probes"] for k in LEVELS[p["on"]]]
for index, (p, k) in enumerate(probes):
    print(f"*NSET,NSET=PROBE{index:03d}\n{node(nearest(xs, p['xMm']), nearest(ys, p['yMm']), k)}")
if body.get("emissivity"):
    print("*PHYSICAL CONSTANTS,ABSOLUTE ZERO=-273.15,STEFAN BOLTZMANN=5.670374419E-11")
print(f"*INITIAL CONDITIONS,TYPE=TEMPERATURE\nALL,{body['startC']}")
for part in body["steps"]:
    print(f"*STEP,INC=1000000\n*HEAT TRANSFER,DIRECT\n{step},{part['durationS']}")
    print("*FILM,OP=NEW")
    for number, face, what in faces:
        film = part[what] if isinstance(what, str) else part.get("blockTops", {}).get(
            blocks[what]["name"], blocks[what].get("top", part["top"]))
        print(f"{number},F{face},{film['airC']},{film['filmWm2K'] / 1000}")
    if body.get("emissivity"):
        print("*RADIATE,OP=NEW")
        for number, face, what in faces:
            print(f"{number},R{face},{body['surroundingsC']},{body['emissivity']}")
    for index in range(len(probes)):
        print(f"*NODE PRINT,NSET=PROBE{index:03d},FREQUENCY={round(1 / step)}\nNT")
    print("*END STEP")
